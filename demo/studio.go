// Package demo fills an empty studio with an invented one: an instructor, four
// students of different level and six weeks of takes. Simulated players make
// the sound, and every take goes through the same intake as a real one.
package demo

import (
	"fmt"
	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// A student is an invented person and how they play.
type student struct {
	name    string
	comfort float64 // notes per second played evenly at the start
	gain    float64 // notes per second won in a week
	clockMs float64 // unsteadiness at the comfortable speed
	motorMs float64
	drills  []given
}

// given is a drill that a student has, the finger pair that is weak in it at the
// start, which heals over the weeks, and a habit that stays.
type given struct {
	drill string
	weak  simulate.Weak
	habit func(*simulate.Player)
}

// Habits, each of which the take on the screen should tell by itself.
func liftsEarly(p *simulate.Player)   { p.GapPercent = 35 }
func dragsStrings(p *simulate.Player) { p.BendCents = 38 }
func letsRing(p *simulate.Player)     { p.RingMs = 350 }
func tires(p *simulate.Player)        { p.FatiguePercent = 320 }
func inTheKitchen(p *simulate.Player) { p.RoomDB, p.ClickDB, p.NoiseDB, p.Squeaks = -14, -22, -54, 3 }

const instructor = "Oda Fernwick"

var students = []student{
	{"Bram Tillowe", 2.1, 0.14, 14, 8, []given{
		{"Hammer-on pairs 1-2, 3-4", simulate.Weak{From: 3, To: 4, LateMs: 36, DropDB: 4}, liftsEarly},
	}},
	{"Ishi Corvane", 4.6, 0.50, 8, 4, []given{
		{"One finger per fret 1-2-3-4", simulate.Weak{From: 3, To: 4, LateMs: 18, DropDB: 3}, letsRing},
		{"Pull-off pairs 2-1, 4-2", simulate.Weak{From: 4, To: 2, LateMs: 22, DropDB: 4}, dragsStrings},
	}},
	{"Lena Quarrow", 6.0, 0.50, 6, 4, []given{
		{"One finger per fret 1-3-2-4", simulate.Weak{From: 3, To: 2, LateMs: 14, DropDB: 3}, inTheKitchen},
		{"Up and down 1-3-4", simulate.Weak{From: 4, To: 3, LateMs: 16, DropDB: 3}, tires},
	}},
	{"Sol Marrik", 6.8, 0.42, 4, 3, []given{
		{"Up and down 1-3-4", simulate.Weak{From: 3, To: 4, LateMs: 10, DropDB: 2}, nil},
		{"1-2-4 picked, then slurred", simulate.Weak{From: 2, To: 4, LateMs: 15, DropDB: 3}, nil},
	}},
}

func gate(right, spread, level float64, passes int) tempo.Gate {
	return tempo.Gate{RightPercent: right, SpreadPercent: spread, LevelSpreadDB: level, PassesInARow: passes}
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
		ladder(60, 4, 108, gate(95, 6, 4, 2)), shelf("Slurs", false, "first year", "warm-up"),
		func(d *drill.Drill) { d.Path.Position = 7 }),
	made("Pull-off pairs 2-1, 4-2", slurs(drill.PullOffs, []int{1, 2}, []int{2, 4}),
		ladder(66, 6, 126, gate(95, 7, 4, 2)), shelf("Slurs", true, "second year"),
		func(d *drill.Drill) {
			d.Path.Strings, d.Path.Back = []int{3, 2, 1}, drill.Returns
			d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 4, 3
		}),
	made("One finger per fret 1-2-3-4", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}},
		ladder(60, 5, 120, gate(95, 7, 4, 2)), shelf("One finger per fret", true, "warm-up"), perFret),
	made("One finger per fret 1-3-2-4", drill.FingerPerFret{Orders: [][]int{{1, 3, 2, 4}}},
		ladder(72, 6, 132, gate(95, 7, 4, 2)), shelf("One finger per fret", false), perFret),
	made("Up and down 1-3-4", slurs(drill.BothSlurs, []int{1, 3, 4}),
		ladder(50, 4, 112, gate(95, 9, 5, 2)), shelf("Slurs", true, "second year"),
		func(d *drill.Drill) { d.Path.Position, d.Rhythm.NotesPerBeat = 7, 6 }),
	made("Diagonal up to the ninth fret", drill.Diagonal{Orders: [][]int{{1, 2, 3, 4}}},
		ladder(60, 4, 112, gate(95, 7, 4, 2)), shelf("One finger per fret", false, "crossings"),
		func(d *drill.Drill) {
			perFret(d)
			d.Path.Strings, d.Path.Back = []int{5, 4, 3, 2}, drill.Mirrored
			d.Path.Shift = drill.Shift{By: 1, Each: drill.EachCell, Count: 4, Home: true}
		}),
	made("A minor pentatonic, one slur in four", drill.ScaleRun{PerString: []int{2}, Order: drill.Both},
		ladder(60, 5, 120, gate(95, 8, 5, 2)), shelf("Scales", false, "second year"),
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

// player is how the student plays a drill in a week (from 0) at a speed in
// notes per second: faster than comfortable is less even.
func (s student) player(g given, week int, notesPerSecond float64, seed uint64) simulate.Player {
	weak := g.weak
	strain := max(1, notesPerSecond/(s.comfort+s.gain*float64(week)))
	strain *= strain
	weak.LateMs *= 1 - 0.12*float64(week)
	p := simulate.Player{
		Seed: seed, ClockMs: s.clockMs * strain, MotorMs: s.motorMs * strain, LevelSDDB: 0.8 * strain,
		SlurDropDB: 2, Weak: &weak, NoiseDB: -66,
	}
	if strain > 1.3 {
		p.Miss = int(seed % 3)
		p.Wrong = int(seed % 2)
	}
	if g.habit != nil {
		g.habit(&p)
	}
	return p
}
