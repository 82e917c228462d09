package drill

import (
	"fmt"
	"slices"
)

// Slur says which way the fingers of a combination go.
type Slur string

// Up by hammer-ons, down by pull-offs, or up and back down.
const (
	HammerOns Slur = "hammer"
	PullOffs  Slur = "pull"
	BothSlurs Slur = "both"
)

// SlurCombinations is the pattern of finger-combination slurs: one stroke
// starts each combination, the other fingers follow by hammer-on or pull-off.
type SlurCombinations struct {
	Combinations [][]int `json:"combinations"` // two to four fingers each, in any order
	Slur         Slur    `json:"slur"`
}

// Kind returns "slurCombinations".
func (SlurCombinations) Kind() string { return "slurCombinations" }

// Cells returns one cell for each combination. Hammer-ons run up the fingers,
// pull-offs down, both run up and back down to the lowest finger.
func (p SlurCombinations) Cells() ([]Cell, error) {
	if len(p.Combinations) == 0 {
		return nil, fmt.Errorf("choose at least one finger combination")
	}
	cells := make([]Cell, 0, len(p.Combinations))
	for _, fingers := range p.Combinations {
		if err := checkFingers(fingers, "the finger combination"); err != nil {
			return nil, err
		}
		up := slices.Sorted(slices.Values(fingers))
		switch p.Slur {
		case HammerOns:
			cells = append(cells, chain(up, Hammer))
		case PullOffs:
			slices.Reverse(up)
			cells = append(cells, chain(up, Pull))
		case BothSlurs:
			down := slices.Clone(up[:len(up)-1])
			slices.Reverse(down)
			cell := chain(up, Hammer)
			for _, f := range down {
				cell = append(cell, Touch{f, Pull})
			}
			cells = append(cells, cell)
		default:
			return nil, fmt.Errorf("the slurs are %q; choose hammer, pull or both", p.Slur)
		}
	}
	return cells, nil
}

// chain picks the first finger and slurs the rest.
func chain(fingers []int, slur Attack) Cell {
	cell := Cell{{fingers[0], Pick}}
	for _, f := range fingers[1:] {
		cell = append(cell, Touch{f, slur})
	}
	return cell
}
