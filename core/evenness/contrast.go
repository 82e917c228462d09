package evenness

import (
	"errors"
	"math"

	"manudrill/core/drill/chart"
	"manudrill/core/follow"
	"manudrill/core/stats"
)

// A Contrast sets two takes of the same notes side by side: last month's and
// today's, or picked and slurred.
type Contrast struct {
	Differences []Difference `json:"differences"`
	Transitions []Change     `json:"transitions"`
	Places      []Place      `json:"places"` // one for each note of the chart
}

// A Difference is one figure of both takes.
type Difference struct {
	About  string  `json:"about"` // spreadMs, spreadPercent, levelSpreadDb, rightPercent, bpm or soundingPercent
	Before float64 `json:"before"`
	After  float64 `json:"after"`
	Sure   bool    `json:"sure"`   // more than chance, at 95 %
	Better bool    `json:"better"` // the later one, where sure
}

// A Change is what became of a step from finger to finger.
type Change struct {
	From   int     `json:"from"`
	To     int     `json:"to"`
	Before float64 `json:"before"` // mean, ms late
	After  float64 `json:"after"`
	Sure   bool    `json:"sure"`
	Better bool    `json:"better"`
}

// A Place is what a note of the chart is in either take.
type Place struct {
	Before Habit `json:"before"`
	After  Habit `json:"after"`
}

// A Habit is how a note comes on the mean over the passes in which it was played
// right; nothing where there was none.
type Habit struct {
	Count       int     `json:"count"`
	DeviationMs float64 `json:"deviationMs"`     // late is positive
	LevelDB     float64 `json:"relativeLevelDb"` // against the take's mean
	Uneven      bool    `json:"uneven"`          // heard as early or late
	Stands      bool    `json:"stands"`          // heard as loud or soft
}

// soundingStep is how many points of sounding share are worth a word.
const soundingStep = 3

// ErrOtherNotes says that two takes are not of the same notes.
var ErrOtherNotes = errors.New("these two takes are not of the same notes, so they cannot be set side by side; choose another take of this drill, picked or slurred")

// Compare sets two takes side by side, the earlier one first. They must be of the
// same frets on the same strings, however they are attacked.
func Compare(before, after Analysis, a, b chart.Chart) (Contrast, error) {
	if !sameNotes(a, b) {
		return Contrast{}, ErrOtherNotes
	}
	c := Contrast{Differences: []Difference{
		spreads("spreadMs", before.Timing.SpreadMs, after.Timing.SpreadMs, before.Counts.Played, after.Counts.Played),
		spreads("spreadPercent", before.Timing.SpreadPercent, after.Timing.SpreadPercent, before.Counts.Played, after.Counts.Played),
		spreads("levelSpreadDb", before.Level.SpreadDB, after.Level.SpreadDB, before.Counts.Played, after.Counts.Played),
		shares("rightPercent", before.Counts, after.Counts),
		{About: "bpm", Before: before.Tempo.BPM, After: after.Tempo.BPM},
	}}
	if s, t := before.Connection.SoundingPercent, after.Connection.SoundingPercent; s != nil && t != nil {
		d := Difference{About: "soundingPercent", Before: s.Value, After: t.Value}
		d.Sure = math.Abs(t.Value-s.Value) > max(soundingStep, math.Hypot(s.PlusMinus, t.PlusMinus))
		d.Better = d.Sure && t.Value > s.Value
		c.Differences = append(c.Differences, d)
	}
	c.Transitions = changes(before.Transitions, after.Transitions)
	for i := range a.Notes {
		c.Places = append(c.Places, Place{habit(before, i, len(a.Notes)), habit(after, i, len(a.Notes))})
	}
	return c, nil
}

// habit is that of the chart note at index i of each pass of so many notes.
func habit(a Analysis, i, size int) Habit {
	var late, loud []float64
	for ; i < len(a.Notes); i += size {
		if n := a.Notes[i]; n.Status == follow.Played {
			late, loud = append(late, *n.DeviationMs), append(loud, *n.RelativeLevel)
		}
	}
	h := Habit{Count: len(late), DeviationMs: stats.Mean(late), LevelDB: stats.Mean(loud)}
	h.Uneven = math.Abs(h.DeviationMs) > a.Timing.AudibleMs
	h.Stands = math.Abs(h.LevelDB) > a.Level.AudibleDB
	return h
}

func sameNotes(a, b chart.Chart) bool {
	if len(a.Notes) != len(b.Notes) {
		return false
	}
	for i, n := range a.Notes {
		if m := b.Notes[i]; n.String != m.String || n.Fret != m.Fret {
			return false
		}
	}
	return true
}

// spreads compares two standard deviations by the F distribution of the ratio of
// their squares, both sides.
func spreads(about string, before, after float64, n, m int) Difference {
	d := Difference{About: about, Before: before, After: after}
	if n < Fewest || m < Fewest || before <= 0 || after <= 0 {
		return d
	}
	larger, smaller, k, l := before, after, n-1, m-1
	if after > before {
		larger, smaller, k, l = after, before, m-1, n-1
	}
	d.Sure = stats.FSurvival(larger*larger/(smaller*smaller), float64(k), float64(l)) < 0.025
	d.Better = d.Sure && after < before
	return d
}

// shares compares two shares of right notes by the normal approximation.
func shares(about string, before, after Counts) Difference {
	p, q := rightShare(before), rightShare(after)
	d := Difference{About: about, Before: 100 * p, After: 100 * q}
	n, m := float64(max(1, before.Expected)), float64(max(1, after.Expected))
	error := 1.96 * math.Sqrt(p*(1-p)/n+q*(1-q)/m)
	d.Sure = math.Abs(q-p) > error && math.Abs(q-p) > 0
	d.Better = d.Sure && q > p
	return d
}

func rightShare(c Counts) float64 { return float64(c.Played) / float64(max(1, c.Expected+c.Extra)) }

// changes pairs the steps that both takes have, whatever the attack.
func changes(before, after []Transition) []Change {
	out := []Change{}
	for _, t := range after {
		for _, s := range before {
			if s.From != t.From || s.To != t.To {
				continue
			}
			c := Change{From: t.From, To: t.To, Before: s.MeanMs, After: t.MeanMs}
			c.Sure = s.PlusMinusMs > 0 && t.PlusMinusMs > 0 && math.Abs(t.MeanMs-s.MeanMs) > math.Hypot(s.PlusMinusMs, t.PlusMinusMs)
			c.Better = c.Sure && math.Abs(t.MeanMs) < math.Abs(s.MeanMs)
			out = append(out, c)
			break
		}
	}
	return out
}
