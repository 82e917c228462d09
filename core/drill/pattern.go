package drill

import (
	"encoding/json"
	"fmt"
	"strings"
)

// A Pattern is a rule that makes notes. It gives cells; the path carries them
// over the strings and along the neck.
type Pattern interface {
	// Kind is the name the pattern has in JSON.
	Kind() string
	// Cells returns what is played, one cell after the other, on the strings of a path, and
	// turning as it turns. It fails when the pattern's settings make no notes.
	Cells(path Path) ([]Cell, error)
}

// patterns returns a fresh pattern of each kind to read JSON into.
var patterns = []func() Pattern{
	func() Pattern { return &SlurCombinations{} },
	func() Pattern { return &Trill{} },
	func() Pattern { return &FingerPerFret{} },
	func() Pattern { return &Diagonal{} },
	func() Pattern { return &StringPair{} },
	func() Pattern { return &ScaleRun{} },
	func() Pattern { return &MixedRun{} },
	func() Pattern { return &OneString{} },
	func() Pattern { return &Tapping{} },
	func() Pattern { return &TwoHands{} },
	func() Pattern { return &BentTaps{} },
	func() Pattern { return &TwoStringShape{} },
	func() Pattern { return &OpenStrings{} },
	func() Pattern { return &Triad{} },
	func() Pattern { return &ChordShape{} },
	func() Pattern { return &SkipArpeggio{} },
	func() Pattern { return &Free{} },
}

func freshPattern(kind string) (Pattern, bool) {
	for _, fresh := range patterns {
		if p := fresh(); p.Kind() == kind {
			return p, true
		}
	}
	return nil, false
}

func readPattern(raw json.RawMessage) (Pattern, error) {
	var head struct {
		Kind string `json:"kind"`
	}
	if err := json.Unmarshal(raw, &head); err != nil {
		return nil, fmt.Errorf("the pattern cannot be read: %w", err)
	}
	p, ok := freshPattern(head.Kind)
	if !ok {
		return nil, fmt.Errorf("there is no pattern of the kind %q", head.Kind)
	}
	fields := map[string]json.RawMessage{}
	if err := json.Unmarshal(raw, &fields); err != nil {
		return nil, err
	}
	delete(fields, "kind")
	own, err := json.Marshal(fields)
	if err != nil {
		return nil, err
	}
	if err := strict(own, p); err != nil {
		return nil, fmt.Errorf("the pattern %q cannot be read: %w", head.Kind, err)
	}
	return p, nil
}

// writePattern adds the pattern's kind to its own fields.
func writePattern(p Pattern) (json.RawMessage, error) {
	own, err := json.Marshal(p)
	if err != nil {
		return nil, err
	}
	out := fmt.Appendf(nil, `{"kind":%q`, p.Kind()) // kinds are plain words
	if rest := own[1:]; len(rest) > 1 {
		out = append(out, ',')
	}
	return append(out, own[1:]...), nil
}

// checkFingers says what is wrong with a choice of fretting fingers: each must
// be 1 to 4, or 0 for the open string where that is allowed; none twice; two at
// least.
func checkFingers(fingers []int, open bool, what string) error {
	if len(fingers) < 2 {
		return fmt.Errorf("%s needs at least two fingers; choose from fingers 1 to 4", what)
	}
	seen := map[int]bool{}
	for _, f := range fingers {
		if f < 0 || f > 4 || f == 0 && !open {
			return fmt.Errorf("%s %s names finger %d; the fretting fingers are 1 (index) to 4 (little finger)", what, Dashed(fingers), f)
		}
		if seen[f] {
			return fmt.Errorf("%s %s uses finger %d twice; use each finger once", what, Dashed(fingers), f)
		}
		seen[f] = true
	}
	return nil
}

// Dashed writes fingers as 1-3-4.
func Dashed(fingers []int) string {
	return strings.Trim(strings.ReplaceAll(fmt.Sprint(fingers), " ", "-"), "[]")
}

// eachOrder makes a cell of every order with make.
func eachOrder(orders [][]int, cell func(order []int) (Cell, error)) ([]Cell, error) {
	if len(orders) == 0 {
		return nil, fmt.Errorf("choose at least one finger order")
	}
	var cells []Cell
	for _, order := range orders {
		c, err := cell(order)
		if err != nil {
			return nil, err
		}
		cells = append(cells, c)
	}
	return cells, nil
}
