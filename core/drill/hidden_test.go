package drill_test

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/drilltest"
)

// A setting that the bench does not show, since another makes it void, changes no note: what
// is left in it from before does not act.
func TestWhatIsVoidDoesNotAct(t *testing.T) {
	void := map[string]struct {
		when func(drill.Drill) bool
		set  func(*drill.Drill)
	}{
		"groups":        {func(d drill.Drill) bool { return d.Path.Spread != drill.OwnGroups }, func(d *drill.Drill) { d.Path.Groups = [][]int{{6, 1}, {2, 5}} }},
		"strings":       {func(d drill.Drill) bool { return d.Path.Spread == drill.OwnGroups }, func(d *drill.Drill) { d.Path.Strings = []int{1, 6} }},
		"from the root": {func(d drill.Drill) bool { return d.Key == nil }, func(d *drill.Drill) { d.Path.FromRoot = true }},
		"a move by nothing": {func(d drill.Drill) bool { return d.Path.Shift.By == 0 }, func(d *drill.Drill) {
			d.Path.Shift = drill.Shift{Each: drill.EachCell, Count: 5, Home: true, Slide: true}
		}},
		"a cycle": {func(d drill.Drill) bool { return d.Attacks.Rule != drill.InTurn }, func(d *drill.Drill) {
			d.Attacks.Cycle, d.Attacks.Each = []bool{true, true, false}, "bar"
		}},
		"which stroke is first": {func(d drill.Drill) bool { return d.Strokes.Rule == drill.AllDown }, func(d *drill.Drill) { d.Strokes.FromUp = !d.Strokes.FromUp }},
	}
	names := slices.Sorted(maps.Keys(void))
	rapid.Check(t, func(t *rapid.T) {
		d := drilltest.AnyDrill(t)
		before, err := d.Chart(guitar.Standard(), 60)
		if err != nil {
			t.Skip("no chart")
		}
		for _, name := range names {
			if !void[name].when(d) {
				continue
			}
			changed := d
			void[name].set(&changed)
			after, err := changed.Chart(guitar.Standard(), 60)
			if assert.NoError(t, err, name) {
				assert.Equal(t, drilltest.Written(before.Notes), drilltest.Written(after.Notes), "%s of %T", name, d.Pattern)
			}
		}
	})
}
