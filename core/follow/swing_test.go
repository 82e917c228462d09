package follow_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/follow"
	"manudrill/core/guitar"
)

// swingingRuns asks for so much swing.
func swingingRuns(t *testing.T, swing float64) chart.Chart {
	t.Helper()
	d := drill.New("runs", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}})
	d.Path.Position, d.Rhythm.NotesPerBeat, d.Rhythm.Passes, d.Rhythm.Swing = 5, 2, 2, swing
	c, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	return c
}

// A drill that asks for swing is played so, and expected so; who plays it straight, or swings
// otherwise, is told that and nothing else.
func TestSwingThatIsAskedFor(t *testing.T) {
	written := swingingRuns(t, 0)
	asked := swingingRuns(t, 0.667)
	for share, told := range map[float64]string{0.667: "", 0.64: "", 0.5: "swing 0", 0.58: "swing 0", 0.75: "swing 0"} {
		take := follow.Follow(asked, swung(written, share))
		assert.Equal(t, told, happened(take), "%g", share)
		assert.Equal(t, len(take.Matches), take.Count(follow.Played), "%g", share)
		if told != "" {
			assert.InDelta(t, share, take.Events[0].Share, 1e-9)
			assert.InDelta(t, share, take.Matches[1].Chart.Beat-take.Matches[0].Chart.Beat, 1e-9, "and expected so")
		}
	}
}

// When swung notes sound: the second of two later by what the first takes more, in each pass; notes
// that do not share the beat by twos are straight.
func TestWhenSwungNotesSound(t *testing.T) {
	notes := swingingRuns(t, 0.75).Unroll()
	for i, beat := range []float64{0, 0.75, 1, 1.75} {
		assert.InDelta(t, beat, notes[i].Beat, 1e-9)
		assert.InDelta(t, beat+float64(len(notes)/4), notes[i+len(notes)/2].Beat, 1e-9, "second pass")
	}
	d := drill.New("triplets", drill.FingerPerFret{Orders: [][]int{{1, 2, 3}}})
	d.Rhythm.NotesPerBeat, d.Rhythm.Swing = 3, 0.667
	_, err := d.Chart(guitar.Standard(), 90)
	require.ErrorContains(t, err, "by twos")
	d.Rhythm.NotesPerBeat, d.Rhythm.Swing = 4, 0.9
	_, err = d.Chart(guitar.Standard(), 90)
	require.ErrorContains(t, err, "set it from 50")
	d.Rhythm.Swing = 0.667
	c, err := d.Divided(3).Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	assert.False(t, c.Swings())
}
