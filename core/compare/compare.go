package compare

import (
	"manudrill/core/drill"
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
	Chart  drill.Note
	Status Status
	Heard  listen.Note // zero when missed
}

// A Take is a recording laid against its chart.
type Take struct {
	Chart   drill.Chart
	Matches []Match // one for each chart note of each pass, in order
	Extras  []listen.Note
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

// foreignShare is the share of right notes below which a take is of something
// else. Guessing gets a sixth of the pitches of a four-finger drill right, and
// the alignment picks the best guess.
const foreignShare = 0.4

// Foreign reports whether the take is hardly of this chart, another drill or
// none: few of its notes were played, or few of the notes played are its own.
func (t Take) Foreign() bool {
	played := t.Count(Played)
	heard := played + t.Count(Wrong) + len(t.Extras)
	return float64(played) < foreignShare*float64(max(len(t.Matches), heard))
}

// Compare lays what was heard against the passes of a chart. A player may start
// late, drift, and stop; the tempo asked for is only where the search starts.
func Compare(chart drill.Chart, heard []listen.Note) Take {
	notes := chart.Unroll()
	secondsPerBeat := 60 / chart.BPM
	pairs := align(notes, heard, secondsPerBeat)
	// Once more at the tempo that was really held.
	if held, ok := heldTempo(notes, heard, pairs); ok {
		pairs = align(notes, heard, held)
	}
	return take(chart, notes, heard, pairs)
}

// take turns pairs of chart and heard notes into matches and extras.
func take(chart drill.Chart, notes []drill.Note, heard []listen.Note, pairs []pair) Take {
	t := Take{Chart: chart, Matches: make([]Match, len(notes))}
	for i, n := range notes {
		t.Matches[i] = Match{Index: i, Chart: n, Status: Missed}
	}
	used := make([]bool, len(heard))
	for _, p := range pairs {
		m := &t.Matches[p.chart]
		m.Heard, used[p.heard] = heard[p.heard], true
		m.Status = Wrong
		if samePitch(m.Chart.MIDI, m.Heard) {
			m.Status = Played
		}
	}
	for i, h := range heard {
		if !used[i] {
			t.Extras = append(t.Extras, h)
		}
	}
	return t
}

// samePitch compares pitch classes. A listener takes a pitch for its octave
// now and then, while a player's wrong note is hardly ever one octave away.
func samePitch(midi int, h listen.Note) bool { return (midi-h.MIDI())%12 == 0 }
