package tempo

// Climbing is what a ladder knows before a take.
type Climbing struct {
	Ladder       Ladder   `json:"ladder"`
	NotesPerBeat int      `json:"notesPerBeat"` // of the drill, by which the ladder is counted
	Results      []Result `json:"results"`      // of the takes before it at its rung that count, in order
}

// Decide answers a take at a rung, as [Ladder.Decide] does.
func (c Climbing) Decide(at Rung, take Result) Decision {
	return c.Ladder.Decide(at, c.NotesPerBeat, append(c.Results[:len(c.Results):len(c.Results)], take))
}
