package evenness

import (
	"slices"

	"manudrill/core/compare"
	"manudrill/core/stats"
)

// A line gives the time of a beat: start + secondsPerBeat × beat, later by each
// stop before it.
type line struct {
	start, secondsPerBeat float64
	stops                 []stop
}

// A stop is where the player waited and went on.
type stop struct {
	beat    float64 // from which on all is later
	seconds float64
}

// lineOf draws the least-squares line through the notes that were played right.
// Where the player stopped, the line goes on at the same slope from a start of
// its own.
func lineOf(t compare.Take) line {
	var beats, onsets []float64
	for _, m := range t.Matches {
		if m.Status == compare.Played {
			beats, onsets = append(beats, m.Chart.Beat), append(onsets, m.Heard.Onset)
		}
	}
	return fit(beats, onsets, 60/t.Chart.BPM)
}

// fit draws the line. With fewer than two different beats it keeps the tempo
// given.
func fit(beats, onsets []float64, secondsPerBeat float64) line {
	if len(beats) == 0 {
		return line{secondsPerBeat: secondsPerBeat}
	}
	breaks := append(breaksIn(beats, onsets), len(beats))
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
			l.stops = append(l.stops, stop{beats[from], start - l.at(beats[from]) + secondsPerBeat*beats[from]})
		}
		from = to
	}
	return l
}

// How long a wait is no mere unevenness: in seconds, and against the interval of
// the notes about it.
const (
	stopSeconds = 0.5
	stopShare   = 1.0
)

// breaksIn returns the indices of the notes before which the player stopped: the
// wait is long, and what comes after stays as late.
func breaksIn(beats, onsets []float64) []int {
	var each []float64
	for i := 1; i < len(beats); i++ {
		if beats[i] > beats[i-1] {
			each = append(each, (onsets[i]-onsets[i-1])/(beats[i]-beats[i-1]))
		}
	}
	if len(each) < 3 {
		return nil
	}
	slices.Sort(each)
	usual := each[len(each)/2]
	var breaks []int
	for i := 1; i < len(beats); i++ {
		asked := (beats[i] - beats[i-1]) * usual
		wait := onsets[i] - onsets[i-1] - asked
		if wait > max(stopSeconds, stopShare*asked) && stays(beats[i:], onsets[i:], usual, wait) {
			breaks = append(breaks, i)
		}
	}
	return breaks
}

// stays reports whether the next notes do not catch up on a wait.
func stays(beats, onsets []float64, usual, wait float64) bool {
	for i := 1; i < min(4, len(beats)); i++ {
		if onsets[i]-onsets[0]-(beats[i]-beats[0])*usual < -wait/2 {
			return false
		}
	}
	return true
}

// at is the time of a beat.
func (l line) at(beat float64) float64 {
	t := l.start + l.secondsPerBeat*beat
	for _, s := range l.stops {
		if beat >= s.beat {
			t += s.seconds
		}
	}
	return t
}

// beatAt is the beat at a time; while the player waited, the one to come.
func (l line) beatAt(t float64) float64 {
	waited := 0.0
	for _, s := range l.stops {
		if t < l.at(s.beat) {
			return min(s.beat, (t-l.start-waited)/l.secondsPerBeat)
		}
		waited += s.seconds
	}
	return (t - l.start - waited) / l.secondsPerBeat
}

// off returns by how much, in ms, an onset comes after its beat on the line.
func (l line) off(beat, onset float64) float64 { return 1000 * (onset - l.at(beat)) }

// across reports whether the player stopped between two beats.
func (l line) across(from, to float64) bool {
	return slices.ContainsFunc(l.stops, func(s stop) bool { return from < s.beat && s.beat <= to })
}
