package compare

import (
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// A Status says what became of a chart note.
type Status string

// What can become of a chart note.
const (
	Played Status = "played" // at its pitch
	Missed Status = "missed" // no sound for it
	Wrong  Status = "wrong"  // another pitch in its place
)

// A Match is one chart note and what was heard for it.
type Match struct {
	Index  int // in the chart written out over all passes
	Chart  chart.Note
	Status Status
	Heard  listen.Note // zero when missed
}

// A Take is a recording laid against its chart.
type Take struct {
	Chart       chart.Chart
	Passes      int     // as many as asked for, more where more were played
	Matches     []Match // one for each chart note of each pass, in order
	Extras      []listen.Note
	FalseStart  []listen.Note // the drill begun, broken off and begun again, before the first match
	TuningCents float64       // by how much the strings are sharp (+) or flat
	Ticks       []float64     // sounds besides that are no notes, a metronome's clicks perhaps, s
}

// Count returns how many chart notes have the status s.
func (t Take) Count(s Status) int {
	n := 0
	for _, m := range t.Matches {
		if m.Status == s {
			n++
		}
	}
	return n
}

// MIDI returns the nearest fret's MIDI note for a heard one, whatever the
// strings are tuned to.
func (t Take) MIDI(n listen.Note) int { return nearest(n, t.TuningCents/100) }

func nearest(n listen.Note, off float64) int { return int(math.Round(n.Pitch - off)) }

// pitchCost is what it costs to take a heard note for the one that was asked for: 0
// at its pitch. Where two strings sound, the chart tells which of two pitches it
// must be.
func pitchCost(midi int, n listen.Note, off float64, lowest int) float64 {
	if n.Unpitched {
		return 0
	}
	cost := costOf(midi, nearest(n, off))
	if n.Or != 0 {
		cost = min(cost, costOf(midi, int(math.Round(n.Or-off))))
	}
	if hidden(n, lowest) {
		cost = min(cost, costHidden)
	}
	return cost
}

// lowestOf is the pitch of the lowest string.
func lowestOf(c chart.Chart) int {
	if len(c.Tuning) == 0 {
		return 0
	}
	return slices.Min(c.Tuning)
}

// hidden reports whether a note has a pitch below that of the lowest string, which none
// can have: it is what several strings make together, and which of them was struck is not
// known.
func hidden(n listen.Note, lowest int) bool { return n.Pitch < float64(lowest)-1 }

func costOf(asked, heard int) float64 {
	switch {
	case asked == heard:
		return 0
	case samePitch(asked, heard):
		return costOctave
	}
	return costWrong
}

// Chance bounds what guessing gets right. It gets a sixth of the pitches of a
// four-finger drill, and the alignment picks the best guess: two drills on the same
// frets have up to a half in common. A handful of notes proves nothing.
const (
	foreignShare = 0.5
	foreignNotes = 6
)

// Foreign reports whether the take is hardly of this chart, another drill or
// none: few of the notes played are its own, or few of its own up to the last are
// played. A player who stops early has still played it.
func (t Take) Foreign() bool {
	played := t.Count(Played)
	heard := played + t.Count(Wrong) + len(t.Extras)
	enough := min(foreignNotes, int(math.Ceil(foreignShare*float64(len(t.Matches)))))
	return len(t.Matches) == 0 || played < enough || float64(played) < foreignShare*float64(max(heard, t.Last()+1))
}

// Last returns the index of the last chart note that was played at all, −1 for
// none.
func (t Take) Last() int {
	for i := len(t.Matches) - 1; i >= 0; i-- {
		if t.Matches[i].Status != Missed {
			return i
		}
	}
	return -1
}

// mostRelaid is how often a take is laid on its chart again without what is too faint: what
// was right by chance then may no longer be.
const mostRelaid = 3

// Compare lays what was heard against the passes of a chart. A player may start
// late, stop and go on, begin again, play more passes than asked for, and have
// strings up to a quarter tone out; the tempo asked for is only where the search
// starts. Ticks are the times of sounds besides that are no notes.
//
// The chart must be valid; of one without notes nothing is played. Of a take that is
// [Take.Foreign] nothing is laid on the chart, and nothing listed besides.
func Compare(c chart.Chart, heard []listen.Note, ticks ...float64) Take {
	asked := max(1, c.Passes)
	if len(c.Notes) == 0 {
		return Take{Chart: c, Passes: asked}
	}
	best, pairs, off := laid(c, asked, heard)
	for range mostRelaid {
		loud := withoutFaint(best, pairs)
		if len(loud) == len(heard) {
			break
		}
		heard = loud
		best, pairs, off = laid(c, asked, heard)
	}
	t := Take{Chart: c, Passes: asked, TuningCents: 100 * off, Ticks: slices.Clip(ticks)}
	t.fill(best, pairs)
	t.fillAgain(best.spb)
	t.findCountIn()
	t.findFalseStart()
	t.findClicks()
	if t.Foreign() {
		t.setAside()
	}
	return t
}

// setAside takes back all that was laid on the chart: the sound of something else
// fits some of its notes by chance.
func (t *Take) setAside() {
	t.Passes = max(1, t.Chart.Passes)
	t.Matches = t.Matches[:t.Passes*len(t.Chart.Notes)]
	for i, m := range t.Matches {
		t.Matches[i] = Match{Index: m.Index, Chart: m.Chart, Status: Missed}
	}
	t.Extras, t.FalseStart, t.TuningCents = nil, nil, 0
}

// laid lays what was heard against a chart, at the tuning at which most of it fits.
func laid(written chart.Chart, asked int, heard []listen.Note) (best *aligner, pairs []pair, off float64) {
	notes, lowest := unrolled(written, max(asked, passesIn(written, heard))), lowestOf(written)
	for _, maybe := range detuned(heard) {
		a := &aligner{
			notes: notes, heard: heard, spb: 60 / written.BPM, asked: asked * len(written.Notes),
			pitch: func(c, h int) float64 { return pitchCost(notes[c].MIDI, heard[h], maybe, lowest) },
		}
		if p := a.align(); best == nil || a.lowest < best.lowest {
			best, pairs, off = a, p, maybe
		}
	}
	// Once more at the tempo that was really held, where it was another.
	if held, ok := best.heldTempo(pairs); ok && held > 0 && math.Abs(held/best.spb-1) > 0.01 {
		best.spb = held
		pairs = best.align()
	}
	return best, pairs, off
}

// passesIn is how many passes the heard notes are enough for.
func passesIn(c chart.Chart, heard []listen.Note) int {
	return (len(heard) + len(c.Notes)/2) / len(c.Notes)
}

// unrolled is the chart written out over so many passes.
func unrolled(c chart.Chart, passes int) []chart.Note {
	c.Passes = passes
	return c.Unroll()
}

// fill turns pairs of chart and heard notes into matches and extras. Passes
// beyond those asked for count where half of their notes are right.
func (t *Take) fill(a *aligner, pairs []pair) {
	size := len(t.Chart.Notes)
	right := make([]int, len(a.notes)/size)
	for _, p := range pairs {
		if a.right(p.chart, p.heard) {
			right[p.chart/size]++
		}
	}
	for t.Passes < len(right) && 2*right[t.Passes] >= size {
		t.Passes++
	}
	t.Matches = make([]Match, t.Passes*size)
	for i := range t.Matches {
		t.Matches[i] = Match{Index: i, Chart: a.notes[i], Status: Missed}
	}
	used := make([]bool, len(a.heard))
	for _, p := range pairs {
		if p.chart >= len(t.Matches) {
			continue
		}
		m := &t.Matches[p.chart]
		m.Heard, used[p.heard] = a.heard[p.heard], true
		m.Status = Wrong
		if a.right(p.chart, p.heard) {
			m.Status = Played
			if m.Heard.Or != 0 && !samePitch(m.Chart.MIDI, t.MIDI(m.Heard)) {
				m.Heard = m.Heard.AtOther()
			}
			if !samePitch(m.Chart.MIDI, t.MIDI(m.Heard)) { // hidden by strings that ring
				m.Heard.Pitch, m.Heard.Bend = float64(m.Chart.MIDI)+t.TuningCents/100, 0
			}
		}
	}
	for i, h := range a.heard {
		if !used[i] {
			t.Extras = append(t.Extras, h)
		}
	}
}

// samePitch compares pitch classes. A listener takes a pitch for its octave now
// and then, while a player's wrong note is hardly ever one octave away.
func samePitch(a, b int) bool { return (a-b)%12 == 0 }

// falseStart is how many notes at the least make a beginning that was broken
// off, and the share of them that must be the drill's.
const (
	falseStart      = 3
	falseStartShare = 0.8
)

// findFalseStart takes extra notes before the first match out of the extras
// where they are the drill's own first notes.
func (t *Take) findFalseStart() {
	n := 0
	for n < len(t.Extras) && len(t.Matches) > 0 && t.Extras[n].Onset < t.Start() {
		n++
	}
	right := 0
	for i, e := range t.Extras[:n] {
		if i < len(t.Matches) && samePitch(t.Matches[i].Chart.MIDI, t.MIDI(e)) {
			right++
		}
	}
	if n >= falseStart && float64(right) >= falseStartShare*float64(n) {
		t.FalseStart, t.Extras = t.Extras[:n:n], t.Extras[n:]
	}
}

// Start is when the first matched note begins, in seconds; −∞ where there is none.
func (t *Take) Start() float64 {
	for _, m := range t.Matches {
		if m.Status != Missed {
			return m.Heard.Onset
		}
	}
	return math.Inf(-1)
}
