package evenness

import (
	"slices"
	"sort"

	"manudrill/core/follow"
	"manudrill/core/stats"
)

// A line gives the time of a beat: start + secondsPerBeat × beat, with a start of its own for
// each segment. All segments have one tempo.
type line struct {
	secondsPerBeat float64
	segments       []segment // in order; one at least
}

// A segment is what was played without a wait or a jump.
type segment struct{ from, start float64 } // beat; s

// lineOf draws the least-squares line through the notes that were played right, for each
// segment of the take from a start of its own.
func lineOf(t follow.Take) line {
	var beats, onsets []float64
	var breaks []int
	waiting := t.Breaks
	for i, m := range t.Matches {
		if m.Status != follow.Played {
			continue
		}
		begins := false
		for len(waiting) > 0 && waiting[0] <= i {
			waiting, begins = waiting[1:], true
		}
		if begins && len(beats) > 0 {
			breaks = append(breaks, len(beats))
		}
		beats, onsets = append(beats, m.Chart.Beat), append(onsets, m.Heard.Onset)
	}
	return fit(beats, onsets, breaks, 60/t.Chart.BPM)
}

// fit draws the line, with new segments at some of the notes. With fewer than two different
// beats in each it keeps the tempo given.
func fit(beats, onsets []float64, breaks []int, secondsPerBeat float64) line {
	if len(beats) == 0 {
		return line{secondsPerBeat, []segment{{}}}
	}
	breaks = append(slices.Clip(breaks), len(beats))
	var sxx, sxy float64
	from := 0
	for _, to := range breaks {
		mx, my := stats.Mean(beats[from:to]), stats.Mean(onsets[from:to])
		for i := from; i < to; i++ {
			sxx += (beats[i] - mx) * (beats[i] - mx)
			sxy += (beats[i] - mx) * (onsets[i] - my)
		}
		from = to
	}
	if sxx > 0 {
		secondsPerBeat = sxy / sxx
	}
	l := line{secondsPerBeat: secondsPerBeat}
	from = 0
	for _, to := range breaks {
		l.segments = append(l.segments, segment{beats[from], stats.Mean(onsets[from:to]) - secondsPerBeat*stats.Mean(beats[from:to])})
		from = to
	}
	return l
}

// in returns the index of the segment in which a beat lies; what is before the first belongs
// to it.
func (l line) in(beat float64) int {
	return max(0, sort.Search(len(l.segments), func(i int) bool { return l.segments[i].from > beat })-1)
}

// at is the time of a beat.
func (l line) at(beat float64) float64 { return l.segments[l.in(beat)].start + l.secondsPerBeat*beat }

// waited is by how much the segment of a beat is later than the first, s.
func (l line) waited(beat float64) float64 { return l.segments[l.in(beat)].start - l.segments[0].start }

// beatAt is the beat at a time; while the player waited, the one to come.
func (l line) beatAt(t float64) float64 {
	later := l.segments[1:]
	next := sort.Search(len(later), func(i int) bool { return t < later[i].start+l.secondsPerBeat*later[i].from })
	beat := (t - l.segments[next].start) / l.secondsPerBeat
	if next < len(later) {
		return min(later[next].from, beat)
	}
	return beat
}

// off returns by how much, in ms, an onset comes after its beat on the line.
func (l line) off(beat, onset float64) float64 { return 1000 * (onset - l.at(beat)) }

// across reports whether a new segment begins between two beats.
func (l line) across(from, to float64) bool { return l.in(from) != l.in(to) }

// timed are events with how long the player waited by the line, s: from a note that was due,
// or the next that was played, on all is so much later than before it.
func (l line) timed(t follow.Take) []follow.Event {
	events := slices.Clone(t.Events)
	for i, e := range events {
		if e.Kind != follow.Hesitation && e.Kind != follow.Stop {
			continue
		}
		due := t.Matches[e.Before].Chart.Beat
		next := sort.Search(len(l.segments), func(i int) bool { return l.segments[i].from >= due })
		if next > 0 && next < len(l.segments) {
			events[i].Seconds = l.segments[next].start - l.segments[next-1].start
		}
	}
	return events
}
