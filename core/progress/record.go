package progress

import (
	"time"

	"manudrill/core/tempo"
)

// A Record is what a student has played of a drill, day by day.
type Record struct {
	Rungs tempo.Rungs // of the ladder: the last is its target
	Days  []Day       // on which takes were played, in order
}

// A Day is what was played of a drill on it.
type Day struct {
	Date          time.Time   `json:"date"`     // its midnight, UTC, whatever the studio's clock
	Takes         int         `json:"takes"`    // all
	Counting      int         `json:"counting"` // for the ladder
	Clean         int         `json:"clean"`    // of these, every pass of which passed the gate
	Stands        tempo.Rung  `json:"stands"`   // on which the student stood at its end
	Passed        *tempo.Rung `json:"passed,omitempty"`
	SpreadPercent float64     `json:"spreadPercent"` // mean timing spread of those that count
	Seconds       float64     `json:"seconds"`
	SlurSeconds   float64     `json:"slurSeconds"` // that the fretting hand made sound by itself
}

// A Week is what a trend looks at: a record by weeks is even where days are not.
type Week struct {
	Begins   time.Time // its Monday
	Days     int
	Counting int
	Clean    int
	Passed   bool    // a rung
	Speed    float64 // on which the student stood at its end, in the record's unit
}

const week = 7 * 24 * time.Hour

// Monday returns the one on or before a date, at its midnight.
func Monday(date time.Time) time.Time {
	return date.AddDate(0, 0, -(int(date.Weekday())+6)%7)
}

// Unit is what the record's speeds are in: "bpm" where the click is divided alike on
// all rungs, else "notes a second".
func (r Record) Unit() string {
	if r.mixed() {
		return "notes a second"
	}
	return "bpm"
}

func (r Record) mixed() bool {
	if len(r.Rungs) == 0 {
		return false
	}
	for i := range r.Days {
		if r.Days[i].Stands.NotesPerBeat != r.Rungs[0].NotesPerBeat {
			return true
		}
	}
	return r.Rungs.Mixed()
}

// speed is that of a rung in the record's unit.
func (r Record) speed(rung tempo.Rung) float64 { return r.unit()(rung) }

// unit tells the speed of rungs in the record's unit.
func (r Record) unit() func(tempo.Rung) float64 {
	if r.mixed() {
		return tempo.Rung.NotesPerSecond
	}
	return func(rung tempo.Rung) float64 { return rung.BPM }
}

// Weeks are those in which a take counted, in order.
func (r Record) Weeks() []Week {
	var weeks []Week
	speed := r.unit()
	for i := range r.Days {
		d := &r.Days[i]
		if d.Counting == 0 {
			continue
		}
		begins := Monday(d.Date)
		if len(weeks) == 0 || !weeks[len(weeks)-1].Begins.Equal(begins) {
			weeks = append(weeks, Week{Begins: begins})
		}
		w := &weeks[len(weeks)-1]
		w.Days++
		w.Counting += d.Counting
		w.Clean += d.Clean
		w.Passed = w.Passed || d.Passed != nil
		w.Speed = speed(d.Stands)
	}
	return weeks
}

// until is the record as it was at the end of a date.
func (r Record) until(date time.Time) Record {
	for i := range r.Days {
		if r.Days[i].Date.After(date) {
			return Record{r.Rungs, r.Days[:i]}
		}
	}
	return r
}

// HasPassed reports whether a rung, or a faster one, was passed.
func (r Record) HasPassed(rung tempo.Rung) bool { return r.passed(rung) != nil }

// lately is over how many weeks the minutes of a record are averaged.
const lately = 4

// MinutesAWeek is how long takes were in a week of the last four up to a day, on average.
func (r Record) MinutesAWeek(today time.Time) float64 {
	seconds := 0.0
	for _, d := range r.Days {
		if today.Sub(d.Date) < lately*week {
			seconds += d.Seconds
		}
	}
	return seconds / 60 / lately
}
