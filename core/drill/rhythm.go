package drill

import "slices"

// Divisions are the notes per beat a drill may have.
var Divisions = []int{1, 2, 3, 4, 6, 8}

// MaxPasses is the most passes a take may have.
const MaxPasses = 64

// Rhythm spaces the notes.
type Rhythm struct {
	NotesPerBeat int  `json:"notesPerBeat"`
	BeatsPerBar  int  `json:"beatsPerBar"`
	Passes       int  `json:"passes"` // times through the chart in one take
	Close        int  `json:"close"`  // notes added to a pass (its first ones again), or left out where negative
	Free         bool `json:"free"`   // as fast as it stays even: the click only counts in
}

func (r Rhythm) check(faults *Faults) {
	if !slices.Contains(Divisions, r.NotesPerBeat) {
		faults.Add("rhythm.notesPerBeat", "%d notes per beat is not offered; choose 1, 2, 3, 4, 6 or 8.", r.NotesPerBeat)
	}
	if r.BeatsPerBar < 1 || r.BeatsPerBar > 16 {
		faults.Add("rhythm.beatsPerBar", "A bar has 1 to 16 beats, not %d.", r.BeatsPerBar)
	}
	if r.Passes < 1 || r.Passes > MaxPasses {
		faults.Add("rhythm.passes", "A take has 1 to %d passes, not %d.", MaxPasses, r.Passes)
	}
	if r.Close < -64 || r.Close > 64 {
		faults.Add("rhythm.close", "Add or leave out at most 64 notes, not %d.", r.Close)
	}
}

// close adds the first notes of the last part at its end, or leaves out its last.
// At least one note stays.
func (r Rhythm) close(l line) line {
	if r.Close < 0 {
		return l[:max(1, len(l)+r.Close)]
	}
	for i := range r.Close {
		l = append(l, l[i%len(l)])
	}
	return l
}
