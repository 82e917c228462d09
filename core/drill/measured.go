package drill

import (
	"fmt"
	"slices"

	"manudrill/core/drill/chart"
)

// Measured says how a pattern's places are meant: as distances from the position, so that
// they move with it, or as frets of the neck, as "tap 12" is said.
type Measured struct {
	AtFrets bool `json:"atFrets,omitempty"`
}

// at is the place that a number means.
func (m Measured) at(n int) Place {
	if m.AtFrets {
		return Place{AtFret, n}
	}
	return Place{ByHand, n}
}

// tapped returns the touch of the tapping hand at a number.
func (m Measured) tapped(str, n int) Touch {
	return Touch{String: str, At: m.at(n), Hand: chart.TappingHand}
}

// from is the number of what lies so many frets above a path's position.
func (m Measured) from(p Path, frets int) int {
	if m.AtFrets {
		return p.Position + frets
	}
	return frets
}

// between says of two numbers what they mean.
func (m Measured) between(low, high int) string {
	if m.AtFrets {
		return fmt.Sprintf("fret %d to %d", low, high)
	}
	return fmt.Sprintf("%d to %d frets above the position", low, high)
}

// movable are patterns that hold frets of the neck.
type movable interface {
	// moved returns the pattern so many frets further up.
	moved(frets int) Pattern
}

// movedPattern is the pattern so many frets further up, where it lies by frets.
func movedPattern(p Pattern, frets int) Pattern {
	if m, ok := p.(movable); ok {
		return m.moved(frets)
	}
	return p
}

func (m Measured) shift(frets int) int {
	if m.AtFrets {
		return frets
	}
	return 0
}

func (m Measured) shifted(list []int, frets int) []int {
	out := slices.Clone(list)
	for i := range out {
		out[i] += m.shift(frets)
	}
	return out
}

func (p Tapping) moved(frets int) Pattern {
	p.TapAt += p.shift(frets)
	return p
}

func (p BentTaps) moved(frets int) Pattern {
	p.Taps = p.shifted(p.Taps, frets)
	return p
}

func (p TwoHands) moved(frets int) Pattern {
	p.Fretted, p.Tapped = p.shifted(p.Fretted, frets), p.shifted(p.Tapped, frets)
	return p
}

func (p TwoStringShape) moved(frets int) Pattern {
	p.Lower, p.Higher = p.shifted(p.Lower, frets), p.shifted(p.Higher, frets)
	return p
}

func (p ChordShape) moved(frets int) Pattern {
	p.Shape, p.Leaps = slices.Clone(p.Shape), slices.Clone(p.Leaps)
	for i := range p.Shape {
		p.Shape[i].Fret += p.shift(frets)
	}
	for i := range p.Leaps {
		p.Leaps[i].Fret += p.shift(frets)
	}
	return p
}

func (p SkipArpeggio) moved(frets int) Pattern {
	if p.ExtraAt != nil {
		at := *p.ExtraAt
		at.Fret += frets
		p.ExtraAt = &at
	}
	return p
}
