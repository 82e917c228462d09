package evenness

import (
	"math"
	"slices"

	"manudrill/core/follow"
	"manudrill/core/stats"
)

// A Pulse is where unevenness in time comes from. What too few notes tell is
// missing.
type Pulse struct {
	NPVI         *Figure `json:"npvi,omitempty"`         // of neighbouring intervals, against what they should be
	DriftPercent *Figure `json:"driftPercent,omitempty"` // tempo at the end against the start, of the line bent once
	ClockMs      *Figure `json:"clockMs,omitempty"`      // the part of the intervals' spread that comes from the head
	MotorMs      *Figure `json:"motorMs,omitempty"`      // and from the hand
	ClickMs      *Figure `json:"clickMs,omitempty"`      // behind (+) or ahead of the click that is in the recording
	Drifts       bool    `json:"drifts,omitempty"`       // the tempo is heard to change, and not by chance
	OffClick     bool    `json:"offClick,omitempty"`     // it is heard to lie beside the click, and not by chance
}

func pulseOf(t follow.Take, l line, steps []step) Pulse {
	p := Pulse{NPVI: npvi(steps), DriftPercent: driftOf(t, l), ClickMs: againstClick(t)}
	p.ClockMs, p.MotorMs = clockAndMotor(runsOf(steps))
	return p
}

// npvi is the normalised pairwise variability index (Grabe & Low, Laboratory
// Phonology 7, 2002): the mean of how far neighbouring intervals differ, as a
// share of their mean, in %. Intervals are taken against what they should be, so
// that a written rhythm counts nothing.
func npvi(steps []step) *Figure {
	var each []float64
	for _, run := range runsOf(steps) {
		for i := 1; i < len(run); i++ {
			a, b := run[i-1].ratio, run[i].ratio
			each = append(each, 100*math.Abs(a-b)/((a+b)/2))
		}
	}
	return meanOf(each)
}

// runsOf splits steps where a note between is missing.
func runsOf(steps []step) [][]step {
	var runs [][]step
	for i, s := range steps {
		if i == 0 || steps[i-1].to.Index != s.from.Index {
			runs = append(runs, nil)
		}
		runs[len(runs)-1] = append(runs[len(runs)-1], s)
	}
	return runs
}

// enoughForClock is how many intervals the autocovariance must rest on.
const enoughForClock = 30

// clockAndMotor parts the variance of the intervals into that of a clock and
// that of the hand (Wing & Kristofferson, Percept. Psychophys. 14, 1973): a hand
// that is late once makes one interval longer and the next shorter, so the motor
// variance is minus the covariance of neighbours, and the clock's is what is
// left, γ(0) + 2γ(1). Errors are those of a sample autocovariance (Bartlett).
func clockAndMotor(runs [][]step) (clock, motor *Figure) {
	var all []float64
	for _, run := range runs {
		all = append(all, excesses(run)...)
	}
	if len(all) < enoughForClock {
		return nil, nil
	}
	middle := stats.Mean(all)
	var zero, one float64
	neighbours := 0
	for _, run := range runs {
		for i, s := range run {
			d := s.excessMs - middle
			zero += d * d
			if i > 0 {
				one += d * (run[i-1].excessMs - middle)
				neighbours++
			}
		}
	}
	if neighbours < enoughForClock {
		return nil, nil
	}
	zero /= float64(len(all))
	one /= float64(neighbours)
	rho := 0.0
	if zero > 0 {
		rho = one / zero
	}
	se := 1.96 * zero * math.Sqrt((1+2*rho*rho)/float64(neighbours))
	root := func(variance, error float64) *Figure {
		s := math.Sqrt(max(0, variance))
		return &Figure{s, math.Sqrt(max(0, variance)+error) - s, len(all)}
	}
	return root(zero+2*one, 2*se), root(-one, se)
}

