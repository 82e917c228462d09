package tempo

// Climbing is what a ladder knows before a take.
type Climbing struct {
	Ladder       Ladder   `json:"ladder"`
	NotesPerBeat int      `json:"notesPerBeat"` // of the drill, by which the ladder is counted
	Results      []Result `json:"results"`      // of the takes before it at its rung that count, in order
	Hurt         bool     `json:"hurt"`         // the student has reported pain
}

// Decide answers a take at a rung, as [Ladder.Decide] does; who has reported pain does
// not climb.
func (c Climbing) Decide(at Rung, take Result) Decision {
	d := c.Ladder.Decide(at, c.NotesPerBeat, append(c.Results[:len(c.Results):len(c.Results)], take))
	if c.Hurt {
		return d.WithPain()
	}
	return d
}

// After is what the ladder knows once it has decided on a take: a move begins anew, and
// a take that counts for nothing leaves things as they are.
func (c Climbing) After(d Decision, take Result) Climbing {
	switch {
	case d.Next != d.At:
		c.Results = []Result{}
	case d.Counts:
		results := append(c.Results[:len(c.Results):len(c.Results)], take)
		c.Results = results[max(0, len(results)-LooksBack+1):]
	}
	return c
}
