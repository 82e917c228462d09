package evenness

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"manudrill/core/follow"
)

// What a [Correction] may be about.
const (
	OfNote    = "note"    // that it was missed or wrong
	OfExtra   = "extra"   // that there was one
	OfEvent   = "event"   // that it happened
	OfFinding = "finding" // that it stands out, with the drill for it
)

// A Correction says that something told of a take was not so. It takes the place of what was
// told, which stays to be seen.
type Correction struct {
	Of    string  `json:"of"`
	Kind  string  `json:"kind"`            // what was told: a status, "extra", the kind of an event, what a finding is about
	Index int     `json:"index,omitempty"` // of a note over all passes; of an event, the note that was due
	T     float64 `json:"t,omitempty"`     // of an extra note, s
}

// ErrNotTold says that a correction is of something that a take does not tell of.
var ErrNotTold = errors.New("the take does not tell of this")

// Check says why the correction says nothing of a take, or nil.
func (c Correction) Check(a Analysis) error {
	told := false
	switch c.Of {
	case OfNote:
		told = c.Index >= 0 && c.Index < len(a.Notes) && a.Notes[c.Index].Status != follow.Played && string(a.Notes[c.Index].Status) == c.Kind
	case OfExtra:
		told = c.Kind == OfExtra && slices.ContainsFunc(a.Extras, c.isExtra)
	case OfEvent:
		told = c.Kind != string(follow.OtherTempo) && slices.ContainsFunc(a.Course.Events, c.isEvent)
	case OfFinding:
		told = c.Kind != "" && len(c.Kind) < 40 && !slices.Contains(byItsParts, c.Kind)
	}
	if !told {
		return fmt.Errorf("%w: %s %q; load the take again", ErrNotTold, c.Of, c.Kind)
	}
	return nil
}

// byItsParts are findings that are said not to be so by the notes and events that they sum up,
// or that tell of no fault.
var byItsParts = []string{"mistakes", "course", "foreign", "even", "everywhere", "passes"}

func (c Correction) isExtra(e Extra) bool { return math.Abs(e.T-c.T) < follow.SameTime }

func (c Correction) isEvent(e follow.Event) bool {
	return string(e.Kind) == c.Kind && e.Before == c.Index
}

// Corrected is the analysis with some corrections: what was told is not, and its passes are
// counted anew. A note that was played and not heard is taken to have come when it was due.
// What is measured of the others stays.
func (a Analysis) Corrected(corrections []Correction) Analysis {
	if len(corrections) == 0 {
		return a
	}
	a.Notes, a.Extras, a.Course.Events = slices.Clone(a.Notes), slices.Clone(a.Extras), slices.Clone(a.Course.Events)
	for _, c := range corrections {
		switch c.Of {
		case OfNote:
			if c.Index < len(a.Notes) {
				a.Notes[c.Index] = a.cameRight(a.Notes[c.Index])
			}
		case OfExtra:
			a.Extras = slices.DeleteFunc(a.Extras, c.isExtra)
		case OfEvent:
			a.Course.Events = slices.DeleteFunc(a.Course.Events, c.isEvent)
		case OfFinding:
			a.Denied = append(slices.Clip(a.Denied), c.Kind)
		}
	}
	if !slices.ContainsFunc(a.Course.Events, func(e follow.Event) bool { return e.Kind == follow.Left }) {
		a.Course.StoppedAfter = nil
	}
	a.count()
	return a
}

// cameRight is a note that was played right after all.
func (a Analysis) cameRight(n Note) Note {
	n.Status = follow.Played
	if n.T == nil {
		level := a.Level.MeanDB
		n.T, n.DeviationMs, n.LevelDB, n.RelativeLevel = &n.ExpectedT, new(float64), &level, new(float64)
	}
	return n
}

// count counts notes and passes by what they are now.
func (a *Analysis) count() {
	a.Counts = Counts{Expected: len(a.Notes), Extra: len(a.Extras)}
	if len(a.Passes) == 0 {
		return
	}
	size := len(a.Notes) / len(a.Passes)
	right, extras := make([]int, len(a.Passes)), make([]int, len(a.Passes))
	for i, n := range a.Notes {
		switch n.Status {
		case follow.Played:
			a.Counts.Played++
			right[min(i/size, len(right)-1)]++
		case follow.Missed:
			a.Counts.Missed++
		case follow.Wrong:
			a.Counts.Wrong++
		}
	}
	for _, e := range a.Extras {
		extras[a.passAt(e.T, size)]++
	}
	passes := slices.Clone(a.Passes)
	interrupted := interruptedOf(a.Course.Events, size, 1000/a.Tempo.NotesPerSecond, len(passes))
	for p := range passes {
		passes[p].RightPercent = 100 * float64(right[p]) / float64(size+extras[p])
		passes[p].Interrupted = interrupted[p]
	}
	a.Passes = passes
}

// passAt is the pass that had begun at a time, s.
func (a *Analysis) passAt(t float64, size int) int {
	pass := 0
	for p := 1; p < len(a.Passes) && a.Notes[p*size].ExpectedT <= t; p++ {
		pass = p
	}
	return pass
}
