package server

import (
	"bytes"
	"context"
	"io"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/drill/chart"
	"manudrill/core/simulate"
	"manudrill/formats/sound"
	"manudrill/server/jobs"
	"manudrill/store"
)

// Simulated is the recording of a simulated player, FLAC.
func Simulated(player simulate.Player, c chart.Chart) (io.Reader, error) {
	_, samples, err := player.Take(c)
	if err != nil {
		return nil, err
	}
	flac, err := sound.FromMono(simulate.Rate, samples).EncodeFLAC()
	return bytes.NewReader(flac), err
}

// A SimulatedTake is one that is made without anybody waiting for it, as those of
// the demo.
type SimulatedTake struct {
	ID         uuid.UUID
	Assignment uuid.UUID
	Player     simulate.Player
	RecordedAt time.Time
	Silent     bool // measured from what was played: its sound is as if its time were over
}

// Make lets a simulated player play what lies on a student's stand, hands it in
// like any other take and measures it at once. A take that is there already is
// measured only where it is not yet.
func (t SimulatedTake) Make(ctx context.Context, s *store.Store) error {
	if state, err := s.TakeState(ctx, t.ID); err == nil && state == store.Measured {
		return nil
	}
	a, err := s.Stand(ctx, t.Assignment)
	if err != nil {
		return err
	}
	c, err := a.File.Value.At(a.Rung).ChartFor(a.StudentSetup().Guitar, a.StudentSetup().Hand, a.Rung.BPM)
	if err != nil {
		return err
	}
	in := store.HandIn{ID: t.ID, AssignmentID: a.ID, Version: a.Version, Rung: a.Rung, Source: store.Simulated, RecordedAt: t.RecordedAt, Chart: c}
	if !t.Silent {
		if in.Sound, err = Simulated(t.Player, c); err != nil {
			return err
		}
	}
	if err := s.HandIn(ctx, in, func(pgx.Tx) error { return nil }); err != nil && !store.IsKept(err) {
		return err
	}
	if !t.Silent {
		return jobs.Measure(ctx, s, t.ID)
	}
	notes := t.Player.Notes(c)
	seconds := simulate.CountIn
	if len(notes) > 0 {
		seconds = notes[len(notes)-1].End
	}
	return s.Measured(ctx, t.ID, jobs.Measured(c, notes, nil, seconds))
}
