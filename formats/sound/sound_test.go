package sound_test

import (
	"bytes"
	"encoding/binary"
	"errors"
	"io"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/formats/sound"
	"manudrill/memtest"
)

// made is a short recording whose samples use the whole range.
func made(rate, bits, channels int) sound.Sound {
	s := sound.Sound{Rate: rate, Bits: bits, Channels: make([][]int32, channels)}
	top := float64(int64(1)<<(bits-1)) - 1
	for c := range s.Channels {
		for i := range 9000 {
			s.Channels[c] = append(s.Channels[c], int32(top*math.Sin(float64(i)*0.03*float64(c+1))))
		}
	}
	s.Channels[0][0], s.Channels[0][1] = int32(-top-1), int32(top)
	return s
}

func TestWAVAndFLACKeepEverySample(t *testing.T) {
	for _, rate := range []int{8000, 44100, 48000, 96000, 192000} {
		for _, bits := range []int{16, 24} {
			for _, channels := range []int{1, 2} {
				s := made(rate, bits, channels)
				back, err := sound.Decode(s.EncodeWAV())
				require.NoError(t, err)
				assert.Equal(t, s, back)
				flac, err := s.EncodeFLAC()
				require.NoError(t, err)
				back, err = sound.Decode(flac)
				require.NoError(t, err)
				assert.Equal(t, s, back)
			}
		}
	}
}

// The reference decoder reads what is written, where it is installed.
func TestTheReferenceDecoderReadsOurFLAC(t *testing.T) {
	program, err := exec.LookPath("flac")
	if err != nil {
		t.Fatal("the reference decoder is not installed; run 'make install-test-tools'")
	}
	s := made(48000, 24, 2)
	flac, err := s.EncodeFLAC()
	require.NoError(t, err)
	dir := t.TempDir()
	in, out := filepath.Join(dir, "a.flac"), filepath.Join(dir, "a.wav")
	require.NoError(t, os.WriteFile(in, flac, 0o600))
	log, err := exec.CommandContext(t.Context(), program, "-d", "-s", "--warnings-as-errors", "-o", out, in).CombinedOutput()
	require.NoError(t, err, string(log))
	wav, err := os.ReadFile(out)
	require.NoError(t, err)
	back, err := sound.Decode(wav)
	require.NoError(t, err)
	assert.Equal(t, s, back)
}

// What the reference encoder writes is read sample for sample, with every kind
// of predictor, partition and stereo that it has.
func TestTheReferenceEncodersFLACIsRead(t *testing.T) {
	program, err := exec.LookPath("flac")
	require.NoError(t, err, "the reference encoder is not installed; run 'make install-test-tools'")
	rng := rand.New(rand.NewPCG(1, 4))
	for name, s := range map[string]sound.Sound{
		"mono": made(44100, 16, 1), "stereo": made(48000, 24, 2), "silence": {Rate: 8000, Bits: 16, Channels: [][]int32{make([]int32, 9000)}},
		"noise": noise(rng, 1<<15, 0), "wasted bits": noise(rng, 1<<7, 6), "loud and quiet": noise(rng, 3, 0),
	} {
		for _, options := range [][]string{{"-0"}, {"-5"}, {"-8", "-p"}, {"-8", "-e", "-b", "576"}, {"-l", "0"}, {"-l", "32", "--lax", "-r", "8"}, {"-b", "4321", "--lax"}} {
			dir := t.TempDir()
			in, out := filepath.Join(dir, "a.wav"), filepath.Join(dir, "a.flac")
			require.NoError(t, os.WriteFile(in, s.EncodeWAV(), 0o600))
			log, err := exec.CommandContext(t.Context(), program, append(options, "-s", "-o", out, in)...).CombinedOutput()
			require.NoError(t, err, string(log))
			flac, err := os.ReadFile(out)
			require.NoError(t, err)
			back, err := sound.Decode(flac)
			require.NoError(t, err, "%s %v", name, options)
			assert.Equal(t, s, back, "%s %v", name, options)
		}
	}
}

