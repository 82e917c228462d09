package jobs

import (
	"context"
	"log/slog"
	"time"

	"github.com/riverqueue/river"

	"manudrill/store"
)

// tidyEvery is how often the house is tidied.
const tidyEvery = time.Hour

// tidy is the job to drop sounds whose time is over and to forget who was removed.
type tidy struct{}

func (tidy) Kind() string { return "tidy" }

// InsertOpts lets one of any number of workers do it.
func (tidy) InsertOpts() river.InsertOpts {
	return river.InsertOpts{Queue: againQueue, MaxAttempts: 1, UniqueOpts: river.UniqueOpts{ByPeriod: tidyEvery}}
}

// tidying lets the house be tidied, at the start too.
func tidying() []*river.PeriodicJob {
	return []*river.PeriodicJob{river.NewPeriodicJob(river.PeriodicInterval(tidyEvery),
		func() (river.JobArgs, *river.InsertOpts) { return tidy{}, nil }, &river.PeriodicJobOpts{RunOnStart: true})}
}

type tidyWorker struct {
	river.WorkerDefaults[tidy]
	store *store.Store
}

// Work does each thing though another has failed: none must wait for the others.
func (w *tidyWorker) Work(ctx context.Context, _ *river.Job[tidy]) error {
	if n, err := w.store.ForgetRemoved(ctx); err != nil {
		slog.Error("who was removed cannot be forgotten", "error", err)
	} else if n > 0 {
		slog.Info("students who were removed are forgotten", "students", n)
	}
	if n, err := w.store.DropOldVideos(ctx); err != nil {
		return err
	} else if n > 0 {
		slog.Info("dropped videos whose time was over", "videos", n)
	}
	if n, err := w.store.DropOldSounds(ctx); err != nil {
		slog.Error("old sounds cannot be dropped", "error", err)
	} else if n > 0 {
		slog.Info("sounds whose time was over are dropped", "sounds", n)
	}
	if err := w.store.DropStrays(ctx); err != nil {
		slog.Error("the bucket cannot be looked through", "error", err)
	}
	return nil
}
