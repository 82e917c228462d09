package drill

import (
	"encoding/json"
	"fmt"
	"strings"
)

// A Pattern is a rule that makes notes. It gives cells; the path carries them
// over the strings.
type Pattern interface {
	// Kind is the name the pattern has in JSON.
	Kind() string
	// Cells returns what is played on each string visited, one cell after the
	// other. It fails when the pattern's settings make no notes.
	Cells() ([]Cell, error)
}

// A Cell is a few notes on one string, by finger.
type Cell []Touch

// A Touch is one note of a cell.
type Touch struct {
	Finger int
	Attack Attack
}

// reader returns a fresh pattern of each kind to read JSON into.
var reader = map[string]func() Pattern{
	SlurCombinations{}.Kind(): func() Pattern { return &SlurCombinations{} },
	FingerPerFret{}.Kind():    func() Pattern { return &FingerPerFret{} },
}

func readPattern(raw json.RawMessage) (Pattern, error) {
	var head struct {
		Kind string `json:"kind"`
	}
	if err := json.Unmarshal(raw, &head); err != nil {
		return nil, fmt.Errorf("the pattern cannot be read: %w", err)
	}
	fresh, ok := reader[head.Kind]
	if !ok {
		return nil, fmt.Errorf("there is no pattern of the kind %q", head.Kind)
	}
	p := fresh()
	if err := json.Unmarshal(raw, p); err != nil {
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
	fields := map[string]json.RawMessage{}
	if err := json.Unmarshal(own, &fields); err != nil {
		return nil, err
	}
	if fields["kind"], err = json.Marshal(p.Kind()); err != nil {
		return nil, err
	}
	return json.Marshal(fields)
}

// checkFingers says what is wrong with a choice of fretting fingers: each must
// be 1 to 4, none twice, and there must be at least two.
func checkFingers(fingers []int, what string) error {
	if len(fingers) < 2 {
		return fmt.Errorf("%s needs at least two fingers; choose from fingers 1 to 4", what)
	}
	seen := map[int]bool{}
	for _, f := range fingers {
		if f < 1 || f > 4 {
			return fmt.Errorf("%s %s names finger %d; the fretting fingers are 1 (index) to 4 (little finger)", what, fingerList(fingers), f)
		}
		if seen[f] {
			return fmt.Errorf("%s %s uses finger %d twice; use each finger once", what, fingerList(fingers), f)
		}
		seen[f] = true
	}
	return nil
}

func fingerList(fingers []int) string {
	return strings.Trim(strings.ReplaceAll(fmt.Sprint(fingers), " ", "-"), "[]")
}