// noise is stereo noise whose lowest bits are empty.
func noise(rng *rand.Rand, top int32, wasted int) sound.Sound {
	s := sound.Sound{Rate: 44100, Bits: 16, Channels: make([][]int32, 2)}
	for range 9000 {
		v := rng.Int32N(2*top) - top
		s.Channels[0] = append(s.Channels[0], v<<wasted)
		s.Channels[1] = append(s.Channels[1], (v/2)<<wasted)
	}
	return s
}

// A bit that flips in the frames is found by their checksums.
func TestADamagedFLACIsToldApart(t *testing.T) {
	flac, err := made(44100, 16, 1).EncodeFLAC()
	require.NoError(t, err)
	for at := 60; at < len(flac); at += 97 {
		broken := append([]byte(nil), flac...)
		broken[at] ^= 0x10
		_, err := sound.Decode(broken)
		assert.True(t, errors.Is(err, sound.ErrDamaged) || errors.Is(err, sound.ErrCutOff), "byte %d: %v", at, err)
	}
}

// A recording is read in pieces: what is held does not grow with its length.
func TestReadingHoldsOneBlock(t *testing.T) {
	for _, file := range [][]byte{made(44100, 16, 2).EncodeWAV(), must(made(44100, 16, 2).EncodeFLAC())} {
		r, err := sound.Open(bytes.NewReader(file))
		require.NoError(t, err)
		total := 0
		for {
			block, err := r.Next()
			if errors.Is(err, io.EOF) {
				break
			}
			require.NoError(t, err)
			assert.LessOrEqual(t, len(block[0]), 4096)
			total += len(block[1])
		}
		assert.Equal(t, 9000, total)
	}
}

func must(b []byte, err error) []byte {
	if err != nil {
		panic(err)
	}
	return b
}

// chunk makes a RIFF chunk; wave a WAVE file of chunks.
func chunk(id string, body []byte) []byte {
	return append(binary.LittleEndian.AppendUint32([]byte(id), uint32(len(body))), body...)
}

func wave(chunks ...[]byte) []byte {
	body := []byte("WAVE")
	for _, c := range chunks {
		body = append(body, c...)
	}
	return chunk("RIFF", body)
}

func format(tag, channels uint16, rate uint32, bits uint16) []byte {
	b := binary.LittleEndian.AppendUint16(nil, tag)
	b = binary.LittleEndian.AppendUint16(b, channels)
	b = binary.LittleEndian.AppendUint32(b, rate)
	b = binary.LittleEndian.AppendUint32(b, rate*uint32(channels*bits/8))
	b = binary.LittleEndian.AppendUint16(b, channels*bits/8)
	return chunk("fmt ", binary.LittleEndian.AppendUint16(b, bits))
}

func TestFloatWAV(t *testing.T) {
	var data []byte
	for _, v := range []float32{0, 0.5, -1, 2, float32(math.NaN())} {
		data = binary.LittleEndian.AppendUint32(data, math.Float32bits(v))
	}
	s, err := sound.Decode(wave(format(3, 1, 44100, 32), chunk("LIST", []byte("note")), chunk("data", data)))
	require.NoError(t, err)
	mono := s.Mono()
	assert.InDeltaSlice(t, []float64{0, 0.5, -1, 1, 0}, mono, 1e-6, "louder than full scale is clipped, no number is silence")
}

func TestMonoIsTheMeanOfBothChannels(t *testing.T) {
	s := sound.Sound{Rate: 44100, Bits: 16, Channels: [][]int32{{16384, 0}, {0, -32768}}}
	assert.InDeltaSlice(t, []float64{0.25, -0.5}, s.Mono(), 1e-9)
}

