package evenness

import (
	"manudrill/core/drill/chart"
	"manudrill/core/follow"
	"manudrill/core/tempo"
)

// A Connection is how the notes join.
type Connection struct {
	SoundingPercent *Figure `json:"soundingPercent,omitempty"` // share of the interval in which a note sounds
	Gaps            int     `json:"gaps"`                      // notes that end audibly before the next
	GapsOf          int     `json:"gapsOf"`                    // of so many that can be told
	Ringing         int     `json:"ringing"`                   // strings left behind that ring on under the next note
	RingingOf       int     `json:"ringingOf"`
	BendCents       *Figure `json:"bendCents,omitempty"` // pitch before pull-offs against the note's own
	Bent            int     `json:"bent"`                // pull-offs before which the string was dragged aside
	BentOf          int     `json:"bentOf"`
}

// What makes a gap: so long, and so much of the interval.
const (
	gapSeconds = 0.03
	gapShare   = 0.15
)

// bentCents is how far a string must be dragged to be heard, about a tenth of a
// semitone for a short note (common practice).
const bentCents = 15

func connectionOf(steps []step) Connection {
	var c Connection
	c.SoundingPercent = meanOf(values(steps, func(s step) (float64, bool) {
		share, known := s.sounding()
		return 100 * share, known
	}))
	for _, s := range steps {
		if _, known := s.sounding(); known {
			c.GapsOf++
			c.Gaps += one(s.gaps())
		}
		if rings, known := s.rings(); known {
			c.RingingOf++
			c.Ringing += one(rings)
		}
		if s.pulls() {
			c.BentOf++
			c.Bent += one(s.from.Heard.Bend > bentCents)
		}
	}
	c.BendCents = meanOf(values(steps, func(s step) (float64, bool) { return s.from.Heard.Bend, s.pulls() }))
	return c
}

// connectionsOf are those of each of so many passes of a size, in notes.
func connectionsOf(steps []step, size, passes int) []Connection {
	of := make([][]step, passes)
	for _, s := range steps {
		if p := s.to.Index / size; p < passes {
			of[p] = append(of[p], s)
		}
	}
	out := make([]Connection, passes)
	for p := range out {
		out[p] = connectionOf(of[p])
	}
	return out
}

// into puts what a gate asks of how notes join into the figures of a pass.
func (c Connection) into(f *tempo.PassFigures) {
	percent := func(n, of int) float64 {
		if of < Fewest {
			return 0
		}
		return 100 * float64(n) / float64(of)
	}
	f.GapsPercent, f.RingingPercent, f.BentPercent = percent(c.Gaps, c.GapsOf), percent(c.Ringing, c.RingingOf), percent(c.Bent, c.BentOf)
}

func one(yes bool) int {
	if yes {
		return 1
	}
	return 0
}

// gaps reports whether there is silence before the second note.
func (s step) gaps() bool {
	share, known := s.sounding()
	return known && 1-share > gapShare && s.to.Heard.Onset-s.from.Heard.End > gapSeconds
}

// pulls reports whether the second note is pulled off.
func (s step) pulls() bool { return s.to.Chart.Attack == chart.Pull && s.strings() == 0 }

// Slurs sets slurred notes against picked ones.
type Slurs struct {
	LevelDB *Figure `json:"levelDb,omitempty"` // slurred less picked
	LateMs  *Figure `json:"lateMs,omitempty"`  // intervals into slurred notes less those into picked ones
}

func slursOf(t follow.Take, steps []step) Slurs {
	var slurred, picked []float64
	for _, m := range t.Matches {
		switch {
		case m.Status != follow.Played:
		case m.Chart.Attack.Slurred():
			slurred = append(slurred, m.Heard.LevelDB)
		case m.Chart.Attack == chart.Pick:
			picked = append(picked, m.Heard.LevelDB)
		}
	}
	late := func(slurs bool) []float64 {
		return values(steps, func(s step) (float64, bool) {
			a := s.to.Chart.Attack
			return s.excessMs, slurs && a.Slurred() || !slurs && a == chart.Pick
		})
	}
	return Slurs{differenceOf(slurred, picked), differenceOf(late(true), late(false))}
}
