package hearing_test

import (
	"bytes"
	"context"
	"errors"
	"io"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
	"manudrill/formats/hearing"
	"manudrill/formats/midifile"
	"manudrill/formats/sound"
	"manudrill/memtest"
)

func played(t *testing.T) (chart.Chart, []float64) {
	t.Helper()
	c, err := drill.New("trill", drill.Trill{Fingers: []int{1, 3}}).Chart(guitar.Standard(), 100)
	require.NoError(t, err)
	_, samples, err := simulate.Player{Seed: 2, MotorMs: 2}.Take(c)
	require.NoError(t, err)
	return c, samples
}

// Block by block the same is heard as at once, whatever the file.
func TestAllKindsAreHeard(t *testing.T) {
	c, samples := played(t)
	s := sound.FromMono(simulate.Rate, samples)
	flac, err := s.EncodeFLAC()
	require.NoError(t, err)
	want := listen.Listen(simulate.Rate, s.Mono())
	for kind, file := range map[hearing.Kind][]byte{hearing.WAV: s.EncodeWAV(), hearing.FLAC: flac} {
		frames := 0
		h, err := hearing.Hear(t.Context(), bytes.NewReader(file), func(r *sound.Reader, block [][]int32) error {
			assert.Equal(t, kind == hearing.FLAC, r.FLAC())
			if block != nil {
				frames += len(block[0])
			}
			return nil
		})
		require.NoError(t, err)
		assert.Equal(t, kind, h.Kind)
		assert.Equal(t, want, h.Notes)
		assert.Equal(t, len(samples), frames)
		assert.InDelta(t, float64(len(samples))/simulate.Rate, h.Seconds, 1e-9)
	}
	h, err := hearing.Hear(t.Context(), bytes.NewReader(midifile.Write(score.Of(c))), nil)
	require.NoError(t, err)
	assert.Equal(t, hearing.MIDI, h.Kind)
	assert.Len(t, h.Notes, len(c.Unroll()))
	assert.Positive(t, h.Seconds)
}

func TestWhatIsNoTake(t *testing.T) {
	fault := errors.New("no room")
	_, samples := played(t)
	wav := sound.FromMono(simulate.Rate, samples).EncodeWAV()
	_, err := hearing.Hear(t.Context(), bytes.NewReader(nil), nil)
	assert.ErrorIs(t, err, sound.ErrEmpty)
	_, err = hearing.Hear(t.Context(), bytes.NewReader([]byte("a letter")), nil)
	assert.ErrorIs(t, err, sound.ErrNotSound)
	_, err = hearing.Hear(t.Context(), bytes.NewReader(sound.FromMono(44100, nil).EncodeWAV()), nil)
	assert.ErrorIs(t, err, sound.ErrEmpty)
	_, err = hearing.Hear(t.Context(), bytes.NewReader(wav), func(*sound.Reader, [][]int32) error { return fault })
	assert.ErrorIs(t, err, fault)
	h, err := hearing.Hear(t.Context(), bytes.NewReader(sound.FromMono(44100, make([]float64, 44100)).EncodeWAV()), nil)
	require.NoError(t, err)
	assert.Empty(t, h.Notes, "silence is no fault")
}

// Listening ends when nobody waits for it any more.
func TestListeningEndsWithItsContext(t *testing.T) {
	ctx, cancel := context.WithCancel(t.Context())
	_, samples := played(t)
	wav := sound.FromMono(simulate.Rate, samples).EncodeWAV()
	read := &counting{from: bytes.NewReader(wav)}
	_, err := hearing.Hear(ctx, read, func(_ *sound.Reader, block [][]int32) error {
		if block != nil {
			cancel()
		}
		return nil
	})
	assert.ErrorIs(t, err, context.Canceled)
	assert.Less(t, read.bytes, len(wav)/2)
}

type counting struct {
	from  io.Reader
	bytes int
}

func (c *counting) Read(p []byte) (int, error) {
	n, err := c.from.Read(p)
	c.bytes += n
	return n, err
}

// The longest take is heard with the memory of its notes, not of its sound.
func TestALongTakeIsNeverHeldWhole(t *testing.T) {
	if testing.Short() {
		t.Skip("takes some seconds")
	}
	_, samples := played(t)
	var long []float64
	for len(long) < 4*60*simulate.Rate {
		long = append(long, samples...)
	}
	wav := sound.FromMono(simulate.Rate, long).EncodeWAV()
	memtest.AtMost(t, 64*memtest.MB, "four minutes", func() {
		h, err := hearing.Hear(t.Context(), bytes.NewReader(wav), nil)
		require.NoError(t, err)
		assert.NotEmpty(t, h.Notes)
	})
}
