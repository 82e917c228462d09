package server

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"

	"manudrill/core/compare"
	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/listen"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/sound"
	"manudrill/store"
)

// An Intake takes recordings in: it listens, measures, decides and keeps.
type Intake struct{ Store *store.Store }

// A Delivery is a recording handed in for an assignment.
type Delivery struct {
	TakeID     uuid.UUID // made by the client: handing in twice makes one take
	Assignment store.Assignment
	BPM        float64 // asked for
	Source     string
	RecordedAt time.Time
	Sound      sound.Sound
	Notes      []listen.Note // as they were played, where the file tells them; else they are heard
}

// Receive measures a recording and keeps it with its sound. It fails with
// errNoNotes when nothing is heard; then nothing is kept.
func (in Intake) Receive(ctx context.Context, d Delivery) (store.Take, error) {
	if kept, err := in.kept(ctx, d); err == nil || !errors.Is(err, store.ErrNotFound) {
		return kept, err
	}
	chart, err := d.Assignment.File.Drill.Chart(d.Assignment.StudentSetup().Guitar, d.BPM)
	if err != nil {
		return store.Take{}, err
	}
	analysis, err := measure(chart, d)
	if err != nil {
		return store.Take{}, err
	}
	flac, err := d.Sound.EncodeFLAC()
	if err != nil {
		return store.Take{}, err
	}
	take := store.Take{
		ID: d.TakeID, AssignmentID: d.Assignment.ID, Version: d.Assignment.Version, BPM: d.BPM, Source: d.Source, RecordedAt: d.RecordedAt,
		Seconds: d.Sound.Duration().Seconds(), Chart: chart, Analysis: analysis,
	}
	ladder := d.Assignment.File.Ladder
	err = in.Store.AddTake(ctx, take, flac, func(r []tempo.Result) tempo.Decision { return ladder.Decide(d.BPM, r) })
	if err != nil {
		return store.Take{}, err
	}
	return in.kept(ctx, d)
}

// measure listens to what was handed in and judges it against its chart.
func measure(chart drill.Chart, d Delivery) (evenness.Analysis, error) {
	notes := d.Notes
	l := listen.New(float64(d.Sound.Rate))
	if notes == nil {
		notes = l.Write(d.Sound.Mono())
		notes = append(notes, l.Close()...)
	}
	if len(notes) == 0 {
		return evenness.Analysis{}, errNoNotes
	}
	return evenness.Judge(compare.Compare(chart, notes, l.Ticks()...)), nil
}

// kept returns the take if it has been handed in already.
func (in Intake) kept(ctx context.Context, d Delivery) (store.Take, error) {
	take, err := in.Store.Take(ctx, d.TakeID)
	if err == nil && take.AssignmentID != d.Assignment.ID {
		return store.Take{}, errSameTake
	}
	return take, err
}

// Simulate lets a simulated player play an assignment's chart and takes the
// recording in like any other.
func (in Intake) Simulate(ctx context.Context, player simulate.Player, d Delivery) (store.Take, error) {
	var chart drill.Chart
	chart, err := d.Assignment.File.Drill.Chart(d.Assignment.StudentSetup().Guitar, d.BPM)
	if err != nil {
		return store.Take{}, err
	}
	_, samples := player.Take(chart)
	d.Source, d.Sound = store.Simulated, sound.FromMono(simulate.Rate, samples)
	return in.Receive(ctx, d)
}
