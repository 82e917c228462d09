package simulate

import (
	"fmt"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/follow"
)

// An Act is what a player does in the course of a take besides playing on, once, when a note
// is due for the first time.
type Act struct {
	Kind    follow.EventKind `json:"kind"`
	Before  int              `json:"before"`            // index of the chart note that is due
	To      int              `json:"to,omitempty"`      // of the one that is played instead, of [follow.Replay] and [follow.Skip]
	Seconds float64          `json:"seconds,omitempty"` // waited beyond the interval; until a note is struck again or corrected
}

// mostActs is how many there may be in a take.
const mostActs = 100

// mostSeconds is how long an act may take.
const mostSeconds = 60

func (a Act) validate() error {
	acts := []follow.EventKind{
		follow.Hesitation, follow.Stop, follow.Restart, follow.Replay, follow.Skip, follow.Double, follow.Correction, follow.Left,
	}
	switch {
	case !slices.Contains(acts, a.Kind):
		return fmt.Errorf("the player cannot do %q in the course of a take; take one of %q", a.Kind, acts)
	case a.Before < 1 || a.Before > chart.MaxNotes:
		return fmt.Errorf("the player's %s is before note %d; set it from 1 to %d", a.Kind, a.Before, chart.MaxNotes)
	case !(a.Seconds >= 0 && a.Seconds <= mostSeconds):
		return fmt.Errorf("the player's %s takes %g s; set it from 0 to %d", a.Kind, a.Seconds, mostSeconds)
	case a.Kind == follow.Replay && !(a.To >= 0 && a.To < a.Before), a.Kind == follow.Skip && a.To <= a.Before:
		return fmt.Errorf("the player's %s goes from note %d to %d; go back in a replay, and on in a skip", a.Kind, a.Before, a.To)
	}
	return nil
}

// A turn is one note's being played, of which there may be several.
type turn struct {
	index int
	late  float64 // s after it would have been due
	wrong bool    // another pitch
	again bool    // struck once more
	aside bool    // it is played once more later
}

// acts are all that the player does in the course of a take.
func (p Player) acts() []Act {
	acts := slices.Clone(p.Course)
	if p.PauseBefore > 0 {
		acts = append(acts, Act{Kind: follow.Stop, Before: p.PauseBefore, Seconds: p.PauseSeconds})
	}
	if p.StopAfter > 0 {
		acts = append(acts, Act{Kind: follow.Left, Before: p.StopAfter})
	}
	return acts
}

// turns are the notes in the order in which they are played.
func (p Player) turns(c chart.Chart, notes []chart.Note, secondsPerBeat float64) []turn {
	var out []turn
	acts := p.acts()
	done := make([]bool, len(acts))
	late := 0.0
	for i := 0; i < len(notes); i++ {
		for k, act := range acts {
			if done[k] || act.Before != i {
				continue
			}
			done[k] = true
			due := notes[i].Beat * secondsPerBeat
			switch act.Kind {
			case follow.Left:
				return out
			case follow.Double:
				late += act.Seconds
				out = append(out, turn{index: i - 1, late: late, again: true})
			case follow.Correction:
				out = append(out, turn{index: i, late: late, wrong: true})
				late += act.Seconds
			case follow.Restart, follow.Replay, follow.Skip:
				to := min(act.To, len(notes)-1)
				if act.Kind == follow.Restart {
					to = (i - 1) - (i-1)%len(c.Notes)
				}
				setAside(out, to)
				i = to
				late += act.Seconds + due - notes[i].Beat*secondsPerBeat
			default:
				late += act.Seconds
			}
		}
		out = append(out, turn{index: i, late: late})
	}
	return out
}

// setAside marks what is played once more from a note on.
func setAside(turns []turn, from int) {
	for k := range turns {
		if turns[k].index >= from {
			turns[k].aside = true
		}
	}
}
