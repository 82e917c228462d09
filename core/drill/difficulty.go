package drill

import (
	"fmt"

	"manudrill/core/guitar"
)

// Weights say how much each part of the difficulty counts for an instructor.
type Weights struct {
	Stretch   float64            `json:"stretch"`
	Pairs     float64            `json:"pairs"`
	Crossings float64            `json:"crossings"`
	Skips     float64            `json:"skips"`
	Shifts    float64            `json:"shifts"`
	Speed     float64            `json:"speed"`
	Pair      map[string]float64 `json:"pair"` // how hard each pair of fingers is, 0 to 1
}

// UsualWeights count all parts the same, and hold the pairs of the ring and
// little finger for the hardest. Teachers differ here; that is why it can be set.
func UsualWeights() Weights {
	return Weights{
		Stretch: 1, Pairs: 1, Crossings: 1, Skips: 1, Shifts: 1, Speed: 1,
		Pair: map[string]float64{"12": 0.2, "23": 0.5, "34": 1, "13": 0.3, "24": 0.8, "14": 0.5},
	}
}

// Validate says what cannot be weights, or nil.
func (w Weights) Validate() error {
	for _, part := range []float64{w.Stretch, w.Pairs, w.Crossings, w.Skips, w.Shifts, w.Speed} {
		if !(part >= 0 && part <= 5) {
			return fmt.Errorf("a weight is %g; give 0 to 5", part)
		}
	}
	for pair, hard := range w.Pair {
		if !(hard >= 0 && hard <= 1) {
			return fmt.Errorf("the pair %s is set to %g; give 0 (easy) to 1 (hard)", pair, hard)
		}
	}
	return nil
}

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

// DifficultyOf weighs a chart at its tempo for a hand on a guitar.
func DifficultyOf(c Chart, g guitar.Guitar, h guitar.Hand, w Weights) Difficulty {
	m := measure(c.Notes, g, h, w)
	nps := c.NotesPerSecond()
	steps := float64(max(1, len(c.Notes)-1))
	d := Difficulty{Parts: []DifficultyPart{
		{"stretch", m.mean(m.stretch), w.Stretch, fmt.Sprintf("widest %.0f mm", m.widest)},
		{"pairs", m.mean(m.hardness), w.Pairs, fmt.Sprintf("%d finger changes", m.pairs)},
		{"crossings", tenths(float64(m.crossings) / steps), w.Crossings, fmt.Sprintf("%d of %d", m.crossings, len(c.Notes)-1)},
		{"skips", tenths(float64(m.skipped) / steps), w.Skips, counted(m.skipped, "string") + " skipped"},
		{"shifts", tenths(float64(m.shifted) / steps), w.Shifts, counted(m.shifted, "fret") + " moved"},
		{"speed", tenths(nps / hardNotesPerSecond), w.Speed, fmt.Sprintf("%.1f notes per second", nps)},
	}}
	sum, weights := 0.0, 0.0
	for _, p := range d.Parts {
		sum, weights = sum+p.Value*p.Weight, weights+p.Weight
	}
	if weights > 0 {
		d.Total = sum / weights
	}
	return d
}

func tenths(share float64) float64 { return 10 * max(0, min(1, share)) }

// motions are sums over neighbouring notes.
type motions struct {
	pairs                       int
	stretch, hardness, widest   float64
	crossings, skipped, shifted int
}

func (m motions) mean(sum float64) float64 { return 10 * sum / float64(max(1, m.pairs)) }

func measure(notes []Note, g guitar.Guitar, h guitar.Hand, w Weights) motions {
	var m motions
	for i := 1; i < len(notes); i++ {
		a, b := notes[i-1], notes[i]
		if away := max(a.String-b.String, b.String-a.String); away > 0 {
			m.crossings++
			m.skipped += away - 1
		}
		if a.Hand != FrettingHand || b.Hand != FrettingHand || a.Finger == 0 || b.Finger == 0 {
			continue
		}
		moved := b.Fret - b.Finger - (a.Fret - a.Finger)
		if a.Cell != b.Cell || a.Finger == b.Finger {
			m.shifted += max(moved, -moved)
			continue
		}
		m.pairs++
		m.hardness += w.Pair[fmt.Sprint(min(a.Finger, b.Finger)*10+max(a.Finger, b.Finger))]
		if span, known := h.Span(a.Finger, b.Finger); known {
			mm := g.Reach(a.Fret, b.Fret)
			m.widest = max(m.widest, mm)
			m.stretch += max(0, min(1, (mm/span-easyReach)/(hardReach-easyReach)))
		}
	}
	return m
}
