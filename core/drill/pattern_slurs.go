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
	AsWritten Slur = "asWritten" // in the order given: up a hammer-on, down a pull-off
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
func (p SlurCombinations) Cells(Path) ([]Cell, error) {
	if len(p.Combinations) == 0 {
		return nil, fmt.Errorf("choose at least one finger combination")
	}
	var cells []Cell
	for _, fingers := range p.Combinations {
		if p.Slur == AsWritten {
			if err := checkTurns(fingers); err != nil {
				return nil, err
			}
			cells = append(cells, onOneString(fingers))
			continue
		}
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
			return nil, fmt.Errorf("the slurs are %q; choose hammer, pull, both or asWritten", p.Slur)
		}
	}
	return cells, nil
}

// checkTurns says what is wrong with fingers in the order they are played: a finger may come
// again, but not twice in a row.
func checkTurns(fingers []int) error {
	if len(fingers) < 2 || len(fingers) > 16 {
		return fmt.Errorf("a combination has 2 to 16 fingers in the order played, such as 21 or 1314; %q has %d", Dashed(fingers), len(fingers))
	}
	for i, f := range fingers {
		if f < 0 || f > 4 {
			return fmt.Errorf("the combination %s names finger %d; the fingers are 1 (index) to 4 (little finger), 0 the open string", Dashed(fingers), f)
		}
		if i > 0 && f == fingers[i-1] {
			return fmt.Errorf("the combination %s has finger %d twice in a row; a slur needs two different fingers", Dashed(fingers), f)
		}
	}
	return nil
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
