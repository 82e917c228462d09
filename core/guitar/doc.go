// Package guitar holds what is true of the instrument before anyone plays it:
// tunings, the pitch of every place on the neck, and distances along it.
//
// Pitch is equal temperament with A4 = 440 Hz as MIDI note 69 (MIDI 1.0
// specification, note number table). Distances follow the twelfth root of two.
package guitar
