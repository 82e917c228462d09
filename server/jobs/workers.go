package jobs

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"runtime"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverpgxv5"
	"github.com/riverqueue/river/rivertype"

	"manudrill/store"
)

// longestJob is how long one job may go on. The longest take is heard in half a
// minute where nothing else is done.
const longestJob = 5 * time.Minute

// fetchEvery is how soon after one job the next is looked for.
const fetchEvery = 10 * time.Millisecond

// Workers do the jobs of a database.
type Workers struct {
	client *river.Client[pgx.Tx]
	alive  *alive
}

// Start begins to work: as many takes at once as there are cores. Letters go by the
// post, or stay in the outbox where it is nil.
func Start(ctx context.Context, s *store.Store, post Post) (*Workers, error) {
	id := fmt.Sprintf("%s-%d-%s", host(), os.Getpid(), uuid.NewString())
	workers := river.NewWorkers()
	river.AddWorker(workers, &measureWorker{store: s})
	river.AddWorker(workers, &remeasureWorker{store: s})
	river.AddWorker(workers, &letterWorker{store: s, post: post})
	river.AddWorker(workers, &tidyWorker{store: s})
	client, err := river.NewClient(riverpgxv5.New(s.Pool()), &river.Config{
		ID: id, Workers: workers, Logger: silent, ErrorHandler: &faults{s}, PeriodicJobs: tidying(),
		Queues:        map[string]river.QueueConfig{soonQueue: {MaxWorkers: runtime.GOMAXPROCS(0)}, againQueue: {MaxWorkers: 1}},
		FetchCooldown: fetchEvery, JobTimeout: longestJob, RescueStuckJobsAfter: 2 * longestJob,
	})
	if err != nil {
		return nil, err
	}
	a, err := stayAlive(ctx, s, id)
	if err != nil {
		return nil, err
	}
	// What is under way goes on when the caller's context ends: Stop decides.
	if err := client.Start(store.AsHouse(context.WithoutCancel(ctx))); err != nil {
		a.stop()
		return nil, err
	}
	return &Workers{client, a}, nil
}

func host() string {
	name, err := os.Hostname()
	if err != nil {
		return "here"
	}
	return name
}

// Stop takes no more jobs and waits for those under way until ctx ends, when they
// are left for another worker.
func (w *Workers) Stop(ctx context.Context) error {
	defer w.alive.stop()
	err := w.client.Stop(ctx)
	if ctx.Err() == nil {
		return err
	}
	at, cancel := context.WithTimeout(context.WithoutCancel(ctx), time.Second)
	defer cancel()
	if err := w.client.StopAndCancel(at); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	return nil
}

// A measureWorker measures one take after the other.
type measureWorker struct {
	river.WorkerDefaults[measure]
	store *store.Store
}

// Work measures a take. One that is gone needs no measuring.
func (w *measureWorker) Work(ctx context.Context, job *river.Job[measure]) error {
	err := Measure(ctx, w.store, job.Args.TakeID)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	return err
}

// stretch is how long takes are measured again before the job looks about, so
// that one is soon done anew when its worker has gone.
const stretch = 20 * time.Second

// A remeasureWorker measures all takes again.
type remeasureWorker struct {
	river.WorkerDefaults[remeasure]
	store *store.Store
}

// Work goes on for a stretch, then lets the rest wait.
func (w *remeasureWorker) Work(ctx context.Context, job *river.Job[remeasure]) error {
	ctx, err := w.store.WithinStudioOfRemeasuring(ctx, job.Args.ID)
	if errors.Is(err, store.ErrNotFound) {
		return nil // its studio is gone
	}
	if err != nil {
		return err
	}
	for began := time.Now(); time.Since(began) < stretch; {
		take, err := w.store.NextToRemeasure(ctx, job.Args.ID)
		if errors.Is(err, store.ErrNotFound) {
			return nil
		}
		if err != nil {
			return err
		}
		fault := measureKept(ctx, w.store, take)
		if fault != nil && ctx.Err() != nil {
			return fault
		}
		if err := w.store.Remeasured(ctx, job.Args.ID, take, fault != nil); err != nil {
			return err
		}
	}
	return river.JobSnooze(0)
}

// measureKept is Measure that tells of a panic as an error: one odd take must not
// keep the others from being measured again.
func measureKept(ctx context.Context, s *store.Store, take uuid.UUID) (err error) {
	defer func() {
		if p := recover(); p != nil {
			err = fmt.Errorf("panic: %v", p)
			slog.Error("a take could not be measured again", "take", take, "error", err)
		}
	}()
	return Measure(ctx, s, take)
}

// faults writes a job's faults to the log, and to the take when it is tried no
// more.
type faults struct{ store *store.Store }

// ourFault is what a take says that a fault of the program kept from being
// measured.
const ourFault = "A fault of Manudrill’s keeps this take from being measured; it is in the log. The recording is kept: measure it again after the next update"

// HandleError handles what a worker returned.
func (f *faults) HandleError(ctx context.Context, job *rivertype.JobRow, err error) *river.ErrorHandlerResult {
	slog.Error("job failed", "job", job.ID, "kind", job.Kind, "attempt", job.Attempt, "error", err)
	if job.Attempt >= job.MaxAttempts {
		f.giveUp(ctx, job)
	}
	return nil
}

// HandlePanic handles a worker that broke off.
func (f *faults) HandlePanic(ctx context.Context, job *rivertype.JobRow, panicked any, trace string) *river.ErrorHandlerResult {
	slog.Error("job panicked", "job", job.ID, "kind", job.Kind, "attempt", job.Attempt, "panic", panicked, "trace", trace)
	if job.Attempt >= job.MaxAttempts {
		f.giveUp(ctx, job)
	}
	return nil
}

func (f *faults) giveUp(ctx context.Context, job *rivertype.JobRow) {
	args, err := takeOf(job.EncodedArgs)
	if err != nil || args == uuid.Nil {
		return // a job of another kind
	}
	if err := f.store.Failed(ctx, args, ourFault); err != nil {
		slog.Error("a take that failed cannot be told so", "take", args, "error", err)
	}
}
