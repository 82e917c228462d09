package drill

// Trill is two fingers, or a finger and the open string, in turn; the path's
// stay says for how long.
type Trill struct {
	Fingers []int `json:"fingers"` // the one that begins first; 0 is the open string
}

// Kind returns "trill".
func (Trill) Kind() string { return "trill" }

// Cells returns the one cell of two notes.
func (p Trill) Cells(int) ([]Cell, error) {
	if err := checkFingers(p.Fingers, true, "the trill"); err != nil {
		return nil, err
	}
	return []Cell{onOneString(p.Fingers[:2])}, nil
}
