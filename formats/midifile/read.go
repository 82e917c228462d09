package midifile

import (
	"bytes"
	"cmp"
	"encoding/binary"
	"errors"
	"fmt"

	"manudrill/core/bounds"
	"manudrill/core/drill/score"
)

// Errors that say why a file cannot be read.
var (
	ErrNotMIDI  = errors.New("this is no Standard MIDI File")
	ErrCutOff   = errors.New("the MIDI file is cut off before its end")
	ErrFrames   = errors.New("the MIDI file counts film frames instead of beats; save it with ticks per beat")
	ErrPatterns = errors.New("the MIDI file holds patterns that are each by themselves (format 2); save the one that is wanted as format 0 or 1")
	ErrNoNotes  = errors.New("the MIDI file holds no notes besides percussion")
)

// song is what is gathered from all tracks.
type song struct {
	division int
	tracks   int          // read so far
	latest   [16][128]int // by channel and pitch: which note was struck last, counted from 1
	score    score.Score
	notes    []struck
	passes   []int // ticks at which a pass begins
	tempos   []tempoFrom
	meters   []meterFrom
	names    map[int]string // of tracks
}

// struck is a note with the text that stood at its tick in its track.
type struck struct {
	tick, midi, channel, track int
	velocity                   byte
	end                        int // tick at which it is let go; 0 where it is not
	text                       string
}

// tempoFrom is a tempo and the tick from which it holds.
type tempoFrom struct {
	tick   int
	micros float64 // a beat
}

// meterFrom is a time and the tick from which it holds.
type meterFrom struct{ tick, beats, kind int }

// Is reports whether a file begins as a Standard MIDI File does.
func Is(b []byte) bool { return len(b) >= 4 && string(b[:4]) == "MThd" }

// Read reads the melody of a line of a file of format 0 or 1, which is a track, a channel of
// it, or all together; unasked ([score.AnyLine]) the track with the most notes. It has all
// notes but percussion, the highest where several begin together. Passes that the file marks
// are read once.
func Read(b []byte, line int) (score.Score, error) {
	s, err := gather(b)
	if err != nil {
		return score.Score{}, err
	}
	return s.melody(line)
}

// gather reads all tracks.
func gather(b []byte) (song, error) {
	if len(b) > bounds.DocumentBytes {
		return song{}, bounds.ErrDocumentTooLarge
	}
	if len(b) < 14 || string(b[:4]) != "MThd" {
		return song{}, ErrNotMIDI
	}
	s := song{division: int(binary.BigEndian.Uint16(b[12:])), names: map[int]string{}}
	if s.division == 0 || s.division&0x8000 != 0 {
		return s, ErrFrames
	}
	header := int(binary.BigEndian.Uint32(b[4:]))
	if header < 6 || 8+header > len(b) {
		return s, ErrCutOff
	}
	if binary.BigEndian.Uint16(b[8:]) == 2 {
		return s, ErrPatterns
	}
	for rest := b[8+header:]; len(rest) > 0; {
		if s.tracks > 0 && len(bytes.Trim(rest, "\x00")) == 0 {
			break // some programs fill a file up
		}
		if len(rest) < 8 {
			return s, ErrCutOff
		}
		length := int(binary.BigEndian.Uint32(rest[4:]))
		if length < 0 || 8+length > len(rest) {
			return s, ErrCutOff
		}
		if string(rest[:4]) == "MTrk" {
			s.tracks++
			if err := s.track(rest[8 : 8+length]); err != nil {
				return s, err
			}
		}
		rest = rest[8+length:]
	}
	return s, nil
}

// track gathers what one track holds.
func (s *song) track(b []byte) error {
	r := bytesReader{b: b}
	at, status, text := 0, byte(0), ""
	textAt := -1
	for len(r.b) > 0 && r.err == nil {
		at += r.variable()
		if len(r.b) > 0 && r.b[0] >= 0x80 {
			status = r.byte()
		}
		switch {
		case status == 0xff:
			kind, data := r.byte(), r.data()
			if kind == 0x01 {
				text, textAt = string(data), at
			}
			s.meta(at, kind, data)
		case status == 0xf0 || status == 0xf7:
			r.data()
		case status >= 0x80 && status < 0xf0:
			first, second := int(r.byte()), byte(0)
			if kind := status & 0xf0; kind != 0xc0 && kind != 0xd0 {
				second = r.byte()
			}
			n := struck{tick: at, midi: first & 0x7f, track: s.tracks, channel: int(status & 0x0f), velocity: second & 0x7f}
			if textAt == at {
				n.text = text
			}
			s.note(status&0xf0, n)
			if len(s.notes) > bounds.TakeNotes {
				return bounds.ErrTooManyNotes
			}
		default:
			return fmt.Errorf("%w: a track begins in the middle of a message", ErrNotMIDI)
		}
	}
	return r.err
}

// note strikes a note or lets one go; percussion is left out.
func (s *song) note(kind byte, n struck) {
	strikes := kind == 0x90 && n.velocity > 0
	switch {
	case n.channel == clickChannel:
	case strikes:
		s.notes = append(s.notes, n)
		s.latest[n.channel][n.midi] = len(s.notes)
	case kind == 0x80 || kind == 0x90:
		if at := s.latest[n.channel][n.midi]; at > 0 && s.notes[at-1].end == 0 {
			s.notes[at-1].end = n.tick
		}
	}
}

func (s *song) meta(at int, kind byte, data []byte) {
	switch {
	case kind == 0x01 && s.score.NotesPerBeat == 0:
		_, _ = fmt.Sscanf(string(data), "%d notes a beat", &s.score.NotesPerBeat) // other texts are no matter
	case kind == 0x03:
		s.names[s.tracks] = cmp.Or(s.names[s.tracks], string(data))
		s.score.Name = cmp.Or(s.score.Name, string(data))
	case kind == 0x06:
		var pass int
		if n, _ := fmt.Sscanf(string(data), "pass %d", &pass); n == 1 {
			s.passes = append(s.passes, at)
		}
	case kind == 0x51 && len(data) == 3:
		micros := int(data[0])<<16 | int(data[1])<<8 | int(data[2])
		if micros > 0 {
			s.tempos = append(s.tempos, tempoFrom{at, float64(micros)})
		}
	case kind == 0x58 && len(data) >= 2 && data[0] > 0 && data[1] <= 6:
		s.meters = append(s.meters, meterFrom{at, int(data[0]), 1 << data[1]})
	}
}

// bytesReader takes bytes from the front and remembers the first fault.
type bytesReader struct {
	b   []byte
	err error
}

func (r *bytesReader) byte() byte {
	if len(r.b) == 0 {
		r.err = ErrCutOff
		return 0
	}
	v := r.b[0]
	r.b = r.b[1:]
	return v
}

func (r *bytesReader) variable() int {
	n := 0
	for range 4 {
		v := r.byte()
		n = n<<7 | int(v&0x7f)
		if v < 0x80 {
			break
		}
	}
	return n
}

func (r *bytesReader) data() []byte {
	n := r.variable()
	if n > len(r.b) {
		r.err = ErrCutOff
		return nil
	}
	data := r.b[:n]
	r.b = r.b[n:]
	return data
}
