// Package demo fills an empty studio with an invented one: two instructors, 25 students
// with half a year behind them, each with a history of their own. Simulated players play
// every take; of the latest ones they make the sound, which goes through the same intake
// as a real one.
package demo

import (
	"fmt"
	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

const instructor = "Oda Fernwick"

func gate(right, spread, level float64, passes int) tempo.Gate {
	return tempo.Gate{RightPercent: right, SpreadPercent: spread, LevelSpreadDB: level, PassesInARow: passes, GapsPercent: 33, RingingPercent: 33}
}

// forgiving is a gate that does not ask how the notes join: in drills of students who are to
// work at that first of all.
func forgiving(g tempo.Gate) tempo.Gate {
	g.GapsPercent, g.RingingPercent = 0, 0
	return g
}

// shelved is a drill with its place in the library.
type shelved struct {
	drillfile.File
	shelf store.Shelf
}

// made returns a drill of a pattern, from plain settings.
func made(name string, p drill.Pattern, l tempo.Ladder, shelf store.Shelf, set func(*drill.Drill)) shelved {
	d := drill.New(name, p)
	set(&d)
	return shelved{drillfile.File{Drill: d, Ladder: l}, shelf}
}

func ladder(start, step, target float64, g tempo.Gate) tempo.Ladder {
	return tempo.Ladder{StartBPM: start, StepBPM: step, TargetBPM: target, Gate: g}
}

func slurs(s drill.Slur, combinations ...[]int) drill.Pattern {
	return drill.SlurCombinations{Combinations: combinations, Slur: s}
}

func shelf(folder string, favourite bool, tags ...string) store.Shelf {
	return store.Shelf{Folder: folder, Favourite: favourite, Tags: tags}
}

// perFret sets one finger per fret, picked, four notes a beat.
func perFret(d *drill.Drill) { d.Attacks.Rule, d.Rhythm.NotesPerBeat = drill.AllPicked, 4 }

var drills = []shelved{
	made("Hammer-on pairs 1-2, 3-4", slurs(drill.HammerOns, []int{1, 2}, []int{3, 4}),
		ladder(60, 4, 132, forgiving(gate(95, 6, 4, 2))), shelf("Slurs", false, "first year", "warm-up"),
		func(d *drill.Drill) { d.Path.Position = 7 }),
	made("Pull-off pairs 2-1, 4-2", slurs(drill.PullOffs, []int{1, 2}, []int{2, 4}),
		ladder(66, 6, 150, gate(95, 7, 4, 2)), shelf("Slurs", true, "second year"),
		func(d *drill.Drill) {
			d.Path.Strings, d.Path.Back = []int{3, 2, 1}, drill.Returns
			d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 4, 3
		}),
	made("One finger per fret 1-2-3-4", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}},
		ladder(60, 5, 150, forgiving(gate(95, 7, 4, 2))), shelf("One finger per fret", true, "warm-up"), perFret),
	made("One finger per fret 1-3-2-4", drill.FingerPerFret{Orders: [][]int{{1, 3, 2, 4}}},
		ladder(72, 6, 156, gate(95, 7, 4, 2)), shelf("One finger per fret", false), perFret),
	made("Up and down 1-3-4", slurs(drill.BothSlurs, []int{1, 3, 4}),
		ladder(50, 4, 130, gate(95, 9, 5, 2)), shelf("Slurs", true, "second year"),
		func(d *drill.Drill) { d.Path.Position, d.Rhythm.NotesPerBeat = 7, 6 }),
	made("Diagonal up to the ninth fret", drill.Diagonal{Orders: [][]int{{1, 2, 3, 4}}},
		ladder(60, 4, 112, gate(95, 7, 4, 2)), shelf("One finger per fret", false, "crossings"),
		func(d *drill.Drill) {
			perFret(d)
			d.Path.Strings, d.Path.Back = []int{5, 4, 3, 2}, drill.Mirrored
			d.Path.Shift = drill.Shift{By: 1, Each: drill.EachCell, Count: 4, Home: true}
		}),
	made("A minor pentatonic, one slur in four", drill.ScaleRun{PerString: []int{2}, Order: drill.Both},
		ladder(60, 5, 160, gate(95, 8, 5, 2)), shelf("Scales", false, "second year"),
		func(d *drill.Drill) {
			d.Key, d.Rhythm.NotesPerBeat = &guitar.Key{Root: 9, Scale: "minorPentatonic"}, 3
			d.Attacks = drill.Attacks{Rule: drill.InTurn, Cycle: []bool{false, true, false, false}}
		}),
	made("Taps over fifth position", drill.Tapping{Low: 1, Middle: 4, TapAt: 7, Order: drill.TapInTurn},
		ladder(50, 4, 100, gate(95, 9, 6, 2)), shelf("Both hands", false, "third year"),
		func(d *drill.Drill) {
			d.Path.Strings, d.Path.Stay, d.Rhythm.NotesPerBeat = []int{2}, drill.Stay{Count: 4, Unit: drill.Times}, 3
		}),
	made("1-2-4 picked, then slurred", slurs(drill.HammerOns, []int{1, 2, 4}),
		ladder(60, 4, 112, gate(95, 7, 4, 2)), shelf("Slurs", false, "third year"),
		func(d *drill.Drill) {
			d.Path.Position, d.Path.Strings, d.Path.Stay = 5, []int{4, 3, 2, 1}, drill.Stay{Count: 4, Unit: drill.Times}
			d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 3, 1
			*d = d.PickedFirst()
		}),
	made("Four orders without a stop", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}},
		ladder(60, 5, 120, gate(95, 7, 4, 1)), shelf("One finger per fret", false, "warm-up"),
		func(d *drill.Drill) {
			*d = orders(d.Name, []int{1, 2, 3, 4}, []int{1, 3, 2, 4}, []int{1, 4, 2, 3}, []int{4, 3, 2, 1})
		}),
}

// orders plays one order of the fingers after another, fifteen seconds each.
func orders(name string, of ...[]int) drill.Drill {
	var parts []drill.Drill
	var seconds []int
	for _, o := range of {
		d := drill.New(fmt.Sprintf("%d-%d-%d-%d", o[0], o[1], o[2], o[3]), drill.FingerPerFret{Orders: [][]int{o}})
		perFret(&d)
		parts, seconds = append(parts, d), append(seconds, 15)
	}
	return drill.Joined(name, parts, seconds)
}
