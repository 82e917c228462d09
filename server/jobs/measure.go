package jobs

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"

	"github.com/google/uuid"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
	"manudrill/core/practice"
	"manudrill/core/simulate"
	"manudrill/formats/hearing"
	"manudrill/formats/sound"
	"manudrill/store"
)

// errNoNotes says that nothing was heard.
var errNoNotes = errors.New("no notes were heard in the recording; check that the right microphone is chosen, move it closer to the guitar, and play again")

// Measure listens to a take, judges it and keeps what was found; its sound is kept
// as FLAC from then on. A take that cannot be measured keeps why, which is no
// error.
func Measure(ctx context.Context, s *store.Store, take uuid.UUID) error {
	ctx, err := s.WithinStudioOf(ctx, take)
	if err != nil {
		return err
	}
	err = tryToMeasure(ctx, s, take)
	if errors.Is(err, errNoNotes) || hearing.IsFault(err) {
		return s.Failed(ctx, take, err.Error())
	}
	return err
}

func tryToMeasure(ctx context.Context, s *store.Store, id uuid.UUID) error {
	take, err := s.Take(ctx, id)
	if err != nil {
		return err
	}
	recording, err := s.Sound(ctx, id)
	if err != nil {
		return err
	}
	defer recording.Close()
	file, err := scratch()
	if err != nil {
		return err
	}
	defer file.Close()
	flac := &converter{to: file}
	defer func() { _ = flac.stop() }() // its fault is told by done
	heard, err := hearing.Hear(ctx, recording, flac.keep)
	if err != nil {
		return err
	}
	if len(heard.Notes) == 0 {
		return errNoNotes
	}
	if heard.Kind == hearing.MIDI {
		if err := flac.sounding(heard.Notes); err != nil {
			return err
		}
	}
	if take.Source == store.Key {
		for i := range heard.Notes {
			heard.Notes[i].Unpitched = true
		}
	}
	m := Measured(take.Chart, heard.Notes, heard.Ticks, heard.Seconds)
	if m.Analysis.Foreign {
		if m.Other, err = playedInstead(ctx, s, take.AssignmentID, heard.Notes); err != nil {
			return err
		}
	}
	if heard.Kind != hearing.FLAC {
		whole, err := flac.done()
		if err != nil {
			return err
		}
		if err := s.KeepSound(ctx, id, whole); err != nil {
			return err
		}
	}
	return s.Measured(ctx, id, m)
}

// Measured is what is found in the notes of a take of a chart, and the ticks heard besides.
func Measured(c chart.Chart, notes []listen.Note, ticks []float64, seconds float64) store.Measurement {
	take := follow.Follow(c, notes, ticks...)
	return store.Measurement{
		Analysis: evenness.Judge(take), Sums: evenness.SumsOf(take),
		Seconds: seconds, SlurSeconds: seconds * practice.SlurShare(c), Listener: listen.Version,
	}
}

// surelyIts is which share of what was played must be notes of a drill for it to be that one,
// and beginning how many notes are looked at: a drill is known by its beginning, and a recording
// may hold any number.
const (
	surelyIts = 0.9
	beginning = 200
)

// playedInstead is the assignment of the drill, of those that the student has besides, of which
// nearly all of what was played is; nil for none.
func playedInstead(ctx context.Context, s *store.Store, assignment uuid.UUID, notes []listen.Note) (*uuid.UUID, error) {
	stands, err := s.OtherStands(ctx, assignment)
	if err != nil {
		return nil, err
	}
	notes = notes[:min(len(notes), beginning)]
	var best *uuid.UUID
	most := surelyIts * float64(len(notes))
	for _, a := range stands {
		c, err := a.File.Value.At(a.Rung).ChartFor(a.StudentSetup().Guitar, a.StudentSetup().Hand, a.Rung.BPM)
		if a.File.Odd != nil || err != nil {
			continue // nobody can have played it
		}
		if right := float64(follow.Follow(c, notes).Count(follow.Played)); right >= most {
			best, most = &a.ID, right
		}
	}
	return best, nil
}

// scratch is a file that is gone once it is closed, however the program ends.
func scratch() (*os.File, error) {
	file, err := os.CreateTemp("", "manudrill-sound-")
	if err != nil {
		return nil, fmt.Errorf("there is no room to convert a sound: %w", err)
	}
	return file, os.Remove(file.Name())
}

// A converter makes FLAC of what is not, beside who hears it.
type converter struct {
	to     *os.File
	flac   *sound.FLACWriter
	blocks chan [][]int32
	coded  chan error // once all blocks are
}

// blocksAhead is how many blocks may wait to be coded.
const blocksAhead = 4

// keep takes a recording in as it is heard. One that is FLAC is kept as it came.
func (c *converter) keep(r *sound.Reader, block [][]int32) (err error) {
	switch {
	case r.FLAC():
	case block == nil:
		if c.flac, err = sound.NewFLACWriter(c.to, r.Rate, r.Bits, r.Channels); err == nil {
			c.blocks, c.coded = make(chan [][]int32, blocksAhead), make(chan error, 1)
			go c.code(c.blocks)
		}
	default:
		own := make([][]int32, len(block)) // the reader's are its own again after this
		for i, samples := range block {
			own[i] = slices.Clone(samples)
		}
		c.blocks <- own
	}
	return err
}

// code codes the blocks that come. After a fault it takes the rest, so that nobody waits.
func (c *converter) code(blocks <-chan [][]int32) {
	var err error
	for block := range blocks {
		if err == nil {
			err = c.write(block)
		}
	}
	c.coded <- err
}

// write makes an error of a panic: what guards a job guards its own goroutine alone.
func (c *converter) write(block [][]int32) (err error) {
	defer func() {
		if p := recover(); p != nil {
			err = fmt.Errorf("a sound could not be coded: %v", p)
		}
	}()
	return c.flac.Write(block)
}

// stop ends the coding, whether or not the recording came to its end, and returns what
// went wrong.
func (c *converter) stop() error {
	if c.blocks == nil {
		return nil
	}
	close(c.blocks)
	c.blocks = nil
	return <-c.coded
}

// sounding makes the sound of notes that came without one.
func (c *converter) sounding(notes []listen.Note) (err error) {
	if c.flac, err = sound.NewFLACWriter(c.to, simulate.Rate, 16, 1); err != nil {
		return err
	}
	return simulate.Sounding(notes, func(x []float64) error { return c.flac.Write(sound.FromMono(simulate.Rate, x).Channels) })
}

// done returns the whole FLAC.
func (c *converter) done() (io.Reader, error) {
	if err := c.stop(); err != nil {
		return nil, err
	}
	if err := c.flac.Close(); err != nil {
		return nil, err
	}
	_, err := c.to.Seek(0, io.SeekStart)
	return c.to, err
}
