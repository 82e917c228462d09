package evenness_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/evenness"
)

// What is marked as heard is beyond what the ear notices, here 10 ms and 1 dB, and beyond
// chance where a mean is told; marking again, what was kept from before too, says the same.
func TestWhatIsHeardIsMarked(t *testing.T) {
	ms := func(v float64) *float64 { return &v }
	figure := func(value, plusMinus float64) *evenness.Figure {
		return &evenness.Figure{Value: value, PlusMinus: plusMinus, Count: 20}
	}
	a := evenness.Analysis{
		Timing: evenness.Timing{AudibleMs: 10}, Level: evenness.Level{AudibleDB: 1},
		Notes: []evenness.Note{
			{DeviationMs: ms(-10.1), RelativeLevel: ms(1)}, {DeviationMs: ms(9.9), RelativeLevel: ms(-1.1)}, {Uneven: true, Stands: true}, // missed, and marked wrongly
		},
		Transitions: []evenness.Transition{
			{Count: 20, MeanMs: 15, PlusMinusMs: 4}, {Count: 20, MeanMs: -15, PlusMinusMs: 11}, {Count: 4, MeanMs: 15}, {Count: 20, MadeUp: true, MeanMs: 15},
			{LeastSure: true, SpreadMs: 21}, {LeastSure: true, SpreadMs: 19}, {LeastSure: true, MadeUp: true, SpreadMs: 30},
		},
		Groups: []evenness.Group{
			{MeanMs: figure(12, 3)}, {MeanMs: figure(-12, 3)}, {MeanMs: figure(12, 13)}, {MeanMs: figure(9, 1)}, {},
		},
	}
	for range 2 {
		a.MarkAudible()
		var uneven, stands, late, vary, groups []bool
		for _, n := range a.Notes {
			uneven, stands = append(uneven, n.Uneven), append(stands, n.Stands)
		}
		for _, t := range a.Transitions {
			late, vary = append(late, t.Stands), append(vary, t.Varies)
		}
		for _, g := range a.Groups {
			groups = append(groups, g.Stands)
		}
		assert.Equal(t, []bool{true, false, false}, uneven)
		assert.Equal(t, []bool{false, true, false}, stands)
		assert.Equal(t, []bool{true, false, false, false, false, false, false}, late)
		assert.Equal(t, []bool{false, false, false, false, true, false, false}, vary)
		assert.Equal(t, []bool{true, true, false, false, false}, groups)
	}
}
