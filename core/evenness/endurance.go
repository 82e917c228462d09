package evenness

import (
	"manudrill/core/follow"
	"manudrill/core/stats"
)

// Endurance sets the first third of a take against the last.
type Endurance struct {
	First Third `json:"first"`
	Last  Third `json:"last"`
	Tires bool  `json:"tires"` // surely less even at the end, by more than is heard
}

// A Third holds the figures of a third of the notes.
type Third struct {
	RightPercent float64 `json:"rightPercent"`
	SpreadMs     *Figure `json:"spreadMs,omitempty"`
	LevelDB      *Figure `json:"levelDb,omitempty"`
	BPM          float64 `json:"bpm"`
}

// tiringShare is how much larger the spread must be at the end.
const tiringShare = 1.3

// tiringChance is how seldom a hand that does not tire may be said to, by chance: it is
// told to stop, and asked of every take.
const tiringChance = 0.001

// enduranceOf is nil where a third would hold too few notes.
func enduranceOf(t follow.Take, l line) *Endurance {
	third := (t.Last() + 1) / 3
	if third < 2*Fewest {
		return nil
	}
	first, a := thirdOf(t, l, t.Matches[:third])
	last, b := thirdOf(t, l, t.Matches[t.Last()+1-third:t.Last()+1])
	e := &Endurance{First: first, Last: last}
	if first.SpreadMs == nil || last.SpreadMs == nil {
		return e
	}
	// The ratio of two variances, by the F distribution.
	ratio := stats.PopStdDev(b) / max(1e-9, stats.PopStdDev(a))
	audible := AudibleMs(intervalMs(t, l))
	e.Tires = ratio > tiringShare && stats.FSurvival(ratio*ratio, freeOf(b), freeOf(a)) < tiringChance && stats.PopStdDev(b) > audible
	return e
}

// thirdOf measures notes about a line of their own, so that a drift of the tempo
// counts nothing here.
func thirdOf(t follow.Take, l line, matches []follow.Match) (Third, []float64) {
	var beats, onsets []float64
	for _, m := range matches {
		if m.Status == follow.Played {
			beats, onsets = append(beats, m.Chart.Beat), append(onsets, m.Heard.Onset-l.waited(m.Chart.Beat))
		}
	}
	own := fit(beats, onsets, nil, l.secondsPerBeat)
	off := make([]float64, len(beats))
	for i, beat := range beats {
		off[i] = own.off(beat, onsets[i])
	}
	return Third{
		RightPercent: 100 * float64(len(beats)) / float64(len(matches)),
		SpreadMs:     spreadOf(off), LevelDB: meanOf(levelsOf(matches)), BPM: 60 / own.secondsPerBeat,
	}, off
}

// freeOf is how many values a variance rests on, where what is off once stays off for a
// while: n·(1−ρ²)/(1+ρ²), less the mean (Bartlett, J. R. Stat. Soc. 98, 1935).
func freeOf(off []float64) float64 {
	k := inflation(off)
	rho := (k - 1) / (k + 1)
	return max(1, float64(len(off))*(1-rho*rho)/(1+rho*rho)-1)
}
