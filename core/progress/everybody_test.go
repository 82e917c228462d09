package progress

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
)

// takeWith is two passes of four notes, each so late, in ms; 999 is a note that was missed.
func takeWith(late ...float64) Seen {
	s := Seen{Student: "x"}
	for i := range 4 {
		s.Chart.Notes = append(s.Chart.Notes, chart.Note{String: 3, Fret: 5 + i, Finger: 1 + i})
	}
	for i := range 8 {
		ms := late[i%4]
		n := evenness.Note{Index: i, Status: follow.Played, DeviationMs: &ms}
		if ms == 999 {
			n.Status, n.DeviationMs = follow.Missed, nil
		}
		s.Analysis.Notes = append(s.Analysis.Notes, n)
	}
	return s
}

func several4(t Seen) []Seen { return []Seen{t, t, t, t} }

func TestWhereEverybodyFails(t *testing.T) {
	for name, c := range map[string]struct {
		seen []Seen
		text string
	}{
		"late":   {append(several4(takeWith(0, 1, 2, 14)), takeWith(0, 0, 9, 1)), "Note 4 (string 3, fret 8, finger 4) comes late with 4 of 5 students, by 11 ms on average: look at the drill there, not at them."},
		"missed": {several4(takeWith(0, 999, 0, 0)), "Note 2 (string 3, fret 6, finger 2) is missed or wrong with 4 of 4 students: look at the drill there, not at them."},
		"theirs": {[]Seen{takeWith(12, 0, 0, 0), takeWith(0, 12, 0, 0), takeWith(0, 0, 12, 0), takeWith(0, 0, 0, 12)}, "No note fails with most of the 4 students: where one fails, it is theirs."},
		"few":    {[]Seen{takeWith(0, 0, 0, 20)}, "1 student played it, so that it counts: too few to say whether the drill is at fault."},
		"none":   {nil, "Nobody has played it yet, so that it counts."},
	} {
		t.Run(name, func(t *testing.T) {
			assert.Equal(t, c.text, EverybodyOf(c.seen).Text)
		})
	}
}

// Who plays other notes, as of an earlier version, is left out.
func TestOtherNotesAreLeftOut(t *testing.T) {
	other := takeWith(0, 0, 0, 40)
	for i := range other.Chart.Notes {
		other.Chart.Notes[i].Fret++
	}
	e := EverybodyOf(append(several4(takeWith(0, 0, 0, 0)), other))
	assert.Len(t, e.Students, 4)
	assert.Len(t, e.Notes, 4)
	assert.Equal(t, 5, e.Notes[0].Fret, fmt.Sprint(e.Notes))
}
