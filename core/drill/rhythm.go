package drill

import (
	"slices"

	"manudrill/core/drill/chart"
)

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

	Swing float64 `json:"swing,omitempty"` // share of the first of two notes in the time of both; straight where 0
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
	switch {
	case r.Swing == 0:
	case !(r.Swing >= 0.5 && r.Swing <= chart.MostSwing):
		faults.Add("rhythm.swing", "The first of two notes takes %g %% of their time; set it from 50, which is straight, to %g.", 100*r.Swing, 100*chart.MostSwing)
	case r.Swing > 0.5 && r.NotesPerBeat%2 != 0:
		faults.Add("rhythm.swing", "Only notes that share the beat by twos can be swung; choose 2, 4, 6 or 8 notes per beat, or straight notes.")
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
