package demo

import (
	"math"
	"math/rand/v2"
	"time"

	"manudrill/core/simulate"
)

// Weeks is how far back the demo goes.
const Weeks = 26

// A student is an invented person with a history.
type student struct {
	name    string
	learner simulate.Learner // how the speed grows that is played evenly
	uneven  float64          // timing spread at that speed, % of the interval
	begins  int              // week of the first take
	ends    int              // week after the last; 0 for none
	away    [2]int           // weeks without a take: from, and up to before
	after   float64          // speed that is left after being away, share of it; 1 where 0
	heals   float64          // share of the weak pair's lateness that goes away in a week
	days    []time.Duration  // of a week with a take, and how late in the day
	drills  []given
	events  []event
}

// given is a drill that a student has, and the finger pair that is weak in it.
type given struct {
	drill string
	weak  simulate.Weak
	habit func(*simulate.Player)
}

// An event is something that happens before the takes of a week.
type event struct {
	week   int
	bpm    float64 // the rung that the instructor sets; 0 for another event
	reason string
	hurts  string // what a student says who reports pain; empty for another event
}

// Habits, each of which the take on the screen should tell by itself.
func liftsEarly(p *simulate.Player)   { p.GapPercent = 35 }
func dragsStrings(p *simulate.Player) { p.BendCents = 38 }
func letsRing(p *simulate.Player)     { p.RingMs = 350 }
func tires(p *simulate.Player)        { p.FatiguePercent = 320 }
func inTheKitchen(p *simulate.Player) { p.RoomDB, p.ClickDB, p.NoiseDB, p.Squeaks = -14, -22, -54, 3 }

// thrice and twice are the days of a week with a take.
var (
	thrice = []time.Duration{0*24 + 18, 2*24 + 20, 5*24 + 11}
	twice  = []time.Duration{1*24 + 17, 4*24 + 19}
	daily  = []time.Duration{0*24 + 16, 1*24 + 16, 2*24 + 17, 3*24 + 16, 4*24 + 18, 5*24 + 10}
)

func weak(from, to int, lateMs, dropDB float64) simulate.Weak {
	return simulate.Weak{From: from, To: to, LateMs: lateMs, DropDB: dropDB}
}

func grows(shape simulate.Shape, comfort, gain float64) simulate.Learner {
	return simulate.Learner{Shape: shape, Comfort: comfort, Gain: gain, DaySD: 0.03}
}

// students are all of the demo. The first eleven have a history that each screen should
// tell; the others are what a studio is full of.
var students = []student{
	{name: "Bram Tillowe", learner: grows(simulate.Power, 2.0, 0.35), uneven: 6.7, heals: 0.04, days: thrice, drills: []given{
		{"Hammer-on pairs 1-2, 3-4", weak(3, 4, 34, 4), liftsEarly},
	}},
	{name: "Ishi Corvane", learner: grows(simulate.Linear, 4.4, 0.10), uneven: 5.2, heals: 0.02, days: thrice, drills: []given{
		{"One finger per fret 1-2-3-4", weak(3, 4, 12, 3), letsRing},
		{"Pull-off pairs 2-1, 4-2", weak(4, 2, 16, 4), dragsStrings},
	}},
	{name: "Lena Quarrow", learner: grows(simulate.Linear, 4.4, 0.17), uneven: 4.9, heals: 0.04, days: thrice, drills: []given{
		{"One finger per fret 1-3-2-4", weak(3, 2, 11, 3), inTheKitchen},
		{"Up and down 1-3-4", weak(4, 3, 12, 3), tires},
	}},
	{name: "Sol Marrik", learner: grows(simulate.Power, 5.4, 0.9), uneven: 4.6, heals: 0.03, days: thrice, drills: []given{
		{"Up and down 1-3-4", weak(3, 4, 10, 2), nil},
		{"1-2-4 picked, then slurred", weak(2, 4, 12, 3), nil},
	}},
	// Stuck on the little finger: nothing heals, and the ladder stands still.
	{name: "Pim Haskett", learner: simulate.Learner{Shape: simulate.Plateau, Comfort: 4.1, Gain: 0.35, Limit: 5.6, DaySD: 0.02}, uneven: 4.9, days: thrice, drills: []given{
		{"One finger per fret 1-2-3-4", weak(3, 4, 20, 5), nil},
	}},
	// Back after a break: seven weeks without a note, and slower than before.
	{name: "Tove Lannick", learner: grows(simulate.Linear, 4.3, 0.16), uneven: 5.2, heals: 0.05, away: [2]int{17, 24}, after: 0.84, days: thrice, drills: []given{
		{"One finger per fret 1-3-2-4", weak(2, 4, 12, 3), nil},
	}},
	// Too fast too soon: set far up at his own wish, and down from there.
	{name: "Rufus Ombry", learner: grows(simulate.Linear, 4.6, 0.07), uneven: 5.2, days: thrice, drills: []given{
		{"One finger per fret 1-2-3-4", weak(3, 4, 14, 3), nil},
	}, events: []event{{week: 20, bpm: 140, reason: "He wants to try it at the tempo of the piece. We shall see."}}},
	// In pain, and resting.
	{name: "Odile Prask", learner: grows(simulate.Linear, 5.0, 0.13), uneven: 4.9, heals: 0.03, ends: 25, days: daily, drills: []given{
		{"Up and down 1-3-4", weak(3, 4, 12, 3), tires},
	}, events: []event{{week: 25, hurts: "Inside of the forearm, since the long slurs on Tuesday."}}},
	// A beginner: three weeks of takes.
	{name: "Finn Wexley", learner: grows(simulate.Linear, 1.9, 0.15), uneven: 8.1, begins: 23, days: twice, drills: []given{
		{"Hammer-on pairs 1-2, 3-4", weak(3, 4, 40, 5), nil},
	}},
	// Gifted and bored: the target reached long ago, and nothing new since.
	{name: "Juno Brackwell", learner: grows(simulate.Linear, 6.0, 0.42), uneven: 3.5, heals: 0.1, days: twice, drills: []given{
		{"One finger per fret 1-2-3-4", weak(3, 4, 6, 2), nil},
	}},
	// Gone quiet: nothing for a month.
	{name: "Kasimir Lode", learner: grows(simulate.Linear, 4.4, 0.10), uneven: 5.5, heals: 0.02, ends: 21, days: twice, drills: []given{
		{"One finger per fret 1-3-2-4", weak(2, 4, 14, 3), nil},
	}},
	plain("Alba Threnow", 1), plain("Anke Dorvil", 2), plain("Greta Astell", 3), plain("Hugo Pennivar", 4), plain("Ines Kallow", 5),
	plain("Ira Solstrand", 6), plain("Leni Vargo", 7), plain("Marek Dunsel", 8), plain("Milo Terrick", 9), plain("Nadja Quillen", 10),
	plain("Petra Iske", 11), plain("Quin Mossby", 12), plain("Rhea Cadmor", 13), plain("Silas Wrenley", 14),
}

