package drill

import (
	"fmt"
	"strings"
)

// reviewCycle tells how the pass and its cells come back to the click and to
// the bar, and which notes added or left out would close them.
func (d Drill) reviewCycle(c Chart) (Remark, bool) {
	n, perBeat := len(c.Notes), c.NotesPerBeat
	beat, bar := CycleOf(n, perBeat), CycleOf(n, perBeat*c.BarBeats())
	r := Remark{Check: "cycle"}
	switch {
	case bar.Add == 0:
		return r, false
	case beat.Add == 0:
		r.Text = fmt.Sprintf("A pass of %d notes ends on a click, but not with the bar.", n)
	default:
		r.Text = fmt.Sprintf("A pass of %d notes at %d a beat starts on the click again after %s, %d notes.",
			n, perBeat, counted(beat.Passes, "pass"), beat.ClosesAfter)
		r.Mends = append(r.Mends, d.closing(n, beat.Add, "beat")...)
		r.Mends = append(r.Mends, d.closing(n, -beat.Drop, "beat")...)
	}
	if bar.Add != beat.Add {
		r.Mends = append(r.Mends, d.closing(n, bar.Add, "bar")...)
	}
	if bar.Drop != beat.Drop {
		r.Mends = append(r.Mends, d.closing(n, -bar.Drop, "bar")...)
	}
	return r, true
}

// closing is the way to close a cycle by adding notes, or leaving out where
// negative, of a pass of so many; only few are worth it, two beats at most.
func (d Drill) closing(pass, notes int, with string) []Mend {
	few := 2 * d.Rhythm.NotesPerBeat
	closed := d
	closed.Rhythm.Close += notes
	switch {
	case notes > 0 && notes <= few:
		return []Mend{{fmt.Sprintf("Add %s to close with the %s", counted(notes, "note"), with), closed}}
	case notes < 0 && -notes <= few && -notes < pass:
		return []Mend{{fmt.Sprintf("Leave out %s to close with the %s", counted(-notes, "note"), with), closed}}
	}
	return nil
}

// reviewStrokes tells which strokes skip strings, and whether the stroke flips
// from cell to cell. Where a cell has one stroke, alternating is the point.
func (d Drill) reviewStrokes(c Chart) (Remark, bool) {
	r := Remark{Check: "strokes", Notes: skippingStrokes(c.Notes)}
	var texts []string
	switch n := len(r.Notes); {
	case n == 1:
		texts = append(texts, "1 stroke skips a string or more.")
	case n > 1:
		texts = append(texts, fmt.Sprintf("%d strokes skip a string or more.", n))
	}
	if at, flips := firstFlip(c.Notes); flips {
		texts = append(texts, fmt.Sprintf("The stroke flips: cells begin on different strokes, first at note %d.", at+1))
		r.Notes = append(r.Notes, at)
		r.Mends = d.steadyStrokes()
	}
	r.Text = strings.Join(texts, " ")
	return r, len(texts) > 0
}

// skippingStrokes are the picked notes that do not lie on the string of the
// stroke before or a neighbour of it.
func skippingStrokes(notes []Note) []int {
	var at []int
	last := -1
	for i, n := range notes {
		if n.Stroke == "" {
			continue
		}
		if last >= 0 && max(n.String-notes[last].String, notes[last].String-n.String) > 1 {
			at = append(at, i)
		}
		last = i
	}
	return at
}

// firstFlip is the first note that begins a cell on another stroke than the
// first cell, where cells have several.
func firstFlip(notes []Note) (at int, flips bool) {
	several, cell := false, -1
	var first Stroke
	for i, n := range notes {
		switch {
		case n.Stroke == "":
		case n.Cell == cell:
			several = true
		default:
			cell = n.Cell
			if first == "" {
				first = n.Stroke
			}
			if n.Stroke != first && !flips {
				at, flips = i, true
			}
		}
	}
	return at, flips && several
}

// steadyStrokes are rules under which strokes fall otherwise.
func (d Drill) steadyStrokes() []Mend {
	var mends []Mend
	for _, to := range []struct {
		rule StrokeRule
		text string
	}{{AllDown, "Down strokes only"}, {KeepTime, "Let the hand keep time"}} {
		if d.Strokes.Rule != to.rule {
			other := d
			other.Strokes.Rule = to.rule
			mends = append(mends, Mend{to.text, other})
		}
	}
	return mends
}
