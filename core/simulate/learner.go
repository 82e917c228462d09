package simulate

import (
	"math"
	"math/rand/v2"
	"time"

	"manudrill/core/progress"
	"manudrill/core/tempo"
)

// A Shape is how a learner's speed grows.
type Shape string

// How learners grow.
const (
	Linear  Shape = "linear"  // as much each week
	Power   Shape = "power"   // by the power law of practice (Newell & Rosenbloom, in Anderson, Cognitive Skills and their Acquisition, 1981)
	Plateau Shape = "plateau" // towards a limit, less each week
)

// A Learner is somebody whose speed grows over weeks. What is left at zero is not there.
type Learner struct {
	Seed    uint64
	Shape   Shape
	Comfort float64 // notes a second played evenly at the start
	Gain    float64 // notes a second won in the first week
	Limit   float64 // of [Plateau]: notes a second that are never passed
	DaySD   float64 // by how much the speed differs from day to day, natural logarithm
}

// ComfortAt is the speed played evenly after so many weeks, notes a second.
func (l Learner) ComfortAt(weeks float64) float64 {
	switch l.Shape {
	case Power:
		rate := math.Log1p(l.Gain/l.Comfort) / math.Ln2
		return l.Comfort * math.Pow(1+weeks, rate)
	case Plateau:
		room := l.Limit - l.Comfort
		return l.Limit - room*math.Exp(-weeks*l.Gain/room)
	}
	return l.Comfort + l.Gain*weeks
}

// How a simulated learner's passes come out: at the comfortable speed the timing spread
// is this share of what the gate allows, and it grows with the square of the speed.
const (
	easySpread = 0.8
	passSD     = 0.15 // from pass to pass, natural logarithm
	passesEach = 2    // of a take
)

// Practise lets the learner climb a ladder, on days given in weeks from the start, so
// many takes a day, and returns what was played. Only figures are made, no sound.
func (l Learner) Practise(start time.Time, ladder tempo.Ladder, notesPerBeat int, days []float64, takesADay int) progress.Record {
	random := rand.New(rand.NewPCG(l.Seed, 1))
	climbing := tempo.Climbing{Ladder: ladder, NotesPerBeat: notesPerBeat}
	rungs := ladder.Rungs(notesPerBeat)
	at := rungs[0]
	record := progress.Record{Rungs: rungs}
	for _, weeks := range days {
		comfort := l.ComfortAt(weeks) * math.Exp(l.DaySD*random.NormFloat64())
		day := progress.Day{Date: start.AddDate(0, 0, int(7*weeks)), Takes: takesADay, Counting: takesADay}
		for range takesADay {
			take := tempo.Result{HeldBPM: at.BPM}
			for range passesEach {
				spread := ladder.Gate.SpreadPercent * easySpread * math.Pow(at.NotesPerSecond()/comfort, 2) * math.Exp(passSD*random.NormFloat64())
				take.Passes = append(take.Passes, tempo.PassFigures{RightPercent: 100, SpreadPercent: spread})
				day.SpreadPercent += spread / float64(passesEach*takesADay)
			}
			d := climbing.Decide(at, take)
			if d.Passed() {
				passed := at
				day.Passed = &passed
			}
			if d.Clean(take) {
				day.Clean++
			}
			climbing, at = climbing.After(d, take), d.Next
		}
		day.Stands = at
		record.Days = append(record.Days, day)
	}
	return record
}
