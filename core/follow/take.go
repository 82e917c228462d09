package follow

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

// A Take is a recording laid against its chart: what of it is judged, and what happened in
// between.
type Take struct {
	Chart       chart.Chart
	Passes      int     // as many as asked for, more where more were played
	Matches     []Match // one for each chart note of each pass, in order
	Extras      []listen.Note
	Aside       []listen.Note // played before the player began again or went back: not judged
	Events      []Event       // in order of time
	Breaks      []int         // indices of matches at which a new line of time begins
	TuningCents float64       // by how much the strings are sharp (+) or flat
	Transposed  int           // semitones by which all of it was played higher (+) or lower
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

// Chance bounds what guessing gets right. It gets a sixth of the pitches of a
// four-finger drill, and the alignment picks the best guess: two drills on the same
// frets have up to a half in common. A handful of notes proves nothing.
const (
	foreignShare = 0.5
	foreignNotes = 6
)

// Foreign reports whether the take is hardly of this chart, another drill or
// none: few of the notes played, but for those set aside, are its own, or few of its own up to the last are
// played. A player who stops early has still played it.
func (t Take) Foreign() bool {
	played := t.Count(Played)
	heard := played + t.Count(Wrong) + len(t.Extras)
	enough := min(foreignNotes, int(math.Ceil(foreignShare*float64(len(t.Matches)))))
	return len(t.Matches) == 0 || played < enough || float64(played) < foreignShare*float64(max(heard, t.Last()+1))
}

// Where one in leapsOf of the notes is found only by going back, skipping or correcting,
// something else was played that has some notes in common. That often, up to fewLeaps times,
// anybody may.
const (
	leapsOf  = 4
	fewLeaps = 4
)

// leaps reports whether the notes are only found by leaping about the chart. To begin again is
// no leap, however often.
func (t Take) leaps() bool {
	n := 0
	for _, e := range t.Events {
		switch e.Kind {
		case Replay, Skip, Correction:
			n++
		}
	}
	return n > fewLeaps && leapsOf*n > t.Count(Played)+len(t.Aside)
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

// Follow lays what was heard against the passes of a chart. A player may start
// late, stop and go on, begin again, play more passes than asked for, and have
// strings up to a quarter tone out; the tempo asked for is only where the search
// starts. Ticks are the times of sounds besides that are no notes.
//
// The chart must be valid; of one without notes nothing is played. Of a take that is
// [Take.Foreign] nothing is laid on the chart, and nothing listed besides.
func Follow(c chart.Chart, heard []listen.Note, ticks ...float64) Take {
	asked := max(1, c.Passes)
	if len(c.Notes) == 0 {
		return Take{Chart: c, Passes: asked}
	}
	d, course, at := lay(c, asked, heard)
	for range mostRelaid {
		loud := withoutFaint(d, course)
		if len(loud) == len(heard) {
			break
		}
		heard = loud
		d, course, at = lay(c, asked, heard)
	}
	t := Take{Chart: c, Passes: asked, TuningCents: 100 * at.sharp, Transposed: at.transposed, Ticks: slices.Clip(ticks)}
	t.read(d, course)
	t.fillAgain(d.spb)
	t.findCountIn()
	t.findClicks()
	if t.Foreign() || t.leaps() {
		t.setAside()
		return t
	}
	t.tell()
	return t
}

// tell finds out what happened between the notes.
func (t *Take) tell() {
	slices.Sort(t.Breaks)
	t.repeats()
	t.findSwing()
	t.findWaits()
	t.left()
	if t.Transposed != 0 {
		t.happened(Event{Kind: Transposed, T: t.Start(), Semitones: t.Transposed})
	}
	t.inOrder()
}

// setAside takes back all that was laid on the chart: the sound of something else
// fits some of its notes by chance.
func (t *Take) setAside() {
	t.Passes = max(1, t.Chart.Passes)
	t.Matches = t.Matches[:t.Passes*len(t.Chart.Notes)]
	for i, m := range t.Matches {
		t.Matches[i] = Match{Index: m.Index, Chart: m.Chart, Status: Missed}
	}
	t.Extras, t.Aside, t.Events, t.Breaks = nil, nil, nil, nil
	t.TuningCents, t.Transposed = 0, 0
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
