package evenness

import (
	"manudrill/core/drill/chart"
	"manudrill/core/follow"
)

// A step is one chart note following another, both played right and without a
// stop between: what every figure of intervals and transitions rests on.
type step struct {
	from, to follow.Match
	excessMs float64 // by how much the interval is longer (+) than its share
	lateMs   float64 // by how much the second note comes after its beat
	ratio    float64 // interval/expected interval
}

func stepsOf(t follow.Take, l line) []step {
	var steps []step
	for i := 1; i < len(t.Matches); i++ {
		a, b := t.Matches[i-1], t.Matches[i]
		if a.Status != follow.Played || b.Status != follow.Played || l.across(a.Chart.Beat, b.Chart.Beat) {
			continue
		}
		expected := (b.Chart.Beat - a.Chart.Beat) * l.secondsPerBeat
		before, after := l.off(a.Chart.Beat, a.Heard.Onset), l.off(b.Chart.Beat, b.Heard.Onset)
		steps = append(steps, step{a, b, after - before, after, (b.Heard.Onset - a.Heard.Onset) / expected})
	}
	return steps
}

// levelDB is the second note against the first.
func (s step) levelDB() float64 { return s.to.Heard.LevelDB - s.from.Heard.LevelDB }

// seconds is the interval as it was played.
func (s step) seconds() float64 { return s.to.Heard.Onset - s.from.Heard.Onset }

// slowest is the longest interval, in seconds, in which a string is expected to
// sound on: plucked strings die away by themselves.
const slowest = 0.7

// sounding is the share of the interval in which the first note sounds; false
// where it could have died away by itself.
func (s step) sounding() (float64, bool) {
	return min(1, max(0, (s.from.Heard.End-s.from.Heard.Onset)/s.seconds())), s.seconds() < slowest
}

// fingers reports whether one finger follows another: on a string, or over strings with the
// hand where it is.
func (s step) fingers() bool {
	a, b := s.from.Chart, s.to.Chart
	if a.String != b.String {
		return !s.shifts()
	}
	return a.Finger != b.Finger || a.Hand != b.Hand
}

// strings is how many strings the step goes over.
func (s step) strings() int {
	return abs(s.to.Chart.String - s.from.Chart.String)
}

// shifts reports whether the fretting hand changes its position.
func (s step) shifts() bool { return Shifts(s.from.Chart, s.to.Chart) }

// Shifts reports whether the fretting hand changes its position from one note to the
// next.
func Shifts(a, b chart.Note) bool {
	fretted := a.Finger > 0 && b.Finger > 0 && a.Hand == chart.FrettingHand && b.Hand == chart.FrettingHand
	return fretted && a.Fret-a.Finger != b.Fret-b.Finger
}

// ringsBelow is how far a string must have fallen, in dB, not to be heard to
// ring on under the next.
const ringsBelow = -12

// rings reports whether the string left behind is heard under the next note, and
// whether that can be told. Where the finger stays down it is asked to.
func (s step) rings() (rings, known bool) {
	c := s.to.Heard.Carry
	return c.DB > ringsBelow, c.Known && s.strings() > 0 && !s.from.Chart.Keep
}

func excesses(steps []step) []float64 {
	return values(steps, func(s step) (float64, bool) { return s.excessMs, true })
}

// values collects what of tells of those steps that it tells it of.
func values(steps []step, of func(step) (float64, bool)) []float64 {
	var out []float64
	for _, s := range steps {
		if v, ok := of(s); ok {
			out = append(out, v)
		}
	}
	return out
}

func abs(n int) int { return max(n, -n) }
