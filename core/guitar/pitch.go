package guitar

import (
	"fmt"
	"math"
	"strings"
)

// A4 is the MIDI note number of the tuning reference, 440 Hz.
const A4 = 69

// Frequency returns the pitch of a MIDI note number in Hz. Fractions of a note
// number are cents: 69.5 is a quarter tone above A4.
func Frequency(midi float64) float64 {
	return 440 * math.Exp2((midi-A4)/12)
}

// MIDI returns the note number, with its fraction, of a frequency in Hz. The
// frequency must be positive.
func MIDI(hz float64) float64 {
	return A4 + 12*math.Log2(hz/440)
}

// PitchClassName spells a pitch class, 0 being C, with sharps.
func PitchClassName(class int) string { return withSharps[((class%12)+12)%12].name() }

// NoteName spells a MIDI note with sharps and its octave: 69 is A4, 60 is C4.
func NoteName(midi int) string {
	return fmt.Sprintf("%s%d", PitchClassName(midi), midi/12-1)
}

// NoteNumber reads a note name with its octave, such as "E2" or "F#4" or "B♭3".
// It returns -1 for what is none.
func NoteNumber(name string) int {
	s, ok := ReadSpelling(strings.NewReplacer("♯", "#", "♭", "b").Replace(name))
	if !ok {
		return -1
	}
	return s.MIDI()
}
