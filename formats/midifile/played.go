package midifile

import (
	"cmp"
	"math"
	"slices"

	"manudrill/core/listen"
)

// usualMicros is how long a beat lasts where the file does not say (Standard
// MIDI Files 1.0: 120 beats a minute).
const usualMicros = 500_000

// Played reads a file as a take: each note as it was struck, in seconds from the
// start, without listening. Velocity becomes level by its square (common
// practice): 127 is full scale. What still sounds from the note before is what
// the file says of it.
func Played(b []byte) ([]listen.Note, error) {
	s, err := gather(b)
	if err != nil {
		return nil, err
	}
	slices.SortStableFunc(s.tempos, func(a, b tempoFrom) int { return cmp.Compare(a.tick, b.tick) })
	slices.SortStableFunc(s.notes, func(a, b struck) int { return cmp.Compare(a.tick, b.tick) })
	var notes []listen.Note
	for i, n := range s.notes {
		note := listen.Note{
			Onset: s.seconds(n.tick), Pitch: float64(n.midi),
			LevelDB: 40 * math.Log10(float64(n.velocity)/127),
		}
		end := n.end
		if i+1 < len(s.notes) && (end == 0 || end > s.notes[i+1].tick) {
			end = s.notes[i+1].tick
		}
		note.End = s.seconds(max(end, n.tick))
		if i > 0 {
			note.Carry = carried(s.seconds, s.notes[i-1], note.Onset)
		}
		notes = append(notes, note)
	}
	if len(notes) == 0 {
		return nil, errNoNotes
	}
	return notes, nil
}

// carriedFrom is how far into a note the one before must be held to ring on in
// it, in seconds, as [listen.Carry] counts it.
const carriedFrom = 0.040

func carried(seconds func(int) float64, before struck, onset float64) listen.Carry {
	if seconds(before.end) > onset+carriedFrom {
		return listen.Carry{Known: true, DB: 0}
	}
	return listen.Carry{Known: true, DB: -60}
}

// seconds is the time of a tick.
func (s song) seconds(tick int) float64 {
	total, from, micros := 0.0, 0, float64(usualMicros)
	for _, t := range s.tempos {
		if t.tick >= tick {
			break
		}
		total += float64(t.tick-from) * micros
		from, micros = t.tick, t.micros
	}
	return (total + float64(tick-from)*micros) / float64(s.division) / 1e6
}
