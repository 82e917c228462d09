package practice_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/drill/review"
	"manudrill/core/guitar"
	"manudrill/core/practice"
	"manudrill/core/setup"
	"manudrill/core/tempo"
)

func TestWhatIsWrongWithARoutine(t *testing.T) {
	good := play("a", practice.ByTakes, 3, 0)
	routine := func(items ...practice.Item) practice.Routine { return practice.Routine{Name: "x", Items: items} }
	assert.Empty(t, routine(good, rest).Check())
	for name, r := range map[string]practice.Routine{
		"no name":         {Items: []practice.Item{good}},
		"two lines":       {Name: "a\nb", Items: []practice.Item{good}},
		"a long note":     {Name: "x", Note: strings.Repeat("é", practice.MaxText+1), Items: []practice.Item{good}},
		"nothing to play": routine(rest),
		"no drill":        routine(play("", practice.ByTakes, 1, 0)),
		"too many items":  routine(make([]practice.Item, practice.MaxItems+1)...),
		"no takes":        routine(play("a", practice.ByTakes, 0, 0)),
		"too many takes":  routine(play("a", practice.ByTakes, practice.MaxTakes+1, 0)),
		"a moment":        routine(play("a", practice.BySeconds, 4, 0)),
		"half a day":      routine(play("a", practice.BySeconds, 3601, 0)),
		"6 of 5":          routine(play("a", practice.ByClean, 6, 5)),
		"of too many":     routine(play("a", practice.ByClean, 3, practice.MaxOf+1)),
		"unknown":         routine(play("a", "luck", 3, 5)),
		"never enough":    routine(practice.Item{Kind: practice.Play, Drill: "a"}),
		"no rest":         routine(good, practice.Item{Kind: practice.Rest}),
		"an empty note":   routine(good, practice.Item{Kind: practice.Note, Seconds: 10, Text: " "}),
		"no kind":         routine(good, practice.Item{}),
	} {
		assert.NotEmpty(t, r.Check(), name)
	}
	assert.Empty(t, practice.Routine{Name: "x", Note: strings.Repeat("é", practice.MaxText), Items: []practice.Item{good}}.Check(), "characters are counted, not bytes")
}

// By hand: 10 s to read, 3 takes of 20 s with 4 s each, 30 s rest, 2 minutes, and 5 takes.
func TestHowLongARoutineLasts(t *testing.T) {
	r := practice.Routine{Items: []practice.Item{
		{Kind: practice.Note, Text: "x", Seconds: 10}, play("a", practice.ByTakes, 3, 0), rest, play("b", practice.BySeconds, 120, 0), play("a", practice.ByClean, 3, 5),
	}}
	assert.InDelta(t, 10+3*24+30+120+5*24, r.Seconds(func(string) float64 { return 20 }, 4), 0)
	assert.Equal(t, []string{"a", "b"}, r.Drills())
}

// What ships can be played on a usual guitar by a usual hand at every rung, rests, and
// names no drill that is not there.
func TestReadyRoutines(t *testing.T) {
	names := map[string]bool{}
	for _, ready := range practice.ReadyRoutines() {
		assert.Empty(t, ready.Routine.Check(), ready.ID)
		have := map[string]bool{}
		for _, d := range ready.Drills {
			assert.False(t, names[d.Name], "%s is there twice", d.Name)
			names[d.Name], have[d.Name] = true, true
			assert.Empty(t, d.Check(guitar.Standard()), d.Name)
			for _, r := range tempo.Usual().Rungs(d.Rhythm.NotesPerBeat) {
				assert.Empty(t, d.CheckAt(guitar.Standard(), r.BPM), "%s at %g", d.Name, r.BPM)
				m, is := review.MisfitOf(d, setup.Usual(), r.BPM)
				assert.False(t, is, "%s: %s", d.Name, m.Text)
			}
		}
		rests := 0
		for _, i := range ready.Routine.Items {
			if i.Kind == practice.Play {
				assert.True(t, have[i.Drill], i.Drill)
			}
			if i.Kind == practice.Rest {
				rests++
			}
		}
		assert.Positive(t, rests, "%s has no rest", ready.ID)
	}
}
