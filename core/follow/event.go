package follow

import (
	"cmp"
	"math"
	"slices"
)

// An EventKind says what happened in the course of a take.
type EventKind string

// What players do besides playing on.
const (
	Hesitation EventKind = "hesitation" // waited, for less than a beat or a second
	Stop       EventKind = "stop"       // waited longer
	Restart    EventKind = "restart"    // began the pass again
	Replay     EventKind = "replay"     // went back to a note
	Skip       EventKind = "skip"       // went on to a later one
	Double     EventKind = "double"     // struck a note again
	Correction EventKind = "correction" // played a wrong note, then the right one
	Left       EventKind = "left"       // left the drill before its end
	Swing      EventKind = "swing"      // swung all of it
	Transposed EventKind = "transposed" // played all of it on other frets
	OffBeat    EventKind = "offBeat"    // came in a beat or more beside the click
	OtherTempo EventKind = "otherTempo" // held another tempo than the one asked for
)

// An Event is one thing that happened in the course of a take. What does not fit its kind is
// zero.
type Event struct {
	Kind      EventKind `json:"kind"`
	Before    int       `json:"before"`              // index of the chart note that was due
	To        *int      `json:"to,omitempty"`        // and of the one that was played instead
	Pass      int       `json:"pass"`                // from 0
	T         float64   `json:"t"`                   // when the player went on, s
	Seconds   float64   `json:"seconds,omitempty"`   // waited; or from the note before to the one after; or later (+) than the click
	Notes     int       `json:"notes,omitempty"`     // that are played once more, or left out
	Semitones int       `json:"semitones,omitempty"` // higher (+) or lower
	Share     float64   `json:"share,omitempty"`     // of the first of two notes in the time of both; or of the tempo asked for
}

// Tells reports whether the event tells of an extra note, by when that came, s.
func (e Event) Tells(at float64) bool {
	switch e.Kind {
	case Double:
		return math.Abs(e.T-at) < SameTime
	case Correction:
		return math.Abs(e.T-e.Seconds-at) < SameTime
	}
	return false
}

// SameTime is how far apart two times of one note may be reckoned, s.
const SameTime = 1e-6

// happened notes an event.
func (t *Take) happened(e Event) {
	e.Pass = min(e.Before, len(t.Matches)-1) / max(1, len(t.Chart.Notes))
	t.Events = append(t.Events, e)
}

// inOrder puts events and breaks in order of time.
func (t *Take) inOrder() {
	slices.SortStableFunc(t.Events, func(a, b Event) int { return cmp.Compare(a.T, b.T) })
	slices.Sort(t.Breaks)
	t.Breaks = slices.Compact(t.Breaks)
}

// BreaksAt reports whether a new line of time begins at a match.
func (t Take) BreaksAt(match int) bool { return t.breaksWithin(match-1, match) }

// breaksWithin reports whether a new line begins after one match and up to another. Breaks
// must be in order.
func (t Take) breaksWithin(after, upTo int) bool {
	i, _ := slices.BinarySearch(t.Breaks, after+1)
	return i < len(t.Breaks) && t.Breaks[i] <= upTo
}
