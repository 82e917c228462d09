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
	all := t.Matches[:t.Last()+1]
	third := len(all) / 3
	if third < 2*Fewest {
		return nil
	}
	first, a := thirdOf(t, l, all[:third])
	_, middle := thirdOf(t, l, all[third:len(all)-third])
	last, b := thirdOf(t, l, all[len(all)-third:])
	e := &Endurance{First: first, Last: last}
	if first.SpreadMs == nil || last.SpreadMs == nil {
		return e
	}
	// The ratio of two variances, by the F distribution.
	level(a, middle, b)
	ratio := stats.PopStdDev(sizes(b)) / max(1e-9, stats.PopStdDev(sizes(a)))
	audible := AudibleMs(intervalMs(t, l))
	e.Tires = ratio > tiringShare && stats.FSurvival(ratio*ratio, freeOf(sizes(b)), freeOf(sizes(a))) < tiringChance && last.SpreadMs.Value > audible
	return e
}

// A stray is how far off a note is, on which way of the path.
type stray struct {
	off  float64
	back bool
}

func sizes(strays []stray) []float64 {
	out := make([]float64, len(strays))
	for i, s := range strays {
		out[i] = s.off
	}
	return out
}

// level measures strays by how much their way of the path strays as a whole: a way that is less
// even than the other is no hand that tires.
func level(thirds ...[]stray) {
	var of [2][]float64
	for _, third := range thirds {
		for _, s := range third {
			of[one(s.back)] = append(of[one(s.back)], s.off)
		}
	}
	whole := [2]float64{max(1e-9, stats.PopStdDev(of[0])), max(1e-9, stats.PopStdDev(of[1]))}
	for _, third := range thirds {
		for i := range third {
			third[i].off /= whole[one(third[i].back)]
		}
	}
}

// thirdOf measures notes about a line of their own, so that a drift of the tempo
// counts nothing here.
func thirdOf(t follow.Take, l line, matches []follow.Match) (Third, []stray) {
	var beats, onsets []float64
	var strays []stray
	for _, m := range matches {
		if m.Status == follow.Played {
			beats, onsets = append(beats, m.Chart.Beat), append(onsets, m.Heard.Onset-l.waited(m.Chart.Beat))
			strays = append(strays, stray{back: m.Chart.Back})
		}
	}
	own := fit(beats, onsets, nil, l.secondsPerBeat)
	for i, beat := range beats {
		strays[i].off = own.off(beat, onsets[i])
	}
	return Third{
		RightPercent: 100 * float64(len(beats)) / float64(len(matches)),
		SpreadMs:     spreadOf(sizes(strays)), LevelDB: meanOf(levelsOf(matches)), BPM: 60 / own.secondsPerBeat,
	}, strays
}

// freeOf is how many values a variance rests on, where what is off once stays off for a
// while: n·(1−ρ²)/(1+ρ²), less the mean (Bartlett, J. R. Stat. Soc. 98, 1935).
func freeOf(off []float64) float64 {
	k := inflation(off)
	rho := (k - 1) / (k + 1)
	return max(1, float64(len(off))*(1-rho*rho)/(1+rho*rho)-1)
}
