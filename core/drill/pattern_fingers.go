package drill

import "fmt"

// FingerPerFret is the pattern of one finger per fret: the fingers on one
// string in one or more orders.
type FingerPerFret struct {
	Orders [][]int `json:"orders"` // two to four different fingers each
}

// Kind returns "fingerPerFret".
func (FingerPerFret) Kind() string { return "fingerPerFret" }

// Cells returns one cell for each order.
func (p FingerPerFret) Cells(Path) ([]Cell, error) {
	return eachOrder(p.Orders, func(order []int) (Cell, error) {
		return onOneString(order), checkFingers(order, false, "the finger order")
	})
}

// FingerOrders returns the 24 orders of four fingers, lowest first.
func FingerOrders() [][]int {
	var orders [][]int
	var place func(done, left []int)
	place = func(done, left []int) {
		if len(left) == 0 {
			orders = append(orders, append([]int{}, done...))
		}
		for i, f := range left {
			rest := append(append([]int{}, left[:i]...), left[i+1:]...)
			place(append(done, f), rest)
		}
	}
	place(nil, []int{1, 2, 3, 4})
	return orders
}

// Diagonal is one note a string over three or four strings.
type Diagonal struct {
	Orders [][]int `json:"orders"` // three or four different fingers each, one a string
}

// Kind returns "diagonal".
func (Diagonal) Kind() string { return "diagonal" }

// Cells returns one cell for each order.
func (p Diagonal) Cells(Path) ([]Cell, error) {
	return eachOrder(p.Orders, func(order []int) (Cell, error) {
		if len(order) < 3 {
			return nil, fmt.Errorf("a diagonal takes three or four fingers, one a string; %s has %d", Dashed(order), len(order))
		}
		cell := make(Cell, len(order))
		for i, f := range order {
			cell[i] = finger(i, f)
		}
		return cell, checkFingers(order, false, "the diagonal")
	})
}

// StringPair is a finger order laid on two strings in turn; the path's spread
// lets the strings move apart.
type StringPair struct {
	Orders [][]int `json:"orders"` // two to four different fingers each
}

// Kind returns "stringPair".
func (StringPair) Kind() string { return "stringPair" }

// Cells returns one cell for each order, the first finger on the first string.
func (p StringPair) Cells(Path) ([]Cell, error) {
	return eachOrder(p.Orders, func(order []int) (Cell, error) {
		cell := make(Cell, len(order))
		for i, f := range order {
			cell[i] = finger(i%2, f)
		}
		return cell, checkFingers(order, false, "the finger order")
	})
}

// OpenStrings sets fretted notes among open ones on one string, for both hands
// to meet: one fretted and two open notes, and the like.
type OpenStrings struct {
	Fingers []int `json:"fingers"` // in the order played; 0 is the open string
}

// Kind returns "openStrings".
func (OpenStrings) Kind() string { return "openStrings" }

// Cells returns the one cell.
func (p OpenStrings) Cells(Path) ([]Cell, error) {
	if len(p.Fingers) < 2 || len(p.Fingers) > 32 {
		return nil, fmt.Errorf("give 2 to 32 notes, such as 1-0-0, with 0 for the open string")
	}
	for _, f := range p.Fingers {
		if f < 0 || f > 4 {
			return nil, fmt.Errorf("%s names finger %d; the fingers are 1 to 4, and 0 for the open string", Dashed(p.Fingers), f)
		}
	}
	return []Cell{onOneString(p.Fingers)}, nil
}
