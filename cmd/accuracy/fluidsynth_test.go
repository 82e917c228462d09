package main

import (
	"bytes"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/formats/midifile"
)

// A chart exported to MIDI, rendered by another program (FluidSynth) with a free font
// and measured: every note is right, beside the exported click too, and with the click
// turned down each is at its time within 1 ms but for what the renderer and the font's
// recording of it take when it is played alone. FluidSynth begins notes at blocks of 64
// samples, 1.45 ms apart, whose standard deviation is 0.42 ms. The font's steel and
// overdriven guitars are left out: they ring on beneath the next note of the same string,
// hardly softer, as no string can.
func TestAnExportedChartIsHeardAsItIsWritten(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	d := drill.New("exported", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}})
	d.Path.Strings, d.Attacks.Rule, d.Rhythm.NotesPerBeat, d.Rhythm.Passes = []int{5, 4, 3, 2}, drill.AllPicked, 2, 2
	c, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	for _, program := range []byte{24, 26, 27, 30} {
		exported := midifile.Write(score.Of(c))
		exported[bytes.Index(exported, []byte{0xC0, 25})+1] = program
		take := heardBySynth(t, c, exported)
		assert.Equal(t, len(take.Matches), take.Count(follow.Played), "guitar %d, with the click", program)

		for i := range len(exported) - 2 {
			if exported[i] == 0x99 && exported[i+2] > 0 { // a note of the percussion
				exported[i+2] = 1
			}
		}
		take = heardBySynth(t, c, exported)
		assert.Equal(t, len(take.Matches), take.Count(follow.Played), "guitar %d", program)
		assert.Empty(t, take.Extras)
		if !slices.Contains(sharp, program) {
			continue
		}
		delay := delays(t, c, program)
		var off []float64
		for _, m := range take.Matches {
			off = append(off, 1000*(m.Heard.Onset-m.Chart.Beat*60/c.BPM-delay[m.Chart.MIDI]))
		}
		assert.Less(t, stat.PopStdDev(off, nil), 1.0, "guitar %d, ms: %v", program, slices.Sorted(slices.Values(off)))
	}
}

// heardBySynth renders a MIDI file and listens to it.
func heardBySynth(t *testing.T, c chart.Chart, file []byte) follow.Take {
	t.Helper()
	var x []float64
	require.NoError(t, inFolder(func(folder string) error {
		s, wav := filepath.Join(folder, "chart.mid"), filepath.Join(folder, "chart.wav")
		require.NoError(t, os.WriteFile(s, file, 0o600))
		require.NoError(t, command("fluidsynth", "-q", "-n", "-i", "-R", "0", "-C", "0", "-r", "44100", "-F", wav, font, s))
		var err error
		x, err = readMono(wav)
		return err
	}))
	return follow.Follow(c, listen.Listen(rate, x))
}

// sharp are the guitars whose recordings begin sharply: the jazz guitar's times come with
// a standard deviation of 1.5 ms, the distorted one's swell over 20 ms.
var sharp = []byte{24, 27}

// delays is how long after it is struck each note of a chart is heard alone, in seconds:
// the recordings of the font have attacks of their own.
func delays(t *testing.T, c chart.Chart, program byte) map[int]float64 {
	t.Helper()
	const apart = 2000 // ms
	s := midi{{0, []byte{0xC0, program}}}
	var keys []int
	for _, n := range c.Notes {
		if slices.Contains(keys, n.MIDI) {
			continue
		}
		keys = append(keys, n.MIDI)
		at := apart * len(keys)
		s = append(s, event{at, []byte{0x90, byte(n.MIDI), 90}}, event{at + 700, []byte{0xB0, allSoundOff, 0}})
	}
	x, err := s.rendered()
	require.NoError(t, err)
	heard := listen.Listen(rate, x)
	require.Len(t, heard, len(keys))
	of := map[int]float64{}
	for i, n := range heard {
		of[keys[i]] = n.Onset - apart*float64(i+1)/1000
	}
	return of
}
