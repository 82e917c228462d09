// Package stand does on the student's device what the studio does while it is there: it
// writes the next rung out, and takes a routine from one moment to the next.
package stand

import (
	"encoding/json"
	"fmt"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/practice"
	"manudrill/core/tempo"
)

// A Rung to be written out for a guitar.
type Rung struct {
	Drill  drill.Drill   `json:"drill"`
	Guitar guitar.Guitar `json:"guitar"`
	Rung   tempo.Rung    `json:"rung"`
}

// Laid is a drill at a rung.
type Laid struct {
	Chart        drill.Chart `json:"chart"`
	BeatsPerPass float64     `json:"beatsPerPass"`
}

// Lay writes a drill out at a rung; question is a [Rung] in JSON.
func Lay(question []byte) (Laid, error) {
	var r Rung
	if err := json.Unmarshal(question, &r); err != nil {
		return Laid{}, fmt.Errorf("the drill cannot be read: %w", err)
	}
	chart, err := r.Drill.Divided(r.Rung.NotesPerBeat).Chart(r.Guitar, r.Rung.BPM)
	return Laid{chart, chart.Beats()}, err
}

// A Moment is a run of a routine, and what happens to it.
type Moment struct {
	Routine practice.Routine `json:"routine"`
	State   practice.State   `json:"state"`
	Event   practice.Event   `json:"event"`
}

// Step takes a run from one moment to the next; question is a [Moment] in JSON.
func Step(question []byte) (practice.Told, error) {
	var m Moment
	if err := json.Unmarshal(question, &m); err != nil {
		return practice.Told{}, fmt.Errorf("the routine cannot be read: %w", err)
	}
	if faults := m.Routine.Check(); len(faults) > 0 {
		return practice.Told{}, faults
	}
	if m.State.Item < 0 || m.State.Item > len(m.Routine.Items) {
		return practice.Told{}, fmt.Errorf("the routine has no item %d", m.State.Item)
	}
	return m.Routine.Tell(m.Routine.Step(m.State, m.Event), m.Event.At), nil
}
