// Package midifile reads and writes Standard MIDI Files (Standard MIDI Files
// 1.0, MIDI Manufacturers Association, 1988; the value ranges are those of the
// MIDI 1.0 specification).
package midifile

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
)

const (
	ticksPerBeat = 480 // whole for each of the notes per beat a drill may have
	guitarSound  = 25  // General MIDI program 26, steel-string guitar, counted from 0
	clickChannel = 9   // General MIDI's channel 10, percussion
	clickStrong  = 76  // high wood block
	clickWeak    = 77  // low wood block
	pickedForce  = 96
	slurredForce = 80
)

// event is one message at its tick.
type event struct {
	tick int
	data []byte
}

// Write writes a score whose notes have places as a file of format 1: tempo and
// bars, the notes of all passes, each with a text that tells place, finger,
// attack and stroke, and a click.
func Write(s score.Score) []byte {
	var out bytes.Buffer
	out.WriteString("MThd")
	header := binary.BigEndian.AppendUint32(nil, 6)
	for _, v := range []uint16{1, 3, ticksPerBeat} {
		header = binary.BigEndian.AppendUint16(header, v)
	}
	out.Write(header)
	for _, track := range [][]event{leader(s), notes(s), clicks(s)} {
		writeTrack(&out, track)
	}
	return out.Bytes()
}

func tick(beat float64) int { return int(math.Round(beat * ticksPerBeat)) }

// passTicks is the length of a pass; the last note lasts one division.
func passTicks(s score.Score) int {
	return tick(s.Notes[len(s.Notes)-1].Beat + 1/float64(s.NotesPerBeat))
}

func meta(kind byte, data []byte) []byte {
	return append(append([]byte{0xff, kind}, variable(len(data))...), data...)
}

func leader(s score.Score) []event {
	micros := int(math.Round(60e6 / s.BPM))
	track := []event{
		{0, meta(0x03, []byte(s.Name))},
		{0, meta(0x51, []byte{byte(micros >> 16), byte(micros >> 8), byte(micros)})},
		{0, meta(0x58, []byte{byte(s.BeatsPerBar), 2, 24, 8})},
		{0, meta(0x01, fmt.Appendf(nil, "%d notes a beat", s.NotesPerBeat))},
	}
	for p := range s.Passes {
		track = append(track, event{p * passTicks(s), meta(0x06, fmt.Appendf(nil, "pass %d", p+1))})
	}
	return track
}

func notes(s score.Score) []event {
	track := []event{{0, meta(0x03, []byte("Guitar"))}, {0, []byte{0xc0, guitarSound}}}
	length := tick(1 / float64(s.NotesPerBeat))
	for p := range s.Passes {
		for _, n := range s.Notes {
			at := p*passTicks(s) + tick(n.Beat)
			force := byte(pickedForce)
			if n.Attack.Slurred() {
				force = slurredForce
			}
			track = append(track,
				event{at, meta(0x01, []byte(textOf(n)))},
				event{at, []byte{0x90, byte(n.MIDI), force}},
				event{at + length, []byte{0x80, byte(n.MIDI), 0}})
		}
	}
	return track
}

// textOf tells what a MIDI note cannot: "string 3 fret 7 finger 3 hammer".
func textOf(n score.Note) string {
	text := fmt.Sprintf("string %d fret %d finger %d %s", n.String, n.Fret, n.Finger, n.Attack)
	if n.Hand == chart.TappingHand && n.Attack != chart.Tap {
		text += " tapping hand"
	}
	if n.Bend > 0 {
		text += fmt.Sprintf(" bend %d", n.Bend)
	}
	if n.Stroke != "" {
		text += " " + string(n.Stroke)
	}
	return text
}

func clicks(s score.Score) []event {
	track := []event{{0, meta(0x03, []byte("Click"))}}
	bar := s.BeatsPerBar * ticksPerBeat
	bars := (s.Passes*passTicks(s) + bar - 1) / bar // the bar that was begun is clicked to its end
	beats := bars * s.BeatsPerBar
	for beat := range beats {
		sound := byte(clickWeak)
		if beat%s.BeatsPerBar == 0 {
			sound = clickStrong
		}
		track = append(track,
			event{beat * ticksPerBeat, []byte{0x90 | clickChannel, sound, 100}},
			event{beat*ticksPerBeat + ticksPerBeat/8, []byte{0x80 | clickChannel, sound, 0}})
	}
	return track
}

// writeTrack writes events in order of time; a note ends before the next one
// begins at the same tick.
func writeTrack(out *bytes.Buffer, track []event) {
	slices.SortStableFunc(track, func(a, b event) int {
		if a.tick != b.tick {
			return a.tick - b.tick
		}
		return rank(a) - rank(b)
	})
	var body bytes.Buffer
	at := 0
	for _, e := range track {
		body.Write(variable(e.tick - at))
		body.Write(e.data)
		at = e.tick
	}
	body.Write([]byte{0, 0xff, 0x2f, 0})
	out.WriteString("MTrk")
	out.Write(binary.BigEndian.AppendUint32(nil, uint32(body.Len())))
	out.Write(body.Bytes())
}

func rank(e event) int {
	if e.data[0]&0xf0 == 0x80 {
		return 0
	}
	return 1
}

// variable is a number as a variable-length quantity.
func variable(n int) []byte {
	out := []byte{byte(n & 0x7f)}
	for n >>= 7; n > 0; n >>= 7 {
		out = append([]byte{byte(n&0x7f) | 0x80}, out...)
	}
	return out
}