// plain is one of those who grow as most do, by a seed: more or less fast, with one drill
// of a few and a weak pair that slowly heals.
func plain(name string, seed uint64) student {
	random := rand.New(rand.NewPCG(seed, 25))
	kinds := []given{
		{"One finger per fret 1-2-3-4", weak(3, 4, 8, 3), nil},
		{"One finger per fret 1-3-2-4", weak(2, 4, 8, 3), nil},
		{"Pull-off pairs 2-1, 4-2", weak(4, 2, 10, 3), nil},
		{"A minor pentatonic, one slur in four", weak(1, 4, 10, 2), nil},
	}
	shapes := []simulate.Shape{simulate.Linear, simulate.Power, simulate.Plateau}
	l := grows(shapes[seed%3], 4.3+0.6*random.Float64(), 0.07+0.12*random.Float64())
	switch l.Shape {
	case simulate.Power:
		l.Gain *= 3
	case simulate.Plateau:
		l.Gain, l.Limit = 2*l.Gain, l.Comfort*(1.35+0.4*random.Float64())
	}
	s := student{name: name, learner: l, uneven: 4.4 + 1.1*random.Float64(), begins: int(seed) % 9, heals: 0.05 * random.Float64(), days: twice}
	if seed%2 == 0 {
		s.days = thrice
	}
	s.drills = []given{kinds[seed%4]}
	return s
}

// comfort is the speed that the student plays evenly in a week, notes a second.
func (s student) comfort(week float64) float64 {
	at := week - float64(s.begins)
	if s.away[1] > 0 && week >= float64(s.away[1]) {
		return s.after * s.learner.ComfortAt(at-float64(s.away[1]-s.away[0]))
	}
	return s.learner.ComfortAt(at)
}

// plays reports whether the student plays in a week.
func (s student) plays(week int) bool {
	return week >= s.begins && (s.ends == 0 || week < s.ends) && (week < s.away[0] || week >= s.away[1])
}

// slack is how much less uneven than asked for by the gate somebody plays at a speed that
// is easy, at the least: nobody gets ever more even.
const slack = 0.8

// player is how the student plays a drill at a moment, in weeks, at a speed in notes per
// second: faster than comfortable is less even.
func (s student) player(g given, week, notesPerSecond float64, seed uint64) simulate.Player {
	random := rand.New(rand.NewPCG(seed, 7))
	strain := max(slack, notesPerSecond/(s.comfort(week)*math.Exp(s.learner.DaySD*random.NormFloat64())))
	strain *= strain
	intervalMs := 1000 / notesPerSecond
	off := s.uneven / 100 * intervalMs * strain
	w := g.weak
	w.LateMs *= math.Pow(1-s.heals, week-float64(s.begins)) * min(strain, 2)
	p := simulate.Player{
		Seed: seed, ClockMs: min(100, 0.8*off), MotorMs: min(100, 0.5*off), LevelSDDB: 0.8 * strain, SlurDropDB: 2, Weak: &w, NoiseDB: -66,
	}
	if strain > 1.5 {
		p.Miss = int(seed % 3)
		p.Wrong = int(seed % 2)
	}
	if g.habit != nil {
		g.habit(&p)
	}
	return p
}
