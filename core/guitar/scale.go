package guitar

import (
	"fmt"
	"slices"
)

// A Scale is a set of notes within the octave, or the notes of a chord laid out
// the same way.
type Scale struct {
	ID        string `json:"id"`
	Name      string `json:"name"`
	Intervals []int  `json:"intervals"` // semitones above the root, rising from 0
}

// OwnScale is the scale id of a key whose intervals are its own.
const OwnScale = "own"

// Scales are the named ones (common practice: twelve-tone equal temperament,
// melodic minor as it ascends).
var Scales = []Scale{
	{"major", "major", []int{0, 2, 4, 5, 7, 9, 11}},
	{"dorian", "dorian", []int{0, 2, 3, 5, 7, 9, 10}},
	{"phrygian", "phrygian", []int{0, 1, 3, 5, 7, 8, 10}},
	{"lydian", "lydian", []int{0, 2, 4, 6, 7, 9, 11}},
	{"mixolydian", "mixolydian", []int{0, 2, 4, 5, 7, 9, 10}},
	{"naturalMinor", "natural minor", []int{0, 2, 3, 5, 7, 8, 10}},
	{"locrian", "locrian", []int{0, 1, 3, 5, 6, 8, 10}},
	{"harmonicMinor", "harmonic minor", []int{0, 2, 3, 5, 7, 8, 11}},
	{"melodicMinor", "melodic minor", []int{0, 2, 3, 5, 7, 9, 11}},
	{"majorPentatonic", "major pentatonic", []int{0, 2, 4, 7, 9}},
	{"minorPentatonic", "minor pentatonic", []int{0, 3, 5, 7, 10}},
	{"blues", "blues", []int{0, 3, 5, 6, 7, 10}},
	{"chromatic", "chromatic", []int{0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11}},
	{"majorTriad", "major chord", []int{0, 4, 7}},
	{"minorTriad", "minor chord", []int{0, 3, 7}},
	{"diminishedTriad", "diminished chord", []int{0, 3, 6}},
	{"augmentedTriad", "augmented chord", []int{0, 4, 8}},
	{"major7", "major seventh chord", []int{0, 4, 7, 11}},
	{"dominant7", "dominant seventh chord", []int{0, 4, 7, 10}},
	{"minor7", "minor seventh chord", []int{0, 3, 7, 10}},
	{"halfDiminished7", "half-diminished chord", []int{0, 3, 6, 10}},
	{"diminished7", "diminished seventh chord", []int{0, 3, 6, 9}},
}

// A Key is a scale on a root. Its degrees are counted through all octaves.
type Key struct {
	Root      int    `json:"root"`                // pitch class, 0 is C
	Scale     string `json:"scale"`               // the id of one of Scales, or OwnScale
	Intervals []int  `json:"intervals,omitempty"` // of OwnScale
	Spelled   string `json:"spelled,omitempty"`   // the root: WithSharps, WithFlats, or whichever has fewer signs
}

// How a root that is a black key is spelled.
const (
	WithSharps = "sharp"
	WithFlats  = "flat"
)

// Validate says what cannot be a key, or nil.
func (k Key) Validate() error {
	if k.Root < 0 || k.Root > 11 {
		return fmt.Errorf("the root is %d; give a pitch class from 0 (C) to 11 (B)", k.Root)
	}
	if k.Spelled != "" && k.Spelled != WithSharps && k.Spelled != WithFlats {
		return fmt.Errorf("the root is spelled %q; choose %s or %s", k.Spelled, WithSharps, WithFlats)
	}
	steps := k.steps()
	if steps == nil {
		return fmt.Errorf("there is no scale %q; choose one of the list, or %q with its intervals", k.Scale, OwnScale)
	}
	if len(steps) < 2 || steps[0] != 0 || steps[len(steps)-1] > 11 || !rising(steps) {
		return fmt.Errorf("a scale of one's own rises from 0 within 11 semitones with at least two notes, like 0 2 3 7; this one is %v", steps)
	}
	return nil
}

func rising(steps []int) bool {
	for i := 1; i < len(steps); i++ {
		if steps[i] <= steps[i-1] {
			return false
		}
	}
	return true
}

// steps returns the intervals of the key's scale, nil for an unknown one.
func (k Key) steps() []int {
	if k.Scale == OwnScale {
		return append([]int{}, k.Intervals...)
	}
	i := slices.IndexFunc(Scales, func(s Scale) bool { return s.ID == k.Scale })
	if i < 0 {
		return nil
	}
	return Scales[i].Intervals
}

// Size returns the number of notes in an octave of the key.
func (k Key) Size() int { return len(k.steps()) }

// Degree returns the MIDI note of degree d; degree 0 is the root in the lowest
// MIDI octave, and one octave has Size degrees. The key must be valid.
func (k Key) Degree(d int) int {
	steps := k.steps()
	octave, within := d/len(steps), d%len(steps)
	if within < 0 {
		octave, within = octave-1, within+len(steps)
	}
	return 12*octave + k.Root + steps[within]
}

// DegreeFrom returns the lowest degree that sounds at or above a MIDI note.
func (k Key) DegreeFrom(midi int) int {
	d := k.Size() * ((midi-k.Root)/12 - 1)
	for k.Degree(d) < midi {
		d++
	}
	return d
}

// RootFrom returns the lowest degree at or above one that is a root.
func (k Key) RootFrom(degree int) int {
	size := k.Size()
	return degree + ((-degree)%size+size)%size
}

// Name spells the key: "A minor pentatonic".
func (k Key) Name() string {
	root := PitchClassName(k.Root)
	if k.Spelled == WithFlats {
		root = withFlats[k.Root].name()
	}
	i := slices.IndexFunc(Scales, func(s Scale) bool { return s.ID == k.Scale })
	if i < 0 {
		return root + " scale of one's own"
	}
	return root + " " + Scales[i].Name
}
