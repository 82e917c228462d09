package midifile

import (
	"cmp"
	"slices"

	"manudrill/core/bounds"
	"manudrill/core/listen"
)

// usualMicros is how long a beat lasts where the file does not say (Standard
// MIDI Files 1.0: 120 beats a minute).
const usualMicros = 500_000

// Played reads a file as a take: each note as it was struck, in seconds from the start,
// without listening. It fails with [bounds.ErrTakeTooLong] for a note after the end of the
// longest take.
func Played(b []byte) ([]listen.Note, error) {
	s, err := gather(b)
	if err != nil {
		return nil, err
	}
	clock := s.clock()
	slices.SortStableFunc(s.notes, func(a, b struck) int { return cmp.Compare(a.tick, b.tick) })
	var notes []listen.Struck
	for _, n := range s.notes {
		told := listen.Struck{On: clock.seconds(n.tick), MIDI: n.midi, Velocity: int(n.velocity)}
		if n.end > n.tick {
			told.Off = clock.seconds(n.end)
		}
		if max(told.On, told.Off) > bounds.TakeSeconds {
			return nil, bounds.ErrTakeTooLong
		}
		notes = append(notes, told)
	}
	if len(notes) == 0 {
		return nil, ErrNoNotes
	}
	return listen.FromStruck(notes), nil
}

// A clock tells the time of ticks.
type clock struct {
	division int
	tempos   []tempoFrom // in order, the first from tick 0
	micros   []float64   // when each of them begins, in µs times the division
}

// clock is the time in the song.
func (s song) clock() clock {
	c := clock{division: s.division, tempos: append([]tempoFrom{{0, usualMicros}}, s.tempos...)}
	slices.SortStableFunc(c.tempos, func(a, b tempoFrom) int { return cmp.Compare(a.tick, b.tick) })
	c.micros = make([]float64, len(c.tempos))
	for i, t := range c.tempos[1:] {
		before := c.tempos[i]
		c.micros[i+1] = c.micros[i] + float64(t.tick-before.tick)*before.micros
	}
	return c
}

// seconds is the time of a tick, which is found in the time of a search.
func (c clock) seconds(tick int) float64 {
	at, _ := slices.BinarySearchFunc(c.tempos, tick, func(t tempoFrom, tick int) int { return cmp.Compare(t.tick, tick) })
	at = max(0, at-1) // a tempo holds for what comes after its tick
	t := c.tempos[at]
	return (c.micros[at] + float64(tick-t.tick)*t.micros) / float64(c.division) / 1e6
}
