package listen

import "math"

// A Struck is a note that an instrument tells of itself, without being listened to.
type Struck struct {
	On       float64 `json:"on"`       // s
	Off      float64 `json:"off"`      // s; 0 where it is not let go
	MIDI     int     `json:"midi"`     // its pitch
	Velocity int     `json:"velocity"` // 1 to 127
}

// carriedFrom is how far into a note the one before must be held to ring on in it, in
// seconds, as [Carry] counts it.
const carriedFrom = 0.040

// FromStruck are notes as they were struck, which must be in order. Velocity becomes level
// by its square (common practice): 127 is full scale. What still sounds from the note
// before is what was told of it.
func FromStruck(struck []Struck) []Note {
	notes := make([]Note, 0, len(struck))
	for i, s := range struck {
		n := Note{
			Onset: s.On, Pitch: float64(s.MIDI), LevelDB: 40 * math.Log10(float64(max(1, s.Velocity))/127),
		}
		end := s.Off
		if i+1 < len(struck) && (end == 0 || end > struck[i+1].On) {
			end = struck[i+1].On
		}
		n.End = max(end, s.On)
		if i > 0 {
			n.Carry = Carry{Known: true, DB: -60}
			if struck[i-1].Off > s.On+carriedFrom {
				n.Carry.DB = 0
			}
		}
		notes = append(notes, n)
	}
	return notes
}
