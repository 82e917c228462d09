package evenness

import (
	"slices"

	"manudrill/core/follow"
	"manudrill/core/stats"
)

// A line gives the time of a beat: start + secondsPerBeat × beat, and from each break on by
// so much later or earlier. All segments have one tempo.
type line struct {
	start, secondsPerBeat float64
	breaks                []shift
}

// A shift is where the player waited, or went on from another note.
type shift struct {
	beat    float64 // from which on all is later
	seconds float64
}

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
		return line{secondsPerBeat: secondsPerBeat}
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
		start := stats.Mean(onsets[from:to]) - secondsPerBeat*stats.Mean(beats[from:to])
		if from == 0 {
			l.start = start
		} else {
			l.breaks = append(l.breaks, shift{beats[from], start - l.at(beats[from]) + secondsPerBeat*beats[from]})
		}
		from = to
	}
	return l
}

// at is the time of a beat.
func (l line) at(beat float64) float64 {
	t := l.start + l.secondsPerBeat*beat
	for _, s := range l.breaks {
		if beat >= s.beat {
			t += s.seconds
		}
	}
	return t
}

// beatAt is the beat at a time; while the player waited, the one to come.
func (l line) beatAt(t float64) float64 {
	waited := 0.0
	for _, s := range l.breaks {
		if t < l.at(s.beat) {
			return min(s.beat, (t-l.start-waited)/l.secondsPerBeat)
		}
		waited += s.seconds
	}
	return (t - l.start - waited) / l.secondsPerBeat
}

// off returns by how much, in ms, an onset comes after its beat on the line.
func (l line) off(beat, onset float64) float64 { return 1000 * (onset - l.at(beat)) }

// across reports whether a new segment begins between two beats.
func (l line) across(from, to float64) bool {
	return slices.ContainsFunc(l.breaks, func(s shift) bool { return from < s.beat && s.beat <= to })
}

// shiftAt is by how much all is later from a beat, or the next that was played, on than
// before it, s.
func (l line) shiftAt(beat float64) float64 {
	for _, s := range l.breaks {
		if s.beat >= beat {
			return s.seconds
		}
	}
	return 0
}
