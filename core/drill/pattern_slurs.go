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
	Combinations [][]int `json:"combinations"` // two to four fingers each, 0 the open string, in any order
	Slur         Slur    `json:"slur"`
}

// Kind returns "slurCombinations".
func (SlurCombinations) Kind() string { return "slurCombinations" }

// Cells returns one cell for each combination. Hammer-ons run up the fingers,
// pull-offs down, both run up and back down to the lowest finger.
func (p SlurCombinations) Cells(int) ([]Cell, error) {
	if len(p.Combinations) == 0 {
		return nil, fmt.Errorf("choose at least one finger combination")
	}
	var cells []Cell
	for _, fingers := range p.Combinations {
		if err := checkFingers(fingers, true, "the finger combination"); err != nil {
			return nil, err
		}
		up := slices.Sorted(slices.Values(fingers))
		down := slices.Clone(up)
		slices.Reverse(down)
		switch p.Slur {
		case HammerOns:
			cells = append(cells, onOneString(up))
		case PullOffs:
			cells = append(cells, onOneString(down))
		case BothSlurs:
			cells = append(cells, onOneString(append(up, down[1:]...)))
		default:
			return nil, fmt.Errorf("the slurs are %q; choose hammer, pull or both", p.Slur)
		}
	}
	return cells, nil
}

// A CombinationSet is a choice of combinations that goes together.
type CombinationSet struct {
	Name         string  `json:"name"`
	Combinations [][]int `json:"combinations"`
}

// CombinationSets are the sets teachers use: in graded order, grouped by the
// finger that stays, with the open string, or all.
func CombinationSets() []CombinationSet {
	graded := [][]int{{1, 2}, {2, 3}, {3, 4}, {1, 3}, {1, 4}, {2, 4}, {1, 2, 3}, {1, 2, 3, 4}}
	all := append(slices.Clone(graded[:7]), []int{2, 3, 4}, []int{1, 2, 4}, []int{1, 3, 4}, []int{1, 2, 3, 4})
	return []CombinationSet{
		{"graded", graded},
		{"finger 1 stays", [][]int{{1, 2}, {1, 3}, {1, 4}}},
		{"finger 2 stays", [][]int{{2, 3}, {2, 4}}},
		{"finger 3 stays", [][]int{{3, 4}}},
		{"open string", [][]int{{0, 1}, {0, 2}, {0, 3}, {0, 4}}},
		{"all", all},
	}
}
