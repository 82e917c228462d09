package plan_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"manudrill/core/plan"
	"manudrill/core/tempo"
)

func TestWhatIsDue(t *testing.T) {
	day := func(d int) time.Time { return time.Date(2026, 3, d, 0, 0, 0, 0, time.UTC) }
	rung := tempo.Rung{BPM: 120, NotesPerBeat: 2}
	lines := []plan.Line{{Kind: plan.Playing}}
	p := plan.Plan{
		Weeks: []plan.Week{{Days: []plan.Day{{Date: day(2), Lines: lines}, {Date: day(3), Lines: []plan.Line{{Kind: plan.Resting}}}, {Date: day(4), Lines: lines}, {Date: day(6), Lines: lines}}}},
		Goals: []plan.Said{{Name: "Slurs", Rung: rung, By: day(12)}, {Name: "Trills", Rung: rung, By: day(30)}, {Name: "Pairs", Rung: rung, By: day(3)}, {Name: "Met", Rung: rung, By: day(5), Likely: plan.IsMet}},
	}
	assert.Equal(t, []string{"Played on 1 of the 2 days planned in the last week.", "Slurs at 120 bpm due on 12 March.", "Pairs at 120 bpm was due on 3 March."},
		p.Due().On(day(5), []time.Time{day(2), day(3)}))
	assert.Equal(t, []string{"Played on 0 of the 1 day planned in the last week."}, plan.Due{Days: []time.Time{day(2)}}.On(day(9), nil))
	assert.Empty(t, plan.Due{Days: []time.Time{day(2)}}.On(day(10), nil), "a week back, no further")
	assert.Equal(t, []string{"Slurs at 120 bpm due on 12 March.", "Pairs at 120 bpm due on 3 March."}, p.Due().On(day(1), nil), "no day is over")
	isSlurs := func(g plan.Said) bool { return g.Name == "Slurs" }
	assert.Equal(t, []string{"Pairs at 120 bpm due on 3 March."}, p.Due().Without(isSlurs).On(day(1), nil), "what is met since is not due")
	assert.Len(t, p.Goals, 4, "the plan keeps its goals")
	p.Hurt = true
	assert.Empty(t, p.Due().Days, "nothing is asked for of who is in pain")
}
