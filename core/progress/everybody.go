package progress

import (
	"cmp"
	"fmt"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
)

// A Seen take is the latest that counts of somebody who plays a drill.
type Seen struct {
	Student  string
	Chart    chart.Chart
	Analysis evenness.Analysis
}

// Everybody is a drill over all who play it.
type Everybody struct {
	Students []string        `json:"students"` // whose takes are looked at
	Notes    []EverybodyNote `json:"notes"`    // of one pass
	Text     string          `json:"text"`     // where everybody fails, or that nobody does
	HeardMs  float64         `json:"heardMs"`  // how late is heard
}

// An EverybodyNote is a note of a drill over all who play it.
type EverybodyNote struct {
	Index    int          `json:"index"`
	String   int          `json:"string"`
	Fret     int          `json:"fret"`
	Finger   int          `json:"finger"`
	Attack   chart.Attack `json:"attack"`
	LateMs   float64      `json:"lateMs"`   // mean over the students of how late it came
	Late     int          `json:"late"`     // students with whom it comes late so that it is heard
	NotRight int          `json:"notRight"` // students who missed it, or played another, in a pass at the least
}

// What says that the drill is at fault rather than those who play it: enough of them, and
// most of them at the same note.
const (
	fewestStudents = 4
	mostOf         = 0.75
)

// EverybodyOf looks over the takes of all who play a drill. Takes of other notes than most
// have, as of an earlier version or on another guitar, are left out.
func EverybodyOf(seen []Seen) Everybody {
	seen = sameNotes(seen)
	e := Everybody{Students: []string{}, Notes: []EverybodyNote{}, HeardMs: lateHeard}
	if len(seen) == 0 {
		e.Text = "Nobody has played it yet, so that it counts."
		return e
	}
	for i, n := range seen[0].Chart.Notes {
		e.Notes = append(e.Notes, EverybodyNote{Index: i, String: n.String, Fret: n.Fret, Finger: n.Finger, Attack: n.Attack})
	}
	for _, s := range seen {
		e.Students = append(e.Students, s.Student)
		e.add(s)
	}
	for i := range e.Notes {
		e.Notes[i].LateMs /= float64(len(seen))
	}
	e.Text = e.say()
	return e
}

// sameNotes are those takes that have the notes that most of them have.
func sameNotes(seen []Seen) []Seen {
	of := map[string][]Seen{}
	var most string
	for _, s := range seen {
		key := ""
		for _, n := range s.Chart.Notes {
			key += fmt.Sprintf("%d/%d ", n.String, n.Fret)
		}
		of[key] = append(of[key], s)
		if len(of[key]) > len(of[most]) {
			most = key
		}
	}
	return of[most]
}

// add adds a take up: each note is as late as over its passes on average.
func (e *Everybody) add(s Seen) {
	n := len(e.Notes)
	late, times, not := make([]float64, n), make([]int, n), make([]bool, n)
	for _, note := range s.Analysis.Notes {
		i := note.Index % n
		if note.Status != follow.Played {
			not[i] = true
		} else if note.DeviationMs != nil {
			late[i] += *note.DeviationMs
			times[i]++
		}
	}
	for i := range e.Notes {
		mean := late[i] / float64(max(1, times[i]))
		e.Notes[i].LateMs += mean
		if mean > lateHeard {
			e.Notes[i].Late++
		}
		if not[i] {
			e.Notes[i].NotRight++
		}
	}
}

// say tells at which note most fail.
func (e Everybody) say() string {
	students := len(e.Students)
	if students < fewestStudents {
		return fmt.Sprintf("%s played it, so that it counts: too few to say whether the drill is at fault.", several(students, "student"))
	}
	worst := slices.MaxFunc(e.Notes, func(a, b EverybodyNote) int {
		return cmp.Or(cmp.Compare(max(a.Late, a.NotRight), max(b.Late, b.NotRight)), cmp.Compare(a.LateMs, b.LateMs), cmp.Compare(b.Index, a.Index))
	})
	where := fmt.Sprintf("Note %d (string %d, fret %d, finger %d)", worst.Index+1, worst.String, worst.Fret, worst.Finger)
	switch need := mostOf * float64(students); {
	case float64(worst.NotRight) >= need:
		return fmt.Sprintf("%s is missed or wrong with %d of %d students: look at the drill there, not at them.", where, worst.NotRight, students)
	case float64(worst.Late) >= need:
		return fmt.Sprintf("%s comes late with %d of %d students, by %.0f ms on average: look at the drill there, not at them.", where, worst.Late, students, worst.LateMs)
	}
	return fmt.Sprintf("No note fails with most of the %d students: where one fails, it is theirs.", students)
}
