package tempo

import (
	"fmt"
	"slices"
)

// A Rung is one step of a ladder: a tempo and how many notes the click is divided
// into. Rungs are compared by their notes a second: 120 bpm with two notes a beat
// is as fast as 60 with four.
type Rung struct {
	BPM          float64 `json:"bpm"`
	NotesPerBeat int     `json:"notesPerBeat"`
}

// NotesPerSecond returns bpm × notes per beat / 60.
func (r Rung) NotesPerSecond() float64 { return r.BPM * float64(r.NotesPerBeat) / 60 }

// Rungs are those of a ladder, each at least as fast as the one before.
type Rungs []Rung

// Mixed reports whether the click is not divided alike on all of them, so that a
// tempo alone does not say which is meant.
func (rs Rungs) Mixed() bool {
	return slices.ContainsFunc(rs, func(r Rung) bool { return r.NotesPerBeat != rs[0].NotesPerBeat })
}

// name tells a rung in words: by its tempo alone where that suffices.
func (rs Rungs) name(r Rung) string {
	if rs.Mixed() || len(rs) > 0 && r.NotesPerBeat != rs[0].NotesPerBeat {
		return fmt.Sprintf("%g bpm with %s a beat", r.BPM, notes(r.NotesPerBeat))
	}
	return fmt.Sprintf("%g bpm", r.BPM)
}

func notes(n int) string {
	if n == 1 {
		return "1 note"
	}
	return fmt.Sprintf("%d notes", n)
}

// Place returns how many rungs lie below r, which need not be one of them: an
// instructor may have set another. A rung that is as fast as r lies below it unless
// it is r itself.
func (rs Rungs) Place(r Rung) int {
	if i := slices.Index(rs, r); i >= 0 {
		return i
	}
	n := 0
	for n < len(rs) && rs[n].NotesPerSecond() <= r.NotesPerSecond() {
		n++
	}
	return n
}

// AtMost returns the fastest rung that is not faster than r, or the slowest. There must be
// one at least.
func (rs Rungs) AtMost(r Rung) Rung {
	start := rs[0]
	for _, one := range rs {
		if one.NotesPerSecond() <= r.NotesPerSecond() {
			start = one
		}
	}
	return start
}

// above returns the next rung up from r, or r itself where there is none.
func (rs Rungs) above(r Rung) Rung {
	next := rs.Place(r)
	if slices.Contains(rs, r) {
		next++
	}
	if next >= len(rs) {
		return r
	}
	return rs[next]
}

// below returns the next rung down from r, or r itself where there is none.
func (rs Rungs) below(r Rung) Rung {
	if before := rs.Place(r) - 1; before >= 0 {
		return rs[before]
	}
	return r
}

// last reports whether r is the target or beyond it.
func (rs Rungs) last(r Rung) bool { return len(rs) > 0 && rs.above(r) == r }
