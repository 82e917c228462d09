package jobs

import (
	"bytes"
	"io"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/formats/sound"
)

func recordingOf(t *testing.T, frames int) (*sound.Reader, []int32) {
	t.Helper()
	x := make([]float64, frames)
	for i := range x {
		x[i] = float64(i%200)/400 - 0.25
	}
	s := sound.FromMono(44100, x)
	r, err := sound.Open(bytes.NewReader(s.EncodeWAV()))
	require.NoError(t, err)
	return r, s.Channels[0]
}

// convert gives a converter all blocks of a recording, as the listener does.
func convert(t *testing.T, c *converter, r *sound.Reader) {
	t.Helper()
	require.NoError(t, c.keep(r, nil))
	for {
		block, err := r.Next()
		if err == io.EOF {
			return
		}
		require.NoError(t, err)
		require.NoError(t, c.keep(r, block))
		for _, samples := range block {
			clear(samples) // they are the reader's again
		}
	}
}

func TestARecordingIsCodedBesideWhoHearsIt(t *testing.T) {
	file, err := scratch()
	require.NoError(t, err)
	defer file.Close()
	r, samples := recordingOf(t, 100_000)
	c := &converter{to: file}
	convert(t, c, r)
	whole, err := c.done()
	require.NoError(t, err)
	raw, err := io.ReadAll(whole)
	require.NoError(t, err)
	back, err := sound.Decode(raw)
	require.NoError(t, err)
	assert.Equal(t, samples, back.Channels[0])
	assert.NoError(t, c.stop(), "once more does nothing")
}

// Whoever hears a recording goes on when it cannot be coded, and is told at the end.
func TestAFaultOfTheCodingIsToldAtTheEnd(t *testing.T) {
	file, err := os.CreateTemp(t.TempDir(), "full")
	require.NoError(t, err)
	r, _ := recordingOf(t, 400_000)
	c := &converter{to: file}
	require.NoError(t, c.keep(r, nil))
	require.NoError(t, file.Close()) // as if the disk were gone
	for {
		block, err := r.Next()
		if err == io.EOF {
			break
		}
		require.NoError(t, err)
		require.NoError(t, c.keep(r, block))
	}
	_, err = c.done()
	assert.ErrorContains(t, err, "file already closed")
}

// A recording that is broken off leaves nobody waiting.
func TestACodingThatIsBrokenOffEnds(t *testing.T) {
	file, err := scratch()
	require.NoError(t, err)
	defer file.Close()
	r, _ := recordingOf(t, 50_000)
	c := &converter{to: file}
	require.NoError(t, c.keep(r, nil))
	block, err := r.Next()
	require.NoError(t, err)
	require.NoError(t, c.keep(r, block))
	assert.NoError(t, c.stop())
	assert.NoError(t, (&converter{}).stop(), "where nothing was begun")
}
