// Package hearing listens to what is handed in as a take: a recording of any
// length, read block by block and never held whole, or a MIDI file. The program on
// the command line and the server listen by it alike.
package hearing

import (
	"bufio"
	"context"
	"errors"
	"io"
	"slices"

	"manudrill/core/bounds"
	"manudrill/core/listen"
	"manudrill/formats/midifile"
	"manudrill/formats/sound"
)

// A Kind of file is a take.
type Kind string

// The kinds.
const (
	WAV  Kind = "WAV"
	FLAC Kind = "FLAC"
	MIDI Kind = "MIDI"
)

// Media is the media type of a kind, as HTTP names it.
func (k Kind) Media() string {
	switch k {
	case WAV:
		return "audio/wav"
	case MIDI:
		return "audio/midi"
	}
	return "audio/flac"
}

// Extension is what the name of a file of a kind ends with.
func (k Kind) Extension() string {
	switch k {
	case WAV:
		return "wav"
	case MIDI:
		return "mid"
	}
	return "flac"
}

// KindOf tells a file's kind by its first bytes, 4 of them or more.
func KindOf(start []byte) (Kind, error) {
	switch {
	case len(start) == 0:
		return "", sound.ErrEmpty
	case midifile.Is(start):
		return MIDI, nil
	case len(start) >= 4 && (string(start[:4]) == "fLaC" || string(start[:3]) == "ID3"): // a tag before it
		return FLAC, nil
	case len(start) >= 4 && string(start[:4]) == "RIFF":
		return WAV, nil
	}
	return "", sound.ErrNotSound
}

// faults are the ways in which a file can fail to be a take.
var faults = []error{
	sound.ErrNotSound, sound.ErrEmpty, sound.ErrDamaged, sound.ErrCutOff, sound.ErrUnsupported,
	midifile.ErrNotMIDI, midifile.ErrCutOff, midifile.ErrNoNotes, midifile.ErrFrames,
	bounds.ErrTakeTooLong, bounds.ErrTooManyNotes, bounds.ErrDocumentTooLarge,
}

// IsFault reports whether an error lies in the file that was heard, and not in the
// hearing: to hear it again would find it again.
func IsFault(err error) bool {
	return slices.ContainsFunc(faults, func(fault error) bool { return errors.Is(err, fault) })
}

// Heard is what was heard in a take.
type Heard struct {
	Kind    Kind
	Notes   []listen.Note
	Ticks   []float64 // when a metronome's clicks or other short sounds came, s
	Seconds float64   // length of the recording; of MIDI the end of its last note
}

// A Sink is given the recording as it is read: its form first, with no block, then
// the samples by channel, which stay until it returns.
type Sink func(r *sound.Reader, block [][]int32) error

// Hear listens to a whole file as long as ctx lasts. keep, which may be nil, is
// given the recording besides; of MIDI there is none. That no notes are heard is
// no error.
func Hear(ctx context.Context, src io.Reader, keep Sink) (Heard, error) {
	buffered := bufio.NewReaderSize(src, 64<<10)
	start, err := buffered.Peek(4)
	if err != nil && !errors.Is(err, io.EOF) {
		return Heard{}, err
	}
	kind, err := KindOf(start)
	if err != nil {
		return Heard{}, err
	}
	if kind == MIDI {
		return played(buffered)
	}
	if keep == nil {
		keep = func(*sound.Reader, [][]int32) error { return nil }
	}
	h, err := listened(ctx, buffered, keep)
	h.Kind = kind
	return h, err
}

// played reads a MIDI file as a take.
func played(src io.Reader) (Heard, error) {
	raw, err := io.ReadAll(io.LimitReader(src, bounds.DocumentBytes+1))
	if err != nil {
		return Heard{}, err
	}
	h := Heard{Kind: MIDI}
	if h.Notes, err = midifile.Played(raw); err != nil {
		return Heard{}, err
	}
	for _, n := range h.Notes {
		h.Seconds = max(h.Seconds, n.End)
	}
	return h, nil
}

// listened hears a recording block by block.
func listened(ctx context.Context, src io.Reader, keep Sink) (Heard, error) {
	r, err := sound.Open(src)
	if err != nil {
		return Heard{}, err
	}
	if err := keep(r, nil); err != nil {
		return Heard{}, err
	}
	l := listen.New(float64(r.Rate))
	var h Heard
	var mono []float64
	for {
		if err := ctx.Err(); err != nil {
			return Heard{}, err
		}
		block, err := r.Next()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return Heard{}, err
		}
		mono = sound.Mono(mono, block, r.Bits)
		h.Notes = append(h.Notes, l.Write(mono)...)
		if len(h.Notes) > bounds.TakeNotes {
			return Heard{}, bounds.ErrTooManyNotes
		}
		if err := keep(r, block); err != nil {
			return Heard{}, err
		}
	}
	if h.Seconds = r.Seconds(); h.Seconds == 0 {
		return Heard{}, sound.ErrEmpty
	}
	h.Notes = append(h.Notes, l.Close()...)
	h.Ticks = l.Ticks()
	return h, nil
}
