package simulate

import (
	"fmt"

	"manudrill/core/drill/chart"
)

// A Player is how somebody plays: steady or not, with which faults, and where it
// is recorded. What is left at zero is not there.
//
// Each onset is off by a clock part, which carries over to the next notes until
// the click corrects it, and by a motor part of its own (the two sources of
// Wing & Kristofferson, Percept. Psychophys. 14, 1973).
type Player struct {
	Seed uint64 `json:"seed"`

	// In time.
	BPM            float64 `json:"bpm,omitempty"`            // tempo really played; the chart's where 0
	ClockMs        float64 `json:"clockMs"`                  // standard deviation of the clock
	MotorMs        float64 `json:"motorMs"`                  // standard deviation of the hand
	Free           bool    `json:"free,omitempty"`           // without a click: nothing corrects the clock
	DriftPercent   float64 `json:"driftPercent,omitempty"`   // tempo at the end against the start
	FatiguePercent float64 `json:"fatiguePercent,omitempty"` // by how much the hand is less sure at the end

	// In level and connection.
	LevelSDDB  float64 `json:"levelSdDb"`            // standard deviation of the level
	SlurDropDB float64 `json:"slurDropDb"`           // by how much slurred notes are softer
	SlurRiseMs float64 `json:"slurRiseMs,omitempty"` // how slowly they swell; 2 where 0
	Weak       *Weak   `json:"weak,omitempty"`
	GapPercent float64 `json:"gapPercent,omitempty"` // share of each interval that is silent
	RingMs     float64 `json:"ringMs,omitempty"`     // how long a string left behind rings on; 30 where 0
	BendCents  float64 `json:"bendCents,omitempty"`  // how far strings are dragged before pull-offs

	// Mistakes.
	Miss         int     `json:"miss"`                   // notes left out
	Wrong        int     `json:"wrong"`                  // notes a fret off
	Extra        int     `json:"extra"`                  // open strings touched in between
	Repeat       int     `json:"repeat,omitempty"`       // notes struck twice
	FalseStart   int     `json:"falseStart,omitempty"`   // notes of a beginning that is broken off
	PauseBefore  int     `json:"pauseBefore,omitempty"`  // index of the note before which the player waits
	PauseSeconds float64 `json:"pauseSeconds,omitempty"` // how long
	StopAfter    int     `json:"stopAfter,omitempty"`    // notes after which the player gives up
	// The course of the take.
	Course    []Act   `json:"course,omitempty"`    // what the player does besides playing on
	Transpose int     `json:"transpose,omitempty"` // semitones by which all is played higher (+) or lower
	Swing     float64 `json:"swing,omitempty"`     // share of the first of two notes in the time of both; straight where 0

	// Around the guitar.
	TuningCents float64 `json:"tuningCents,omitempty"` // all strings sharp or flat
	Squeaks     int     `json:"squeaks,omitempty"`     // fingers that squeak along the string
	NoiseDB     float64 `json:"noiseDb"`               // level of the room's noise
	RoomDB      float64 `json:"roomDb,omitempty"`      // level of its echo against the guitar
	ClickDB     float64 `json:"clickDb,omitempty"`     // peak of the metronome in the recording
}

// Weak is a finger pair that comes late and soft.
type Weak struct {
	From   int     `json:"from"`
	To     int     `json:"to"`
	LateMs float64 `json:"lateMs"`
	DropDB float64 `json:"dropDb"`
}

// Validate says what the player cannot be, or nil.
func (p Player) Validate() error {
	for _, v := range []struct {
		name        string
		value, most float64
	}{
		{"clockMs", p.ClockMs, 100}, {"motorMs", p.MotorMs, 100}, {"levelSdDb", p.LevelSDDB, 100},
		{"fatiguePercent", p.FatiguePercent, 1000}, {"slurRiseMs", p.SlurRiseMs, 50}, {"gapPercent", p.GapPercent, 90},
		{"ringMs", p.RingMs, 2000}, {"bendCents", p.BendCents, 100}, {"pauseSeconds", p.PauseSeconds, 60}, {"bpm", p.BPM, 1000},
	} {
		if !(v.value >= 0 && v.value <= v.most) {
			return fmt.Errorf("the player's %s is %g; set it from 0 to %g", v.name, v.value, v.most)
		}
	}
	for _, v := range []struct {
		name  string
		count int
	}{
		{"miss", p.Miss}, {"wrong", p.Wrong}, {"extra", p.Extra}, {"repeat", p.Repeat}, {"falseStart", p.FalseStart},
		{"pauseBefore", p.PauseBefore}, {"stopAfter", p.StopAfter}, {"squeaks", p.Squeaks},
	} {
		if v.count < 0 || v.count > chart.MaxNotes {
			return fmt.Errorf("the player's %s is %d; set it from 0 to %d", v.name, v.count, chart.MaxNotes)
		}
	}
	for _, v := range []struct {
		name         string
		value, bound float64
	}{{"driftPercent", p.DriftPercent, 50}, {"tuningCents", p.TuningCents, 50}} {
		if !(v.value >= -v.bound && v.value <= v.bound) {
			return fmt.Errorf("the player's %s is %g; set it from %g to %g", v.name, v.value, -v.bound, v.bound)
		}
	}
	if !(p.Swing >= 0 && p.Swing <= 0.8) {
		return fmt.Errorf("the player swings by %g; set it from 0 to 0.8, where 0.5 is straight", p.Swing)
	}
	if p.Transpose < -24 || p.Transpose > 24 {
		return fmt.Errorf("the player plays %d semitones off; set it from -24 to 24", p.Transpose)
	}
	if len(p.Course) > mostActs {
		return fmt.Errorf("the player does %d things in the course of a take; %d is the most", len(p.Course), mostActs)
	}
	for _, a := range p.Course {
		if err := a.validate(); err != nil {
			return err
		}
	}
	return nil
}
