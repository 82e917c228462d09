package follow

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
			if e.Onset < start && sameSound(e, first) && t.beatsApart(e.Onset, first.Onset) {
				t.takeTicks(func(e listen.Note) bool {
					return t.beatsApart(e.Onset, first.Onset) && (e.Onset < start || sameSound(e, first))
				})
				return
			}
		}
	}
}

// countedIn is how many ticks on the beat before the first note are a metronome's.
const countedIn = 2

// findClicks takes extra notes that are a metronome's clicks over a string that rings out
// of the extras, where it has counted in: what comes on the beat at the pitch of the note
// before, or after the last note.
func (t *Take) findClicks() {
	beat, ok := t.countInBeat()
	if !ok {
		return
	}
	heard := t.Timeline()
	t.takeTicks(func(e listen.Note) bool {
		before, after := heard.Around(e.Onset)
		if before < 0 || !t.beatsApart(e.Onset, beat) {
			return false
		}
		return after < 0 || samePitch(t.MIDI(t.Matches[before].Heard), t.MIDI(e))
	})
}

// countInBeat returns when one of the beats was that a metronome has counted in, in
// seconds.
func (t *Take) countInBeat() (float64, bool) {
	start := t.Start()
	for _, one := range t.Ticks {
		n := 0
		for _, other := range t.Ticks {
			if other < start && t.beatsApart(other, one) {
				n++
			}
		}
		if one < start && n >= countedIn {
			return one, true
		}
	}
	return 0, false
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

// beatsApart reports whether two times, in seconds, lie whole beats of the tempo asked
// for apart.
func (t *Take) beatsApart(a, b float64) bool {
	return math.Abs(math.Remainder(a-b, 60/t.Chart.BPM)) < countInTolerance
}
