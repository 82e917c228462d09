package simulate_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/follow"
	"manudrill/core/simulate"
)

// What a player does in the course of a take is played as it is said, and only the notes that
// count have the index of theirs.
func TestAPlayerDoesAsItIsTold(t *testing.T) {
	c := chartOf(t, 60, drill.HammerOns, 1)
	n := len(c.Notes)
	for name, one := range map[string]struct {
		act           simulate.Act
		strokes       int
		aside, extra  int
		after, before int     // two notes that count
		seconds       float64 // by how much their interval is longer than written
	}{
		"waits":       {simulate.Act{Kind: follow.Hesitation, Before: 5, Seconds: 0.4}, n, 0, 0, 4, 5, 0.4},
		"again":       {simulate.Act{Kind: follow.Double, Before: 5, Seconds: 0.3}, n + 1, 0, 1, 4, 5, 0.3},
		"corrects":    {simulate.Act{Kind: follow.Correction, Before: 5, Seconds: 0.3}, n + 1, 0, 1, 4, 5, 0.3},
		"from before": {simulate.Act{Kind: follow.Replay, Before: 9, To: 6, Seconds: 1}, n + 3, 3, 0, 6, 7, 0},
		"begins":      {simulate.Act{Kind: follow.Restart, Before: 9, Seconds: 1}, n + 9, 9, 0, 0, 1, 0},
		"leaves out":  {simulate.Act{Kind: follow.Skip, Before: 5, To: 8}, n - 3, 0, 0, 8, 9, 0},
		"leaves off":  {simulate.Act{Kind: follow.Left, Before: 9}, 9, 0, 0, 4, 5, 0},
	} {
		p := simulate.Player{Seed: 1, Course: []simulate.Act{one.act}}
		require.NoError(t, p.Validate(), name)
		strokes := p.Perform(c, 2)
		assert.Len(t, strokes, one.strokes, name)
		at, aside, extra := map[int]float64{}, 0, 0
		for _, s := range strokes {
			switch {
			case s.Aside:
				aside++
			case s.Index < 0:
				extra++
			default:
				at[s.Index] = s.T
			}
		}
		assert.Equal(t, one.aside, aside, name)
		assert.Equal(t, one.extra, extra, name)
		written := c.Notes[one.before].Beat - c.Notes[one.after].Beat
		assert.InDelta(t, written+one.seconds, at[one.before]-at[one.after], 1e-9, name)
	}
}

func TestAPlayerCannotDoWhatMakesNoSense(t *testing.T) {
	for _, act := range []simulate.Act{
		{Kind: "sings", Before: 3}, {Kind: follow.Hesitation}, {Kind: follow.Hesitation, Before: 3, Seconds: -1},
		{Kind: follow.Stop, Before: 3, Seconds: 61}, {Kind: follow.Replay, Before: 3, To: 4}, {Kind: follow.Skip, Before: 3, To: 3},
		{Kind: follow.Double, Before: -1}, {Kind: follow.Swing, Before: 3},
	} {
		assert.Error(t, simulate.Player{Course: []simulate.Act{act}}.Validate(), "%+v", act)
	}
	assert.Error(t, simulate.Player{Course: slices.Repeat([]simulate.Act{{Kind: follow.Stop, Before: 1}}, 101)}.Validate())
	assert.Error(t, simulate.Player{Transpose: 30}.Validate())
	assert.Error(t, simulate.Player{Swing: 0.9}.Validate())
}

// Whatever is asked of a chart that is shorter ends with the chart.
func TestAnActBeyondTheChartIsNoFault(t *testing.T) {
	c := chartOf(t, 60, drill.HammerOns, 1)
	far := 10 * len(c.Notes)
	p := simulate.Player{Seed: 1, Course: []simulate.Act{{Kind: follow.Skip, Before: 4, To: far}, {Kind: follow.Stop, Before: far, Seconds: 9}}}
	strokes := p.Perform(c, 2)
	assert.Len(t, strokes, 5)
	assert.Equal(t, len(c.Notes)-1, strokes[4].Index)
}
