// Package drillfile reads and writes drills as JSON documents; the form is
// described in docs/formats.md.
package drillfile

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"

	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/core/guitar"
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
		return File{}, errors.New("the drill document has more than 1 MB, which no drill needs; take in the file that the drill was saved as")
	}
	dec := json.NewDecoder(bytes.NewReader(document))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&f); err != nil {
		return File{}, fmt.Errorf("the drill document cannot be read: %w", err)
	}
	return f, nil
}

// Check returns all that is wrong with the drill on guitar g.
func (f File) Check(g guitar.Guitar) drill.Faults {
	faults := append(f.Drill.Check(g), f.Ladder.Check()...)
	if len(faults) == 0 {
		faults = f.Drill.CheckLength(g, f.Ladder.StartBPM)
	}
	return faults
}
