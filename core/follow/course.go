package follow

import (
	"math"
	"slices"
)

// A reading is what is made of a course: which heard note is judged for each chart note,
// and what became of the others.
type reading struct {
	*Take
	d      *decoder
	kept   []laid // in order of chart and time
	aside  []bool // of the heard notes: played before the player went back
	struck bool   // the last note kept was struck again since
}

// read turns a course into matches, extras, what is set aside and events.
func (t *Take) read(d *decoder, course []laid) {
	r := &reading{Take: t, d: d, aside: make([]bool, len(d.heard))}
	r.Matches = make([]Match, len(d.notes))
	for k, p := range course {
		switch p.move {
		case back:
			r.goBack(course[k-1], p)
		case again:
			r.strikeAgain(p)
			continue
		default:
			if k > 0 {
				r.goOn(course[k-1], p)
			}
		}
		r.kept, r.struck = append(r.kept, p), false
	}
	r.Passes = d.passes(r.kept)
	r.fill()
}

// goBack sets aside what was played from the note on to which the player goes back.
func (r *reading) goBack(from, to laid) {
	first := slices.IndexFunc(r.kept, func(p laid) bool { return p.chart >= to.chart })
	if first < 0 {
		first = len(r.kept)
	}
	since := to.heard
	if first < len(r.kept) {
		since = r.kept[first].heard
	}
	for h := since; h < to.heard; h++ {
		r.aside[h] = true
	}
	kind := Replay
	if to.chart%r.d.size == 0 {
		kind = Restart
	}
	r.jump(kind, from, to, len(r.kept)-first)
	r.kept = r.kept[:first]
}

// strikeAgain keeps the first of two strikes, and of a wrong note and the right one the
// right one. What follows goes on from the second.
func (r *reading) strikeAgain(p laid) {
	last := &r.kept[len(r.kept)-1]
	t := r.d.heard[p.heard].Onset
	if !r.d.right(last.chart, last.heard) {
		r.happened(Event{Kind: Correction, Before: p.chart, T: t, Seconds: t - r.d.heard[last.heard].Onset})
		r.Breaks = append(r.Breaks, p.chart)
		last.heard = p.heard
		return
	}
	r.happened(Event{Kind: Double, Before: p.chart + 1, T: t, Seconds: t - r.d.heard[last.heard].Onset})
	r.struck = true
}

// keptTime is how far, as a share of a step, the interval over notes that were left out may
// be off for the player to have waited for them: then they are missed, and not skipped.
const keptTime = 0.5

// goOn tells notes that were skipped.
func (r *reading) goOn(from, to laid) {
	if r.struck {
		r.Breaks = append(r.Breaks, to.chart)
	}
	over := to.chart - from.chart
	if over < 2 {
		return
	}
	asked := (r.d.notes[to.chart].Beat - r.d.notes[from.chart].Beat) * r.d.spb
	off := (r.d.heard[to.heard].Onset - r.d.heard[from.heard].Onset - asked) / (asked / float64(over))
	if off < -keptTime || to.move == ahead && math.Abs(off) > keptTime {
		r.jump(Skip, from, to, over-1)
	}
}

func (r *reading) jump(kind EventKind, from, to laid, notes int) {
	t := r.d.heard[to.heard].Onset
	r.happened(Event{
		Kind: kind, Before: from.chart + 1, To: &to.chart, T: t,
		Seconds: t - r.d.heard[from.heard].Onset, Notes: notes,
	})
	if to.chart > 0 {
		r.Breaks = append(r.Breaks, to.chart)
	}
}

// passes is how many passes were played or asked for: those beyond what was asked for count
// where half of their notes are right.
func (d *decoder) passes(course []laid) int {
	right := make([]int, len(d.notes)/d.size)
	for _, p := range course {
		if d.right(p.chart, p.heard) {
			right[p.chart/d.size]++
		}
	}
	n := d.asked / d.size
	for n < len(right) && 2*right[n] >= d.size {
		n++
	}
	return n
}

// fill fills in matches and extras.
func (r *reading) fill() {
	r.Matches = r.Matches[:r.Passes*r.d.size]
	for i := range r.Matches {
		r.Matches[i] = Match{Index: i, Chart: r.d.notes[i], Status: Missed}
	}
	end := len(r.Matches)
	r.Breaks = slices.DeleteFunc(r.Breaks, func(i int) bool { return i >= end })
	r.Events = slices.DeleteFunc(r.Events, func(e Event) bool { return e.Before > end || e.To != nil && *e.To >= end })
	used := slices.Clone(r.aside)
	for _, p := range r.kept {
		if p.chart < end {
			used[p.heard] = true
			r.Matches[p.chart] = r.match(p)
		}
	}
	for i, h := range r.d.heard {
		switch {
		case r.aside[i]:
			r.Aside = append(r.Aside, h)
		case !used[i]:
			r.Extras = append(r.Extras, h)
		}
	}
}

func (r *reading) match(p laid) Match {
	m := Match{Index: p.chart, Chart: r.d.notes[p.chart], Status: Wrong, Heard: r.d.heard[p.heard]}
	if !r.d.right(p.chart, p.heard) {
		return m
	}
	m.Status = Played
	asked := m.Chart.MIDI + r.Transposed
	if m.Heard.Or != 0 && !samePitch(asked, r.MIDI(m.Heard)) {
		m.Heard = m.Heard.AtOther()
	}
	if !samePitch(asked, r.MIDI(m.Heard)) { // hidden by strings that ring
		m.Heard.Pitch, m.Heard.Bend = float64(asked)+r.TuningCents/100, 0
	}
	return m
}

// repeats tells extra notes that strike the one before again, and after which the player
// went on in time.
func (t *Take) repeats() {
	told, heard, last := t.Events, t.Timeline(), t.Last()
	before := -1 // the note after which the last extra note came
	for _, e := range t.Extras {
		i, _ := heard.Around(e.Onset)
		for len(told) > 0 && told[0].T < e.Onset {
			told = told[1:]
		}
		known := len(told) > 0 && told[0].Tells(e.Onset)
		if first := i != before; first && i >= 0 && i != last && !known && samePitch(t.MIDI(t.Matches[i].Heard), t.MIDI(e)) {
			t.happened(Event{Kind: Double, Before: i + 1, T: e.Onset, Seconds: e.Onset - t.Matches[i].Heard.Onset})
		}
		before = i
	}
}

// unfinished is how many notes must be missing at the end for the drill to have
// been left.
const unfinished = 3

// left tells where the drill was left before its end.
func (t *Take) left() {
	last := t.Last()
	if missing := len(t.Matches) - 1 - last; last >= 0 && missing >= unfinished {
		t.happened(Event{Kind: Left, Before: last + 1, T: t.Matches[last].Heard.Onset, Notes: missing})
	}
}
