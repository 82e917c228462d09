package drill

// FingerPerFret is the pattern of one finger per fret: the fingers in a chosen
// order, each note picked.
type FingerPerFret struct {
	Order []int `json:"order"` // two to four different fingers
}

// Kind returns "fingerPerFret".
func (FingerPerFret) Kind() string { return "fingerPerFret" }

// Cells returns the one cell of the order.
func (p FingerPerFret) Cells() ([]Cell, error) {
	if err := checkFingers(p.Order, "the finger order"); err != nil {
		return nil, err
	}
	cell := make(Cell, len(p.Order))
	for i, f := range p.Order {
		cell[i] = Touch{f, Pick}
	}
	return []Cell{cell}, nil
}
