package sound_test

import (
	"bytes"
	"encoding/binary"
	"errors"
	"io"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/bounds"
	"manudrill/formats/sound"
	"manudrill/memtest"
)

// silence is a FLAC of so many minutes of nothing at 8 kHz: a few kilobytes.
func silence(t *testing.T, minutes int) []byte {
	t.Helper()
	flac, err := sound.Sound{Rate: 8000, Bits: 16, Channels: [][]int32{make([]int32, minutes*60*8000)}}.EncodeFLAC()
	require.NoError(t, err)
	return flac
}

// unsaid takes the length out of a FLAC's header (RFC 9639, 8.2: the last 36 bits
// before the checksum).
func unsaid(flac []byte) []byte {
	out := bytes.Clone(flac)
	out[21] &= 0xf0
	copy(out[22:26], []byte{0, 0, 0, 0})
	return out
}

// read reads a recording as it is read everywhere: block by block.
func read(file []byte) error {
	r, err := sound.Open(bytes.NewReader(file))
	for err == nil {
		_, err = r.Next()
	}
	if errors.Is(err, io.EOF) {
		return nil
	}
	return err
}

func TestALongRecordingIsRefusedUnread(t *testing.T) {
	long := silence(t, bounds.TakeSeconds/60+1)
	wav := wave(format(1, 1, 8000, 16), chunk("data", make([]byte, 16)))
	binary.LittleEndian.PutUint32(wav[len(wav)-20:], 16000*(bounds.TakeSeconds+60))
	for name, file := range map[string][]byte{"FLAC": long, "FLAC that does not say": unsaid(long), "WAV": wav} {
		memtest.AtMost(t, 4*memtest.MB, name, func() { assert.ErrorIs(t, read(file), bounds.ErrTakeTooLong, name) })
	}
	whole := unsaid(silence(t, bounds.TakeSeconds/60))
	memtest.AtMost(t, 4*memtest.MB, "the longest take", func() { assert.NoError(t, read(whole)) })
}

// endless is a FLAC frame whose first residual is a run of zeros to the end of the
// file.
func endless(megabytes int) []byte {
	file := silenceHead()
	return append(file, make([]byte, megabytes<<20)...)
}

// silenceHead is a FLAC up to the residuals of its first frame: order 0, fixed.
func silenceHead() []byte {
	flac, err := sound.Sound{Rate: 8000, Bits: 16, Channels: [][]int32{make([]int32, 16)}}.EncodeFLAC()
	if err != nil {
		panic(err)
	}
	at := bytes.Index(flac, []byte{0xff, 0xf8})
	header := flac[at : at+7]
	// Frame headers end with a checksum; the encoder's is kept, so that only what
	// comes after is wrong. A subframe "fixed, order 0" is 0 001000 0.
	return append(append(bytes.Clone(flac[:at]), header...), 0x10, 0x00)
}

func TestAnEndlessFrameIsRefused(t *testing.T) {
	file := endless(16)
	memtest.Ends(t, "a run of zeros", func() {
		memtest.AtMost(t, 8*memtest.MB, "a run of zeros", func() { assert.Error(t, read(file)) })
	})
}
