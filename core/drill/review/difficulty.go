package review

import (
	"fmt"
	"math"

	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/setup"
	"manudrill/core/words"
)

// Difficulty is a figure from 0 to 10 with the parts it is made of.
type Difficulty struct {
	Total float64          `json:"total"`
	Parts []DifficultyPart `json:"parts"`
}

// DifficultyPart is one reason why a drill is hard.
type DifficultyPart struct {
	Name   string  `json:"name"`  // the field of Weights
	Value  float64 `json:"value"` // 0 to 10
	Weight float64 `json:"weight"`
	Text   string  `json:"text"` // what the value rests on
}

// Values at which a part counts as 10: they set the scale of the figure and
// nothing else.
const (
	hardNotesPerSecond = 16.0
	easyReach          = 0.5 // share of the comfortable reach
	hardReach          = 1.2
)

// hardest is the power of the mean: the harder a part is, the more it decides. A drill whose
// one stretch no hand makes is hard, however easy the rest of it.
const hardest = 4

// DifficultyOf weighs a chart at its tempo for a hand on a guitar. What grows in it (a
// wider stretch, a weaker pair, more crossings, skips, shifts or taps, a faster click) never
// makes the figure smaller.
func DifficultyOf(c chart.Chart, g guitar.Guitar, h guitar.Hand, w setup.Weights) Difficulty {
	m := measure(c.Notes, w)
	mm, stretch := hardestStretch(c.Notes, g, h)
	nps := c.NotesPerSecond()
	share := func(n int) float64 { return tenths(float64(n) / float64(max(1, len(c.Notes)-1))) }
	d := Difficulty{Parts: []DifficultyPart{
		{"stretch", stretch, w.Stretch, fmt.Sprintf("widest %.0f mm", mm)},
		{"pairs", tenths(m.hardness / float64(max(1, len(c.Notes)-1))), w.Pairs, words.Counted(m.pairs, "finger change")},
		{"crossings", share(m.crossings), w.Crossings, fmt.Sprintf("%d of %d", m.crossings, len(c.Notes)-1)},
		{"skips", share(m.skipped), w.Skips, words.Counted(m.skipped, "string") + " skipped"},
		{"shifts", share(m.shifted), w.Shifts, words.Counted(m.shifted, "fret") + " moved in " + words.Counted(m.shifts, "shift")},
		{"hands", share(m.taps), w.Hands, words.Counted(m.taps, "change") + " of hands"},
		{"speed", tenths(nps / hardNotesPerSecond), w.Speed, fmt.Sprintf("%.1f notes per second", nps)},
	}}
	sum, weights := 0.0, 0.0
	for _, p := range d.Parts {
		sum, weights = sum+p.Weight*math.Pow(p.Value, hardest), weights+p.Weight
	}
	if weights > 0 {
		d.Total = math.Pow(sum/weights, 1.0/hardest)
	}
	return d
}

func tenths(share float64) float64 { return 10 * max(0, min(1, share)) }

// hardestStretch is the stretch that takes the most of the hand's reach, in mm, and how
// hard it is.
func hardestStretch(notes []chart.Note, g guitar.Guitar, h guitar.Hand) (mm, hard float64) {
	for _, s := range stretches(notes, g, h) {
		mm = max(mm, s.mm)
		hard = max(hard, tenths((s.mm/s.span-easyReach)/(hardReach-easyReach)))
	}
	return mm, hard
}

// motions are sums over neighbouring notes.
type motions struct {
	pairs              int
	hardness           float64
	crossings, skipped int
	shifts, shifted    int // how often the hand moves, and how many frets in all
	taps               int // changes from one hand to the other
}

// roams is how many frets from the first finger each finger may play before the hand has
// moved: one finger a fret, and a fret more or less.
var roams = [5][2]int{1: {0, 0}, 2: {0, 2}, 3: {1, 3}, 4: {2, 5}}

func measure(notes []chart.Note, w setup.Weights) motions {
	var m motions
	place, known := 0, false // of the hand: the fret of its first finger
	for i, b := range notes {
		if i > 0 {
			m.step(notes[i-1], b, w)
		}
		if b.Hand != chart.FrettingHand || b.Finger == 0 {
			continue // an open string or a tap leaves the hand where it is
		}
		away := b.Fret - place
		if known && away >= roams[b.Finger][0] && away <= roams[b.Finger][1] {
			continue
		}
		to := b.Fret - (b.Finger - 1)
		if known {
			m.shifts++
			m.shifted += max(to-place, place-to)
		}
		place, known = to, true
	}
	return m
}

// step counts what lies between two notes.
func (m *motions) step(a, b chart.Note, w setup.Weights) {
	if away := max(a.String-b.String, b.String-a.String); away > 0 {
		m.crossings++
		m.skipped += away - 1
	}
	if a.Hand != b.Hand {
		m.taps++
		return
	}
	if a.Hand == chart.FrettingHand && a.Finger > 0 && b.Finger > 0 && a.Finger != b.Finger {
		m.pairs++
		m.hardness += w.Pair[fmt.Sprint(min(a.Finger, b.Finger)*10+max(a.Finger, b.Finger))]
	}
}
