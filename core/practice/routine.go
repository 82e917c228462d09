// Package practice is about what is practised, in which order and for how long, and
// about what the stand does by itself while both hands are on the guitar.
package practice

import (
	"strings"
	"unicode"

	"manudrill/core/drill"
)

// A Routine is a list of items, one after the other.
type Routine struct {
	Name  string `json:"name"`
	Note  string `json:"note,omitempty"` // what the instructor says to it
	Items []Item `json:"items"`
}

// A Kind of item.
type Kind string

// The kinds of items.
const (
	Play Kind = "drill" // takes of a drill, until it is enough
	Rest Kind = "rest"  // both hands loose
	Note Kind = "note"  // something to read or to think of
)

// An Item is a part of a routine.
type Item struct {
	Kind   Kind    `json:"kind"`
	Drill  string  `json:"drill,omitempty"`  // of a drill: its id
	Enough *Enough `json:"enough,omitempty"` // of a drill: when it is

	Position int    `json:"position,omitempty"` // of a drill: where it is played; 0 for its own
	Seconds  int    `json:"seconds,omitempty"`  // of a rest or a note
	Text     string `json:"text,omitempty"`     // what the instructor says to it; of a note, the note
}

// A By says by what a drill has been practised enough.
type By string

// By what it is enough.
const (
	ByTakes   By = "takes"   // so many takes
	BySeconds By = "seconds" // the take under way when so many seconds are over is the last
	ByClean   By = "clean"   // so many of the last so many takes were clean
)

// Enough says when a drill has been practised enough.
type Enough struct {
	By    By  `json:"by"`
	Count int `json:"count"`        // takes or seconds
	Of    int `json:"of,omitempty"` // of the last so many takes, [ByClean]
}

// Bounds of a routine.
const (
	MaxName  = 120 // characters
	MaxText  = 500 // characters
	MaxItems = 64
	MaxTakes = 50 // of an item
	MaxOf    = 20 // takes that [ByClean] looks back at

	minSeconds, maxSeconds = 5, 3600

	maxPosition = 24 // which is no fretted place on most necks
)

// Check returns what is wrong with the routine, empty when nothing is.
func (r Routine) Check() drill.Faults {
	var faults drill.Faults
	if strings.TrimSpace(r.Name) == "" {
		faults.Add("name", "Give the routine a name.")
	}
	if len([]rune(r.Name)) > MaxName || strings.ContainsFunc(r.Name, unicode.IsControl) {
		faults.Add("name", "The name has at most %d characters, in one line.", MaxName)
	}
	checkText("note", r.Note, &faults)
	if len(r.Items) > MaxItems {
		faults.Add("items", "A routine has at most %d items, not %d; make two of it.", MaxItems, len(r.Items))
		return faults
	}
	drills := 0
	for i, item := range r.Items {
		item.check(i+1, &faults)
		if item.Kind == Play {
			drills++
		}
	}
	if drills == 0 {
		faults.Add("items", "There is nothing to play yet: put a drill in.")
	}
	return faults
}

func checkText(field, text string, faults *drill.Faults) {
	if len([]rune(text)) > MaxText {
		faults.Add(field, "A text has at most %d characters.", MaxText)
	}
}

func (i Item) check(number int, faults *drill.Faults) {
	checkText("items", i.Text, faults)
	switch i.Kind {
	case Play:
		if i.Drill == "" {
			faults.Add("items", "Choose the drill of item %d.", number)
		}
		if i.Position < 0 || i.Position > maxPosition {
			faults.Add("items", "Item %d is in position %d; set 1 to %d.", number, i.Position, maxPosition)
		}
		i.checkEnough(number, faults)
	case Note:
		if strings.TrimSpace(i.Text) == "" {
			faults.Add("items", "Write the note of item %d, or take it out.", number)
		}
		fallthrough
	case Rest:
		checkSeconds(number, i.Seconds, faults)
	default:
		faults.Add("items", "Item %d is a %q; choose drill, rest or note.", number, i.Kind)
	}
}

func (i Item) checkEnough(number int, faults *drill.Faults) {
	e := i.Enough
	switch {
	case e == nil:
		faults.Add("items", "Say when item %d is enough.", number)
	case e.By == BySeconds:
		checkSeconds(number, e.Count, faults)
	case e.By == ByTakes && (e.Count < 1 || e.Count > MaxTakes):
		faults.Add("items", "Item %d asks for %d takes; set 1 to %d.", number, e.Count, MaxTakes)
	case e.By == ByClean && (e.Of < 1 || e.Of > MaxOf || e.Count < 1 || e.Count > e.Of):
		faults.Add("items", "Item %d asks for %d clean of the last %d; look back at 1 to %d, and ask for no more of them.", number, e.Count, e.Of, MaxOf)
	case e.By != ByTakes && e.By != ByClean:
		faults.Add("items", "Item %d is enough by %q; choose takes, seconds or clean.", number, e.By)
	}
}

func checkSeconds(number, seconds int, faults *drill.Faults) {
	if seconds < minSeconds || seconds > maxSeconds {
		faults.Add("items", "Item %d lasts %d seconds; set %d to %d.", number, seconds, minSeconds, maxSeconds)
	}
}

// Drills returns the ids of the drills that are played, each once, in order.
func (r Routine) Drills() []string {
	var ids []string
	seen := map[string]bool{}
	for _, i := range r.Items {
		if i.Kind == Play && !seen[i.Drill] {
			ids = append(ids, i.Drill)
			seen[i.Drill] = true
		}
	}
	return ids
}

// Seconds is about how long the routine lasts, where a take of a drill lasts so many
// seconds, count-in included, and the student pauses so long after each. What is
// enough by clean takes lasts as long as the takes that are looked back at.
func (r Routine) Seconds(take func(drill string) float64, pause float64) float64 {
	sum := 0.0
	for _, i := range r.Items {
		sum += i.seconds(take, pause)
	}
	return sum
}

func (i Item) seconds(take func(drill string) float64, pause float64) float64 {
	switch {
	case i.Kind != Play:
		return float64(i.Seconds)
	case i.Enough.By == BySeconds:
		return float64(i.Enough.Count)
	case i.Enough.By == ByClean:
		return float64(i.Enough.Of) * (take(i.Drill) + pause)
	}
	return float64(i.Enough.Count) * (take(i.Drill) + pause)
}
