package evenness

import (
	"cmp"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/stats"
)

// A FingerPair is one finger following another, on one string or over so many, and how.
type FingerPair struct {
	From    int          `json:"from"`
	To      int          `json:"to"`
	Attack  chart.Attack `json:"attack"`
	Strings int          `json:"strings,omitempty"` // gone over; 0 on one string
}

// A Transition holds the figures of a finger pair.
type Transition struct {
	FingerPair
	Count       int     `json:"count"`
	MeanMs      float64 `json:"meanMs"`                    // by how much the interval into the note is longer (+) than its share
	PlusMinusMs float64 `json:"plusMinusMs"`               // half of the mean's 95 % confidence interval; 0 for too few
	SpreadMs    float64 `json:"spreadMs"`                  // standard deviation of the same
	LevelDB     float64 `json:"levelDb"`                   // mean level of the note against the one before
	Sounding    *Figure `json:"soundingPercent,omitempty"` // of the note before, share of the interval
	Sure        bool    `json:"sure"`                      // enough notes to say that it is late or early
	LeastSure   bool    `json:"leastSure"`                 // surely varies more than the others do
	MadeUp      bool    `json:"madeUp"`                    // only because the note before it was not: that one is off, not this
	Stands      bool    `json:"stands,omitempty"`          // it is heard to come late or early, and not by chance
	Varies      bool    `json:"varies,omitempty"`          // it is heard to vary, more than the others
	SofterDB    *Figure `json:"softerDb,omitempty"`        // of the softest pair that starts so: than the next that lands on another finger
	Soft        bool    `json:"soft,omitempty"`            // it is heard to be softer, and not by chance
}

// weakness orders transitions: a finger that comes late is weak, and so is one
// that comes unevenly, in units of what can be heard.
func (t Transition) weakness(audibleMs float64) float64 {
	return (t.MeanMs + 0.5*t.SpreadMs) / audibleMs
}

// transitionsOf groups the notes of a take by the finger before and the finger
// that plays, on one string and over strings, weakest first.
func transitionsOf(steps []step, audible float64) (onOne, over []Transition) {
	of := map[FingerPair][]step{}
	for _, s := range steps {
		if s.fingers() {
			pair := FingerPair{s.from.Chart.Finger, s.to.Chart.Finger, s.to.Chart.Attack, s.strings()}
			of[pair] = append(of[pair], s)
		}
	}
	onOne = make([]Transition, 0, len(of))
	for pair, steps := range of {
		t := transitionOf(pair, steps)
		t.LeastSure = leastSure(pair, of)
		t.SofterDB = softer(pair, of)
		if pair.Strings > 0 {
			over = append(over, t)
		} else {
			onOne = append(onOne, t)
		}
	}
	order := weakestFirst(audible)
	slices.SortFunc(onOne, func(a, b Transition) int { return order(&a, &b) })
	slices.SortFunc(over, func(a, b Transition) int { return order(&a, &b) })
	return onOne, over
}

func weakestFirst(audible float64) func(a, b *Transition) int {
	return func(a, b *Transition) int {
		return cmp.Or(
			cmp.Compare(b.weakness(audible), a.weakness(audible)),
			cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To), cmp.Compare(a.Attack, b.Attack), cmp.Compare(a.Strings, b.Strings),
		)
	}
}

// Pairs are all finger pairs of the take, on one string and over strings, weakest first.
func (a *Analysis) Pairs() []*Transition {
	pairs := make([]*Transition, 0, len(a.Transitions)+len(a.Across))
	for i := range a.Transitions {
		pairs = append(pairs, &a.Transitions[i])
	}
	for i := range a.Across {
		pairs = append(pairs, &a.Across[i])
	}
	slices.SortFunc(pairs, weakestFirst(a.Timing.AudibleMs))
	return pairs
}

func transitionOf(pair FingerPair, steps []step) Transition {
	ms := excesses(steps)
	t := Transition{FingerPair: pair, Count: len(ms), MeanMs: stats.Mean(ms), SpreadMs: stats.PopStdDev(ms)}
	t.LevelDB = stats.Mean(values(steps, func(s step) (float64, bool) { return s.levelDB(), true }))
	t.Sounding = meanOf(values(steps, func(s step) (float64, bool) {
		share, known := s.sounding()
		return 100 * share, known
	}))
	if f := meanOf(ms); f != nil {
		t.PlusMinusMs = f.PlusMinus
		t.Sure = f.Exceeds(0) || f.Below(0)
	}
	t.MadeUp = madeUp(steps)
	return t
}

// ownShare is how much of what is wrong with intervals lies with their second notes, at
// the least, for these to be at fault. It is half where it cannot be told, as of a pair
// that is every second note; what is late draws the line from which all is counted
// towards it, the more the oftener it comes.
const ownShare = 0.375

// madeUp reports whether intervals are too short because the note before came late, or
// too long because it came early: the second note comes back to the beat.
func madeUp(steps []step) bool {
	own, all := 0.0, 0.0
	for _, s := range steps {
		own += s.excessMs * s.lateMs
		all += s.excessMs * s.excessMs
	}
	return own < ownShare*all
}

// unsureChance is how seldom one of the pairs of a hand that is alike unsure everywhere may
// by chance be said to vary more than the others.
const unsureChance = 0.003

// leastSure reports whether the notes of a transition vary more about the beat than those
// of all others together, each about its own mean, by the ratio of two variances
// (F distribution), asked of as many transitions as there are (Bonferroni).
func leastSure(of FingerPair, all map[FingerPair][]step) bool {
	sum, free := 0.0, 0
	for pair, steps := range all {
		if pair != of && len(steps) > 1 {
			sum += variance(steps) * float64(len(steps)-1)
			free += len(steps) - 1
		}
	}
	n := len(all[of])
	if free == 0 || n < Fewest {
		return false
	}
	ratio := variance(all[of]) / max(sum/float64(free), 1e-9)
	return stats.FSurvival(ratio, float64(n-1), float64(free)) < unsureChance/float64(len(all))
}

// variance is that of how late the second notes are.
func variance(steps []step) float64 {
	s := stats.PopStdDev(values(steps, func(s step) (float64, bool) { return s.lateMs, true }))
	return s * s
}

// softer is by how much, in dB, the second notes of the softest pair of those that start alike are
// softer than those of the next. One that lands on the same finger is not the next: where a
// finger is soft, all that it lands after are. Nil of other pairs, and where there is no next.
func softer(of FingerPair, all map[FingerPair][]step) *Figure {
	own := levelsInto(all[of])
	var next []float64
	for pair, steps := range all {
		if pair.Attack != of.Attack || pair == of || len(steps) < Fewest {
			continue
		}
		levels := levelsInto(steps)
		if stats.Mean(levels) < stats.Mean(own) {
			return nil
		}
		if pair.To != of.To && (next == nil || stats.Mean(levels) < stats.Mean(next)) {
			next = levels
		}
	}
	return differenceOf(next, own)
}

// levelsInto are those of the second notes, dB.
func levelsInto(steps []step) []float64 {
	return values(steps, func(s step) (float64, bool) { return s.to.Heard.LevelDB, true })
}
