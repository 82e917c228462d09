package exchange_test

import (
	"bytes"
	"encoding/binary"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/bounds"
	"manudrill/formats/midifile"
	"manudrill/memtest"
)

// track is a MIDI file of one track.
func track(events ...[]byte) []byte {
	body := bytes.Join(events, nil)
	head := []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk")
	return append(binary.BigEndian.AppendUint32(head, uint32(len(body))), body...)
}

var (
	late = track([]byte{0xff, 0xff, 0xff, 0x7f, 0x90, 60, 90}, []byte{0xff, 0xff, 0xff, 0x7f, 60, 0}) // 14 days in 17 bytes
	held = track([]byte{0, 0x90, 60, 90}, bytes.Repeat([]byte{0, 60, 90}, 800_000))
	// Each change of tempo, and after all of them as many notes.
	tempos = track(bytes.Repeat([]byte{1, 0xff, 0x51, 3, 0, 0, 1}, 300_000), []byte{0, 0x90, 60, 90}, bytes.Repeat([]byte{1, 60, 0, 1, 60, 90}, 40_000))
)

// Whatever comes in is read within its bounds, or refused with what to do.
func TestHostileDocuments(t *testing.T) {
	notes := strings.Repeat("<note/>", bounds.DocumentBytes/8)
	for name, c := range map[string]struct{ content, says string }{
		"held notes":             {string(held), "50,000 notes"},
		"a wide row":             {"3|" + strings.Repeat("5-", 100_000), "20000 characters"},
		"many rows":              {strings.Repeat("3|--5--\n", 40_000), ""},
		"rows without end":       {strings.Repeat("3|-5-5-5-5-5-5-5-5-5-5-\n", 100_000), "50,000 notes"},
		"rows of marks":          {strings.Repeat("f|1\n", 500_000), "no tablature"},
		"rows of marks and note": {"3|--5--\n" + strings.Repeat("f|--1\n", 500_000) + strings.Repeat("3|--5--\n", 20_000), ""},
		"short places":           {strings.Repeat("3:5\n", 500_000), "50,000 notes"},
		"deep XML":               {"<score-partwise>" + strings.Repeat("<a>", 1_000_000), "64 deep"},
		"many notes":             {"<score-partwise><part><measure>" + notes, "50,000 notes"},
		"too large":              {strings.Repeat(" ", bounds.DocumentBytes+1), "4 MB"},
		"a large drill document": {`{"drill":{"name":"` + strings.Repeat("a", bounds.JSONBytes), "1 MB"},
		"a large text":           {strings.Repeat("la ", 1_000_000), "20000 characters"},
	} {
		memtest.Ends(t, name, func() {
			memtest.AtMost(t, 160*memtest.MB, name, func() {
				_, err := importing([]byte(c.content), g)
				if c.says == "" {
					assert.NoError(t, err, "%s: what fits is read", name)
				} else if assert.Error(t, err, name) {
					assert.Contains(t, err.Error(), c.says, name)
				}
			})
		})
	}
}

func TestHostileMIDITakes(t *testing.T) {
	for name, c := range map[string]struct {
		file []byte
		want error
	}{"a late note": {late, bounds.ErrTakeTooLong}, "held notes": {held, bounds.ErrTooManyNotes}, "tempos": {tempos, nil}} {
		memtest.Ends(t, name, func() {
			memtest.AtMost(t, 64*memtest.MB, name, func() {
				_, err := midifile.Played(c.file)
				assert.ErrorIs(t, err, c.want, name)
			})
		})
	}
}

// A file is read with a small multiple of the memory it has itself.
func reading(t testing.TB, file []byte, read func([]byte)) {
	require.Less(t, len(file), bounds.DocumentBytes)
	memtest.AtMost(t, uint64(8*memtest.MB+400*len(file)), "reading", func() { read(file) })
}

func FuzzPlayed(f *testing.F) {
	f.Add(late)
	f.Add(track([]byte{0, 0x90, 60, 90}, []byte{48, 60, 0, 0, 62, 90, 48, 62, 0}))
	f.Fuzz(func(t *testing.T, file []byte) {
		reading(t, file, func(b []byte) {
			notes, err := midifile.Played(b)
			if err != nil {
				return
			}
			for _, n := range notes {
				require.True(t, n.Onset >= 0 && n.End >= n.Onset && n.End <= bounds.TakeSeconds, "%+v", n)
			}
		})
	})
}