// driftOf bends the line once: the coefficient of the second orthogonal
// polynomial over the beats, by least squares, as the change of tempo from the
// first note to the last, in %.
func driftOf(t follow.Take, l line) *Figure {
	var x, y []float64
	for _, m := range t.Matches {
		if m.Status == follow.Played {
			x, y = append(x, m.Chart.Beat), append(y, l.off(m.Chart.Beat, m.Heard.Onset)/1000)
		}
	}
	if len(x) < 3*Fewest {
		return nil
	}
	p := secondPolynomial(x)
	var pp, py float64
	for i := range p {
		pp += p[i] * p[i]
		py += p[i] * y[i]
	}
	bent := py / pp // s per beat²
	left := 0.0
	for i := range p {
		d := y[i] - bent*p[i]
		left += d * d
	}
	span := x[len(x)-1] - x[0]
	toPercent := -200 * bent * span / l.secondsPerBeat
	error := math.Sqrt(left / float64(len(x)-3) / pp * inflation(y))
	student := stats.StudentQuantile(0.975, float64(len(x)-3))
	return &Figure{toPercent, student * error * 200 * span / l.secondsPerBeat, len(x)}
}

// inflation is by how much a variance grows since what is off once stays off for a while:
// (1+ρ)/(1−ρ) of a first-order autoregression, ρ the lag-one autocorrelation (Bartlett,
// J. R. Stat. Soc. 98, 1935).
func inflation(off []float64) float64 {
	var zero, one float64
	middle := stats.Mean(off)
	for i, v := range off {
		zero += (v - middle) * (v - middle)
		if i > 0 {
			one += (v - middle) * (off[i-1] - middle)
		}
	}
	if zero == 0 {
		return 1
	}
	rho := min(0.9, max(0, one/zero))
	return (1 + rho) / (1 - rho)
}

// secondPolynomial is (x−x̄)² made orthogonal to 1 and x over the points.
func secondPolynomial(x []float64) []float64 {
	middle := stats.Mean(x)
	var s2, s3 float64
	for _, v := range x {
		d := v - middle
		s2, s3 = s2+d*d, s3+d*d*d
	}
	p := make([]float64, len(x))
	for i, v := range x {
		d := v - middle
		p[i] = d*d - s3/s2*d - s2/float64(len(x))
	}
	return p
}

// enoughTicks is how many short sounds must lie on one grid to be a metronome.
const enoughTicks = 3

// tickTolerance is how far off its grid a metronome's click is measured at the
// most, in seconds.
const tickTolerance = 0.012

// againstClick is how far behind the click the notes on a beat come, where its time is
// known: because the device has told it, or because a metronome is heard in the recording,
// so that most short sounds lie on the grid of the tempo asked for.
func againstClick(t follow.Take) *Figure {
	period := 60 / t.Chart.BPM
	phase, ok := clickOf(t, period)
	if !ok {
		return nil
	}
	var behind []float64
	for _, m := range t.Matches {
		onBeat := math.Abs(m.Chart.Beat-math.Round(m.Chart.Beat)) < 1e-6
		if m.Status == follow.Played && onBeat {
			off := math.Remainder(m.Heard.Onset-phase, period)
			behind = append(behind, 1000*off)
		}
	}
	return meanOf(behind)
}

// clickOf is when a beat is clicked in the recording, s.
func clickOf(t follow.Take, period float64) (phase float64, known bool) {
	if t.Chart.RiseBPM > 0 {
		return 0, false // the beats do not lie on one grid
	}
	if t.Chart.ClickAt != nil {
		return *t.Chart.ClickAt, !t.Chart.Free
	}
	phase, known = grid(t.Ticks, period)
	return phase, known && countedIn(t, phase, period) >= enoughCountIn
}

// enoughCountIn is how many clicks must come before the first note: what knocks while
// somebody plays, a string that is stopped perhaps, keeps the player's time.
const enoughCountIn = 2

// countedIn is how many ticks of a grid come before the first note.
func countedIn(t follow.Take, phase, period float64) int {
	n := 0
	for _, tick := range t.Ticks {
		if tick < t.Start()-tickTolerance && math.Abs(math.Remainder(tick-phase, period)) < tickTolerance {
			n++
		}
	}
	return n
}

// grid finds the phase of a period at which most ticks lie, in seconds.
func grid(ticks []float64, period float64) (phase float64, ok bool) {
	most := 0
	for _, candidate := range ticks {
		var near []float64
		for _, t := range ticks {
			if d := math.Remainder(t-candidate, period); math.Abs(d) < tickTolerance {
				near = append(near, d)
			}
		}
		if len(near) > most {
			most = len(near)
			slices.Sort(near)
			phase = candidate + near[len(near)/2]
		}
	}
	return phase, most >= enoughTicks && 2*most > len(ticks)
}