func TestBadFilesSayWhatIsWrong(t *testing.T) {
	wav := made(44100, 16, 1).EncodeWAV()
	flac, err := made(44100, 16, 1).EncodeFLAC()
	require.NoError(t, err)
	for name, c := range map[string]struct {
		file []byte
		want error
	}{
		"empty":              {nil, sound.ErrEmpty},
		"a text":             {[]byte("dear teacher"), sound.ErrNotSound},
		"another RIFF":       {[]byte("RIFF\x04\x00\x00\x00AVI "), sound.ErrNotSound},
		"WAV cut in data":    {wav[:len(wav)/2], sound.ErrCutOff},
		"WAV cut in header":  {wav[:30], sound.ErrCutOff},
		"FLAC cut":           {flac[:len(flac)/2], sound.ErrCutOff},
		"FLAC cut in header": {flac[:20], sound.ErrCutOff},
		"no samples":         {wave(format(1, 1, 44100, 16), chunk("data", nil)), sound.ErrEmpty},
		"8 bit":              {wave(format(1, 1, 44100, 8), chunk("data", make([]byte, 9))), sound.ErrUnsupported},
		"compressed":         {wave(format(17, 1, 44100, 4), chunk("data", make([]byte, 9))), sound.ErrUnsupported},
		"six channels":       {wave(format(1, 6, 44100, 16), chunk("data", make([]byte, 24))), sound.ErrUnsupported},
		"4 kHz":              {wave(format(1, 1, 4000, 16), chunk("data", make([]byte, 9))), sound.ErrUnsupported},
		"data before format": {wave(chunk("data", make([]byte, 8))), sound.ErrUnsupported},
	} {
		_, err := sound.Decode(c.file)
		assert.ErrorIs(t, err, c.want, name)
	}
}

// A recorder that died has not said how long its sound is, and one that writes into a
// stream cannot know: what is there is read.
func TestWAVOfUnknownLengthIsReadToItsEnd(t *testing.T) {
	whole := made(44100, 16, 2)
	for name, size := range map[string]uint32{"died": 0, "streamed": 0xFFFFFFFF, "streamed by another": 0x7FFFF000} {
		wav := whole.EncodeWAV()
		binary.LittleEndian.PutUint32(wav[4:], size)
		binary.LittleEndian.PutUint32(wav[40:], size)
		s, err := sound.Decode(wav)
		require.NoError(t, err, name)
		assert.Equal(t, whole, s, name)
		s, err = sound.Decode(wav[:len(wav)-3]) // within a frame
		require.NoError(t, err, name)
		assert.Equal(t, whole.Frames()-1, s.Frames(), name)
	}
}

// Some programs put a tag before the recording (ID3v2.4.0, Main Structure).
func TestATagBeforeFLACIsPassedOver(t *testing.T) {
	whole := made(44100, 16, 1)
	tag := append([]byte("ID3\x04\x00\x00\x00\x00\x02\x01"), make([]byte, 257)...)
	flac := append(tag, must(whole.EncodeFLAC())...)
	s, err := sound.Decode(flac)
	require.NoError(t, err)
	assert.Equal(t, whole, s)
	r, err := sound.Open(bytes.NewReader(flac))
	require.NoError(t, err)
	assert.False(t, r.FLAC(), "a browser would not play it as it is")
	for name, c := range map[string]struct {
		file []byte
		want error
	}{
		"a tag alone":     {tag, sound.ErrEmpty},
		"a tag cut off":   {tag[:100], sound.ErrCutOff},
		"another's sound": {append(tag, "\xFF\xFB\x90\x00rest"...), sound.ErrNotSound},
	} {
		_, err := sound.Decode(c.file)
		assert.ErrorIs(t, err, c.want, name)
	}
}

// Whatever bytes come, reading ends with a sound or an error.
func FuzzDecode(f *testing.F) {
	for _, channels := range []int{1, 2} {
		short := made(8000, 16, channels)
		for c := range short.Channels {
			short.Channels[c] = short.Channels[c][:200] // small seeds are changed more often
		}
		f.Add(must(short.EncodeFLAC()))
		f.Add(short.EncodeWAV())
	}
	f.Add(wave(format(3, 1, 44100, 32), chunk("data", make([]byte, 8))))
	f.Fuzz(func(t *testing.T, file []byte) {
		memtest.AtMost(t, uint64(4*memtest.MB+4*len(file)), "reading", func() { _ = read(file) })
		if len(file) > 64<<10 {
			return // what is held whole below may be long
		}
		s, err := sound.Decode(file)
		if err == nil && len(s.Mono()) == 0 {
			t.Error("a sound without samples")
		}
	})
}
