// Package drillfile reads and writes drills as JSON documents; the form is
// described in docs/formats.md.
package drillfile

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/core/drill/review"
	"manudrill/core/guitar"
	"manudrill/core/setup"
	"manudrill/core/tempo"
)

// A File is a whole drill: what the hands do, and the tempo ladder it climbs.
type File struct {
	Drill  drill.Drill  `json:"drill"`
	Ladder tempo.Ladder `json:"ladder"`
}

// Read reads a drill document.
func Read(document []byte) (File, error) {
	var f File
	if len(document) > bounds.JSONBytes {
		return File{}, errors.New("the drill document has more than 1 MB, which no drill needs; import the file that the drill was saved as")
	}
	dec := json.NewDecoder(bytes.NewReader(bytes.TrimPrefix(document, []byte("\ufeff")))) // which some programs begin with
	dec.DisallowUnknownFields()
	if err := dec.Decode(&f); err != nil {
		return File{}, fmt.Errorf("the drill document cannot be read: %w", err)
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		return File{}, errors.New("after the drill document something else follows; import the file that the drill was saved as, unchanged")
	}
	return f, nil
}

// Rungs are those that the drill climbs; nil for a ladder with faults.
func (f File) Rungs() tempo.Rungs { return f.Ladder.Rungs(f.Drill.Rhythm.NotesPerBeat) }

// At returns the drill as it is played at a rung.
func (f File) At(r tempo.Rung) drill.Drill { return f.Drill.Divided(r.NotesPerBeat) }

// Check returns all that is wrong with the drill on guitar g. It must be playable
// at every rung of its ladder; what is wrong at one of them is told for the first.
func (f File) Check(g guitar.Guitar) drill.Faults {
	faults := append(f.Drill.Check(g), f.Ladder.Check(f.Drill.Rhythm.NotesPerBeat)...)
	if len(faults) > 0 {
		return faults
	}
	for _, r := range f.deciding() {
		if faults := f.At(r).CheckAt(g, r.BPM); len(faults) > 0 {
			return faults
		}
	}
	return nil
}

// Misfit looks at the drill with somebody's guitar and hand, at every rung, and
// reports whether it does not fit.
func (f File) Misfit(s setup.Setup) (review.Misfit, bool) {
	for _, r := range f.deciding() {
		if m, is := review.MisfitOf(f.At(r), s, r.BPM); is {
			return m, true
		}
	}
	return review.Misfit{}, false
}

// deciding are the rungs at which the drill must be looked at: all, where a stay of
// so many seconds has other notes at each; or else for each division of the click
// the slowest, at which a take lasts longest.
func (f File) deciding() (rungs tempo.Rungs) {
	seen := map[int]bool{}
	for _, r := range f.Rungs() {
		if f.Drill.HangsOnTempo() || !seen[r.NotesPerBeat] {
			rungs = append(rungs, r)
		}
		seen[r.NotesPerBeat] = true
	}
	return rungs
}
