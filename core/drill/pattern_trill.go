package drill

// Trill is two fingers, or a finger and the open string, in turn; the path's
// stay says for how long.
type Trill struct {
	Fingers []int `json:"fingers"`          // the one that begins first; 0 is the open string
	Either  bool  `json:"either,omitempty"` // then from the other one
}

// Kind returns "trill".
func (Trill) Kind() string { return "trill" }

// Cells returns the cell of two notes, and where both begin, that from the other too.
func (p Trill) Cells(Path) ([]Cell, error) {
	if err := checkFingers(p.Fingers, true, "the trill"); err != nil {
		return nil, err
	}
	cells := []Cell{onOneString(p.Fingers[:2])}
	if p.Either {
		cells = append(cells, onOneString([]int{p.Fingers[1], p.Fingers[0]}))
	}
	return cells, nil
}
