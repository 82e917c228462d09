package review

import (
	"fmt"
	"slices"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/words"
)

// reviewCycle tells how the pass and its cells come back to the click and to
// the bar, and which notes added or left out would close them.
func reviewCycle(d drill.Drill, c chart.Chart) (Remark, bool) {
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
			n, perBeat, words.Counted(beat.Passes, "pass"), beat.ClosesAfter)
		r.Mends = append(r.Mends, closing(d, n, beat.Add, "beat")...)
		r.Mends = append(r.Mends, closing(d, n, -beat.Drop, "beat")...)
	}
	if bar.Add != beat.Add {
		r.Mends = append(r.Mends, closing(d, n, bar.Add, "bar")...)
	}
	if bar.Drop != beat.Drop {
		r.Mends = append(r.Mends, closing(d, n, -bar.Drop, "bar")...)
	}
	return r, true
}

// closing is the way to close a cycle by adding notes, or leaving out where
// negative, of a pass of so many; only few are worth it, two beats at most.
func closing(d drill.Drill, pass, notes int, with string) []drill.Mend {
	few := 2 * d.Rhythm.NotesPerBeat
	closed := d
	closed.Rhythm.Close += notes
	switch {
	case notes > 0 && notes <= few:
		return []drill.Mend{{Text: fmt.Sprintf("Add %s to close with the %s", words.Counted(notes, "note"), with), Drill: closed}}
	case notes < 0 && -notes <= few && -notes < pass:
		return []drill.Mend{{Text: fmt.Sprintf("Leave out %s to close with the %s", words.Counted(-notes, "note"), with), Drill: closed}}
	}
	return nil
}

// reviewSkips tells which strokes skip strings; where the notes come again, the first follows
// the last.
func reviewSkips(again bool) check {
	return func(_ drill.Drill, c chart.Chart) (Remark, bool) {
		r := Remark{Check: "skips", Notes: skippingStrokes(c.Notes, again)}
		verb := "skip"
		if len(r.Notes) == 1 {
			verb = "skips"
		}
		r.Text = fmt.Sprintf("%s %s a string or more.", words.Counted(len(r.Notes), "stroke"), verb)
		return r, len(r.Notes) > 0
	}
}

// reviewStrokes tells whether the stroke flips from cell to cell. Where a cell has one
// stroke, alternating is the point.
func reviewStrokes(d drill.Drill, c chart.Chart) (Remark, bool) {
	at, flips := firstFlip(c.Notes)
	if !flips {
		return Remark{}, false
	}
	return Remark{
		Check: "strokes", Notes: []int{at}, Mends: steadyStrokes(d),
		Text: fmt.Sprintf("The stroke flips: cells begin on different strokes, first at note %d.", at+1),
	}, true
}

// reviewSeam tells where a pass that is repeated ends on the stroke that it begins on, though
// its strokes are to alternate.
func reviewSeam(d drill.Drill, c chart.Chart) (Remark, bool) {
	r := Remark{Check: "seam"}
	parts := d.Parts()
	if rule := parts[len(parts)-1].Strokes.Rule; d.Rhythm.Passes < 2 || rule != drill.Alternate && rule != drill.ByFingers {
		return r, false
	}
	first := slices.IndexFunc(c.Notes, func(n chart.Note) bool { return n.Stroke != "" })
	if first < 0 {
		return r, false
	}
	last := len(c.Notes) - 1
	for c.Notes[last].Stroke == "" {
		last--
	}
	if last == first || c.Notes[first].Stroke != c.Notes[last].Stroke {
		return r, false
	}
	r.Text = fmt.Sprintf("Where a pass begins anew, two strokes in a row are alike: notes %d and %d.", last+1, first+1)
	r.Notes = []int{first, last}
	for _, notes := range []int{1, -1} {
		other := d
		other.Rhythm.Close += notes
		text := "Add 1 note, so that they alternate"
		if notes < 0 {
			text = "Leave out 1 note, so that they alternate"
		}
		r.Mends = append(r.Mends, drill.Mend{Text: text, Drill: other})
	}
	return r, true
}

// skippingStrokes are the picked notes that do not lie on the string of the stroke before or
// a neighbour of it; where the notes come again, the first follows the last.
func skippingStrokes(notes []chart.Note, again bool) []int {
	var at []int
	last := -1
	if again {
		for i, n := range notes {
			if n.Stroke != "" {
				last = i
			}
		}
	}
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
func firstFlip(notes []chart.Note) (at int, flips bool) {
	several, cell := false, -1
	var first chart.Stroke
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
func steadyStrokes(d drill.Drill) []drill.Mend {
	var mends []drill.Mend
	for _, to := range []struct {
		rule drill.StrokeRule
		text string
	}{{drill.AllDown, "Down strokes only"}, {drill.KeepTime, "Let the hand keep time"}} {
		if d.Strokes.Rule != to.rule {
			other := d
			other.Strokes.Rule = to.rule
			mends = append(mends, drill.Mend{Text: to.text, Drill: other})
		}
	}
	return mends
}
