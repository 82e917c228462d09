// Package drilltest makes drills for tests and writes their notes as an instructor would.
package drilltest

import (
	"fmt"
	"strings"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/guitar"
)

// A Setting changes a drill.
type Setting = func(*drill.Drill)

// Of is a drill of a pattern, played once, with one setting after another.
func Of(p drill.Pattern, settings ...Setting) drill.Drill {
	d := drill.New("test", p)
	d.Rhythm.Passes = 1
	for _, set := range settings {
		set(&d)
	}
	return d
}

// At puts it in a position on some strings.
func At(position int, strings ...int) Setting {
	return func(d *drill.Drill) { d.Path.Position, d.Path.Strings = position, strings }
}

// Back sets its way back.
func Back(b drill.Back) Setting { return func(d *drill.Drill) { d.Path.Back = b } }

// Rule sets its attacks.
func Rule(r drill.AttackRule) Setting { return func(d *drill.Drill) { d.Attacks.Rule = r } }

// Stay sets how long each cell is played at a place.
func Stay(n int, unit string) Setting {
	return func(d *drill.Drill) { d.Path.Stay = drill.Stay{Count: n, Unit: unit} }
}

// Shift moves it along the neck.
func Shift(s drill.Shift) Setting { return func(d *drill.Drill) { d.Path.Shift = s } }

// Spread sets which strings come next.
func Spread(s drill.Spread) Setting { return func(d *drill.Drill) { d.Path.Spread = s } }

// PerBeat sets its notes per beat.
func PerBeat(n int) Setting { return func(d *drill.Drill) { d.Rhythm.NotesPerBeat = n } }

// In puts it in a key.
func In(root int, scale string) Setting {
	return func(d *drill.Drill) { d.Key = &guitar.Key{Root: root, Scale: scale} }
}

// Together plays all cells at one place before the next.
func Together(d *drill.Drill) { d.Path.Together = true }

// Slurs are finger combinations.
func Slurs(s drill.Slur, combinations ...[]int) drill.Pattern {
	return drill.SlurCombinations{Combinations: combinations, Slur: s}
}

// Chart writes a drill out for a standard guitar at 60 bpm.
func Chart(t require.TestingT, d drill.Drill) chart.Chart {
	c, err := d.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	return c
}

// Written are notes as an instructor would write them: string/fret, attack's first letter
// (n: hammer-on from nowhere), finger.
func Written(notes []chart.Note) string {
	var out []string
	for _, n := range notes {
		out = append(out, fmt.Sprintf("%d/%d%c%d", n.String, n.Fret, n.Attack[0], n.Finger))
	}
	return strings.Join(out, " ")
}

// Frets are notes by their places alone: "6:5-7-9 5:5".
func Frets(notes []chart.Note) string {
	var out []string
	for i, n := range notes {
		if i > 0 && notes[i-1].String == n.String {
			out[len(out)-1] += fmt.Sprintf("-%d", n.Fret)
			continue
		}
		out = append(out, fmt.Sprintf("%d:%d", n.String, n.Fret))
	}
	return strings.Join(out, " ")
}

// AnyDrill draws a drill from all families with other paths, rules and rhythms;
// those that are no drill are drawn again.
func AnyDrill(t *rapid.T) drill.Drill {
	families := library.Families()
	d := families[rapid.IntRange(0, len(families)-1).Draw(t, "family")].Drill
	d.Path.Position = rapid.IntRange(1, 17).Draw(t, "position")
	d.Path.Back = rapid.SampledFrom([]drill.Back{drill.OneWay, drill.Returns, drill.Mirrored}).Draw(t, "back")
	d.Path.Together = rapid.Bool().Draw(t, "together")
	d.Path.Shift = drill.Shift{
		By: rapid.IntRange(-2, 2).Draw(t, "by"), Each: rapid.SampledFrom([]string{drill.EachCell, drill.EachLeg, drill.EachRound}).Draw(t, "each"),
		Count: rapid.IntRange(0, 4).Draw(t, "count"), Home: rapid.Bool().Draw(t, "home"),
	}
	d.Path.Stay = drill.Stay{Count: rapid.IntRange(1, 3).Draw(t, "stay"), Unit: rapid.SampledFrom([]string{drill.Times, drill.Beats}).Draw(t, "unit")}
	d.Attacks = drill.Attacks{Rule: rapid.SampledFrom(drill.AttackRules).Draw(t, "attacks"), Cycle: []bool{false, true}}
	d.Strokes = drill.Strokes{Rule: rapid.SampledFrom(drill.StrokeRules).Draw(t, "strokes"), FromUp: rapid.Bool().Draw(t, "fromUp")}
	d.Rhythm.NotesPerBeat = rapid.SampledFrom(drill.Divisions).Draw(t, "perBeat")
	d.Mirror, d.Reverse = rapid.Bool().Draw(t, "mirror"), rapid.Bool().Draw(t, "reverse")
	d.Rhythm.Passes = 1
	if len(d.Check(guitar.Standard())) > 0 || len(d.CheckAt(guitar.Standard(), 60)) > 0 {
		t.Skip("no drill")
	}
	return d
}
