package compare

import (
	"math"
	"slices"

	"manudrill/core/listen"
)

// countInTolerance is how far off its beat a metronome's sound is heard at the most,
// in seconds.
const countInTolerance = 0.015

// findCountIn takes extra notes that are a metronome's out of the extras: in a room
// its sounds ring on like notes. It is known by two of one pitch, beats apart,
// before the first match; then all sounds on those beats before it, and what has
// that pitch on them later, are ticks.
func (t *Take) findCountIn() {
	start := t.Start()
	for i, first := range t.Extras {
		if first.Onset >= start {
			return
		}
		for _, e := range t.Extras[i+1:] {
			if e.Onset < start && sameSound(e, first) && t.beatsApart(e, first) {
				t.takeTicks(func(e listen.Note) bool {
					return t.beatsApart(e, first) && (e.Onset < start || sameSound(e, first))
				})
				return
			}
		}
	}
}

// takeTicks makes ticks of some of the extras.
func (t *Take) takeTicks(which func(listen.Note) bool) {
	for _, e := range t.Extras {
		if which(e) {
			t.Ticks = append(t.Ticks, e.Onset)
		}
	}
	t.Extras = slices.DeleteFunc(t.Extras, which)
}

func sameSound(a, b listen.Note) bool { return math.Abs(a.Pitch-b.Pitch) < 1 }

// beatsApart reports whether two sounds lie whole beats of the tempo asked for
// apart.
func (t *Take) beatsApart(a, b listen.Note) bool {
	return math.Abs(math.Remainder(a.Onset-b.Onset, 60/t.Chart.BPM)) < countInTolerance
}
