package simulate_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/advice"
	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
)

// Ten takes of ten kinds: what was put in is what is said first.
func TestWhatWasPutInIsSaidFirst(t *testing.T) {
	for name, c := range map[string]struct {
		slur   drill.Slur
		passes int
		fault  func(*simulate.Player)
		first  string
	}{
		"even":             {drill.HammerOns, 3, func(p *simulate.Player) { p.ClockMs, p.MotorMs, p.SlurDropDB = 1, 2, 1 }, "even"},
		"one weak pair":    {drill.HammerOns, 4, func(p *simulate.Player) { p.Weak = &simulate.Weak{From: 2, To: 4, LateMs: 35} }, "late"},
		"soft pull-offs":   {drill.PullOffs, 4, func(p *simulate.Player) { p.SlurDropDB = 8 }, "slurs"},
		"gaps":             {drill.HammerOns, 3, func(p *simulate.Player) { p.GapPercent = 40 }, "gaps"},
		"a ringing string": {drill.HammerOns, 4, func(p *simulate.Player) { p.RingMs = 400 }, "ringing"},
		"a dragged string": {drill.PullOffs, 4, func(p *simulate.Player) { p.BendCents = 40 }, "bend"},
		"tiring":           {drill.HammerOns, 8, func(p *simulate.Player) { p.MotorMs, p.FatiguePercent = 4, 250 }, "tires"},
		"three mistakes":   {drill.HammerOns, 3, func(p *simulate.Player) { p.Miss, p.Wrong, p.Extra = 1, 1, 1 }, "mistakes"},
		"a false start":    {drill.HammerOns, 2, func(p *simulate.Player) { p.FalseStart = 7 }, "course"},
	} {
		t.Run(name, func(t *testing.T) {
			for seed := range uint64(2) {
				chart := chartOf(t, 84, c.slur, c.passes)
				p := usual(200 + seed)
				c.fault(&p)
				a, _ := measured(chart, p)
				said := advice.Of(a, chart)
				require.NotEmpty(t, said.Findings)
				assert.Equal(t, c.first, said.Findings[0].About, "%v", said.Findings)
			}
		})
	}
	t.Run("another drill", func(t *testing.T) {
		d := drill.New("other", drill.FingerPerFret{Orders: [][]int{{4, 2, 3, 1}}})
		d.Path.Position, d.Attacks.Rule, d.Rhythm.NotesPerBeat = 2, drill.AllPicked, 4
		other, err := d.Chart(guitar.Standard(), 70)
		require.NoError(t, err)
		asked := chartOf(t, 84, drill.HammerOns, 2)
		_, x := take(t, usual(3), other)
		said := advice.Of(evenness.Judge(follow.Follow(asked, listen.Listen(simulate.Rate, x))), asked)
		assert.Equal(t, "foreign", said.Findings[0].About)
	})
}

// Of every pair of a drill up and down that comes late, it is said that it does, and of no
// other that it hurries: the next note comes back to the beat, and its interval is short
// by as much.
func TestALatePairIsSaidNotTheOneAfter(t *testing.T) {
	d := drill.New("up and down", drill.SlurCombinations{Combinations: [][]int{{1, 3, 4}}, Slur: drill.BothSlurs})
	d.Path.Strings = []int{4, 3, 2}
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 3, 4
	chart, err := d.Chart(guitar.Standard(), 80)
	require.NoError(t, err)
	for _, pair := range [][2]int{{1, 3}, {3, 4}, {4, 3}, {3, 1}} {
		p := usual(7)
		p.Weak = &simulate.Weak{From: pair[0], To: pair[1], LateMs: 35}
		a, _ := measured(chart, p)
		said := advice.Of(a, chart)
		require.NotEmpty(t, said.Findings)
		assert.Equal(t, "late", said.Findings[0].About, "%v: %v", pair, said.Findings)
		for _, f := range said.Findings {
			assert.NotEqual(t, "hurried", f.About, "%v: %s", pair, f.Text)
		}
		assert.Equal(t, pair, [2]int{a.Weakest.From, a.Weakest.To})
	}
}
