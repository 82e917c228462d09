package guitar

// A ReachStep is how the reach of a pair of fingers is found: the two are put down so many
// frets apart, high on the neck first, where the frets are close, and lower from there for
// as long as it is comfortable.
type ReachStep struct {
	Pair   string       `json:"pair"`
	From   int          `json:"from"`  // finger on the lower fret
	To     int          `json:"to"`    // finger on the higher one
	Frets  int          `json:"frets"` // apart
	Places []ReachPlace `json:"places"`
}

// A ReachPlace is one place of a step, from the highest to the lowest.
type ReachPlace struct {
	Fret int     `json:"fret"` // of the lower finger
	MM   float64 `json:"mm"`   // between the two
}

// reachFrom is the fret of the lower finger at which a step begins: what is comfortable for
// any hand is comfortable there (common practice).
const reachFrom = 12

// ReachSteps are the steps by which a hand's reach is found on a guitar, the easiest pair
// first. Each pair is put one fret farther apart than one finger a fret would.
func (g Guitar) ReachSteps() []ReachStep {
	var steps []ReachStep
	for _, pair := range Pairs {
		from, to, _ := fingersOf(pair)
		s := ReachStep{Pair: pair, From: from, To: to, Frets: to - from + 1, Places: []ReachPlace{}}
		for fret := min(reachFrom, g.Frets-g.Capo-s.Frets); fret >= 1; fret-- {
			s.Places = append(s.Places, ReachPlace{fret, g.Reach(fret, fret+s.Frets)})
		}
		steps = append(steps, s)
	}
	return steps
}
