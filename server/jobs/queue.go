// Package jobs does what no request waits for: it measures takes. Whoever hands a
// take in puts a job beside it in the same transaction; workers, of which there
// may be any number in any number of programs, take the jobs from the database.
package jobs

import (
	"context"
	"io"
	"log/slog"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverpgxv5"

	"manudrill/store"
)

// attempts is how often a job is tried. What keeps the database from answering
// does not count: then no job is fetched.
const attempts = 5

// The queues: takes that somebody waits for, and takes that are measured again,
// one at a time, which must not keep the others waiting.
const (
	soonQueue  = river.QueueDefault
	againQueue = "again"
)

// measure is the job to measure one take.
type measure struct {
	TakeID uuid.UUID `json:"takeId"`
}

func (measure) Kind() string { return "measure" }

// remeasure is the job to measure all takes again.
type remeasure struct {
	ID uuid.UUID `json:"id"`
}

func (remeasure) Kind() string { return "remeasure" }

// A Queue takes jobs in.
type Queue struct{ client *river.Client[pgx.Tx] }

// NewQueue returns the queue in the store's database.
func NewQueue(s *store.Store) (*Queue, error) {
	client, err := river.NewClient(riverpgxv5.New(s.Pool()), &river.Config{Logger: silent})
	return &Queue{client}, err
}

// silent keeps the queue's own remarks out of the log; its faults come as errors.
var silent = slog.New(slog.NewTextHandler(io.Discard, nil))

// Measure puts a job to measure a take into a transaction.
func (q *Queue) Measure(ctx context.Context, tx pgx.Tx, take uuid.UUID) error {
	_, err := q.client.InsertTx(ctx, tx, measure{take}, &river.InsertOpts{MaxAttempts: attempts, Queue: soonQueue})
	return err
}

// Remeasure puts a job to measure all takes again into a transaction.
func (q *Queue) Remeasure(ctx context.Context, tx pgx.Tx, id uuid.UUID) error {
	_, err := q.client.InsertTx(ctx, tx, remeasure{id}, &river.InsertOpts{MaxAttempts: attempts, Queue: againQueue})
	return err
}
