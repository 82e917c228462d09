package practice

import (
	"maps"
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
	"manudrill/core/stats"
)

// A Mark is what is shown of a note while a take is played. The verdict afterwards knows
// more, and may say otherwise.
type Mark struct {
	Index int    `json:"index"` // of the chart note, over all passes
	Is    Marked `json:"is"`
}

// Marked is what becomes of a note.
type Marked string

// What is shown of a note.
const (
	InTime  Marked = "inTime"
	Early   Marked = "early"
	Late    Marked = "late"
	WrongAt Marked = "wrong" // another pitch
	Missing Marked = "missed"
)

// What keeps marks calm and true.
const (
	// marked is how many times what the ear notices a note must be off to be marked.
	marked = 2.5
	// within is how far from its place a note may come to be taken for it, as a share of
	// the time between notes.
	within = 0.45
	// settled is how many complete notes must be those of the chart before anything is
	// said, and looksAt how many of the latest are looked at.
	settled, looksAt = 4, 8
	// strayed is how many of the latest may be others until nothing is said any more: the
	// player is somewhere else, or plays something else.
	strayed = 2
	// around is how far from where they should be players are looked for, in notes.
	around = 4
)

// A Follower lays notes on the chart of a take while they are played. Of who is nowhere
// near the click, or plays something else, it says nothing. Make one with [Follow].
type Follower struct {
	notes    []chart.Note // over all passes
	at       []float64    // when each is due, s
	interval float64      // from note to note, s
	audible  float64      // how much off is marked, s
	lowest   int          // open string, MIDI
	delay    *float64     // from the click to when it is in the recording; nil where not known

	following bool
	heard     []listen.Note // complete, since the player is looked for
	began     int           // index of the last chart note that an early word was laid on
	told      int           // and of the last that a complete note was laid on
	off       []float64     // of the latest notes from when they were due, s
	fits      []bool        // whether the latest complete notes were those of the chart
	sharps    []float64     // by how much their pitches were sharp
}

// Follow returns a follower of a take whose first note is due so many seconds from the
// first sample. Where the delay of the device is known, s, early and late are against the
// click; else against how the player goes as a whole.
func Follow(c chart.Chart, first float64, delay *float64) *Follower {
	f := &Follower{notes: c.Unroll(), interval: 1 / c.NotesPerSecond(), delay: delay}
	for _, n := range f.notes {
		f.at = append(f.at, first+n.Beat*60/c.BPM)
	}
	f.audible = marked * evenness.AudibleMs(1000*f.interval) / 1000
	if len(c.Tuning) > 0 {
		f.lowest = slices.Min(c.Tuning)
	}
	return f
}

// Began takes the early word of a note.
func (f *Follower) Began(t float64) []Mark {
	if !f.following {
		return nil
	}
	i, ok := f.nearest(t-stats.Median(f.off), f.began+1)
	if !ok {
		return nil
	}
	f.began = i
	return []Mark{{i, f.timing(i, t)}}
}

// Told takes a complete note, which has the last word.
func (f *Follower) Told(n listen.Note) []Mark {
	if n.Brief {
		return nil
	}
	if !f.following {
		return f.find(n)
	}
	i, ok := f.nearest(n.Onset-stats.Median(f.off), f.told+1)
	if !ok {
		f.trust(false)
		return nil
	}
	var marks []Mark
	for missed := f.told + 1; missed < i; missed++ {
		marks = append(marks, Mark{missed, Missing})
	}
	f.lay(i, n)
	marks = append(marks, f.mark(i, n))
	if !f.following {
		return nil
	}
	return marks
}

// lay lays a complete note on its chart note.
func (f *Follower) lay(i int, n listen.Note) {
	fits := f.isIt(i, n)
	f.told, f.began = i, max(f.began, i)
	f.off = lately(f.off, n.Onset-f.at[i])
	if off := n.Pitch - float64(f.notes[i].MIDI); fits && math.Abs(off) < 0.6 {
		f.sharps = lately(f.sharps, off)
	}
	f.trust(fits)
}

// isIt reports whether a complete note is that of the chart.
func (f *Follower) isIt(i int, n listen.Note) bool {
	return follow.Fits(f.notes[i].MIDI, n, stats.Median(f.sharps), f.lowest)
}

func (f *Follower) mark(i int, n listen.Note) Mark {
	if !f.isIt(i, n) {
		return Mark{i, WrongAt}
	}
	return Mark{i, f.timing(i, n.Onset)}
}

func (f *Follower) trust(fits bool) {
	f.fits = lately(f.fits, fits)
	wrong := 0
	for _, fits := range f.fits {
		if !fits {
			wrong++
		}
	}
	if wrong > strayed {
		f.following, f.heard = false, nil
	}
}

// find looks for where the player is, by the complete notes that were heard of late, and
// once it is known tells of them.
func (f *Follower) find(n listen.Note) []Mark {
	f.heard = lately(f.heard, n)
	if len(f.heard) < settled {
		return nil
	}
	off, ok := f.likeliest()
	if !ok {
		return nil
	}
	f.following, f.off, f.fits, f.told, f.began = true, []float64{off}, nil, -1, -1
	laid := map[int]listen.Note{}
	for _, h := range f.heard {
		if i, ok := f.nearest(h.Onset-off, f.told+1); ok {
			f.lay(i, h)
			laid[i] = h
		}
	}
	var marks []Mark // only now is it known how they go
	for _, i := range slices.Sorted(maps.Keys(laid)) {
		marks = append(marks, f.mark(i, laid[i]))
	}
	return marks
}

// likeliest is by how much the player is off if the latest notes are those of the chart:
// of several ways the one by the least.
func (f *Follower) likeliest() (off float64, ok bool) {
	first := f.heard[0].Onset
	for i := f.from(first - around*f.interval); i < len(f.at) && f.at[i] <= first+around*f.interval; i++ {
		by := first - f.at[i]
		if (!ok || math.Abs(by) < math.Abs(off)) && f.explains(by) {
			off, ok = by, true
		}
	}
	return off, ok
}

// from is the index of the first chart note that is due at a time or later.
func (f *Follower) from(t float64) int {
	i, _ := slices.BinarySearch(f.at, t)
	return i
}

// explains reports whether all the latest notes but one, and enough of them, are those of
// the chart if the player is off by so much.
func (f *Follower) explains(off float64) bool {
	fits, from := 0, 0
	for _, h := range f.heard {
		if i, ok := f.nearest(h.Onset-off, from); ok && follow.Fits(f.notes[i].MIDI, h, 0, f.lowest) {
			fits++
			from = i + 1
		}
	}
	return fits >= settled && fits >= len(f.heard)-1
}

// nearest is the chart note that is due at a time, from an index on.
func (f *Follower) nearest(t float64, from int) (index int, ok bool) {
	best := within * f.interval
	for i := max(from, f.from(t-f.interval)); i < len(f.at) && f.at[i] < t+f.interval; i++ {
		if off := math.Abs(f.at[i] - t); off < best {
			index, best, ok = i, off, true
		}
	}
	return index, ok
}

func (f *Follower) timing(index int, t float64) Marked {
	reference := stats.Median(f.off)
	if f.delay != nil {
		reference = *f.delay
	}
	switch off := t - f.at[index] - reference; {
	case off > f.audible:
		return Late
	case off < -f.audible:
		return Early
	}
	return InTime
}

// lately puts one more to the latest.
func lately[T any](of []T, one T) []T {
	return append(slices.Clone(of[max(0, len(of)-looksAt+1):]), one)
}
