// Package demo fills an empty studio with an invented one: an instructor, four
// students of different level and six weeks of takes. Simulated players make
// the sound, and every take goes through the same intake as a real one.
package demo

import (
	"manudrill/core/drill"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
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

// given is a drill that a student has, and the finger pair that is weak in it
// at the start; it heals over the weeks.
type given struct {
	drill string
	weak  simulate.Weak
}

const instructor = "Oda Fernwick"

var students = []student{
	{"Bram Tillowe", 2.1, 0.14, 14, 8, []given{
		{"Hammer-on pairs 1-2, 3-4", simulate.Weak{From: 3, To: 4, LateMs: 36, DropDB: 4}},
	}},
	{"Ishi Corvane", 4.6, 0.50, 8, 4, []given{
		{"One finger per fret 1-2-3-4", simulate.Weak{From: 3, To: 4, LateMs: 18, DropDB: 3}},
		{"Pull-off pairs 2-1, 4-2", simulate.Weak{From: 4, To: 2, LateMs: 22, DropDB: 4}},
	}},
	{"Lena Quarrow", 6.0, 0.50, 6, 4, []given{
		{"One finger per fret 1-3-2-4", simulate.Weak{From: 3, To: 2, LateMs: 14, DropDB: 3}},
		{"Up and down 1-3-4", simulate.Weak{From: 4, To: 3, LateMs: 16, DropDB: 3}},
	}},
	{"Sol Marrik", 6.8, 0.42, 4, 3, []given{
		{"Up and down 1-3-4", simulate.Weak{From: 3, To: 4, LateMs: 10, DropDB: 2}},
	}},
}

func gate(right, spread, level float64, passes int) tempo.Gate {
	return tempo.Gate{RightPercent: right, SpreadPercent: spread, LevelSpreadDB: level, PassesInARow: passes}
}

var sixStrings = []int{6, 5, 4, 3, 2, 1}

var drills = []drillfile.File{
	{
		Drill: drill.Drill{Name: "Hammer-on pairs 1-2, 3-4", Pattern: drill.SlurCombinations{Combinations: [][]int{{1, 2}, {3, 4}}, Slur: drill.HammerOns},
			Position: 7, Strings: sixStrings, Repeats: 1, NotesPerBeat: 2, Passes: 2},
		Ladder: tempo.Ladder{StartBPM: 60, StepBPM: 4, TargetBPM: 108, Gate: gate(95, 6, 4, 2)},
	},
	{
		Drill: drill.Drill{Name: "Pull-off pairs 2-1, 4-2", Pattern: drill.SlurCombinations{Combinations: [][]int{{1, 2}, {2, 4}}, Slur: drill.PullOffs},
			Position: 5, Strings: []int{3, 2, 1}, ThereAndBack: true, Repeats: 1, NotesPerBeat: 4, Passes: 3},
		Ladder: tempo.Ladder{StartBPM: 66, StepBPM: 6, TargetBPM: 126, Gate: gate(95, 7, 4, 2)},
	},
	{
		Drill: drill.Drill{Name: "One finger per fret 1-2-3-4", Pattern: drill.FingerPerFret{Order: []int{1, 2, 3, 4}},
			Position: 5, Strings: sixStrings, Repeats: 1, NotesPerBeat: 4, Passes: 2},
		Ladder: tempo.Ladder{StartBPM: 60, StepBPM: 5, TargetBPM: 120, Gate: gate(95, 7, 4, 2)},
	},
	{
		Drill: drill.Drill{Name: "One finger per fret 1-3-2-4", Pattern: drill.FingerPerFret{Order: []int{1, 3, 2, 4}},
			Position: 5, Strings: sixStrings, Repeats: 1, NotesPerBeat: 4, Passes: 2},
		Ladder: tempo.Ladder{StartBPM: 72, StepBPM: 6, TargetBPM: 132, Gate: gate(95, 7, 4, 2)},
	},
	{
		Drill: drill.Drill{Name: "Up and down 1-3-4", Pattern: drill.SlurCombinations{Combinations: [][]int{{1, 3, 4}}, Slur: drill.BothSlurs},
			Position: 7, Strings: sixStrings, Repeats: 1, NotesPerBeat: 6, Passes: 2},
		Ladder: tempo.Ladder{StartBPM: 50, StepBPM: 4, TargetBPM: 112, Gate: gate(95, 9, 5, 2)},
	},
}

// player is how the student plays a drill in a week (from 0) at a speed in
// notes per second: faster than comfortable is less even.
func (s student) player(weak simulate.Weak, week int, notesPerSecond float64, seed uint64) simulate.Player {
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
	return p
}
