package jobs

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"

	"manudrill/store"
)

// letter is the job to send one.
type letter struct {
	MailID uuid.UUID `json:"mailId"`
}

func (letter) Kind() string { return "letter" }

// A Post sends letters.
type Post interface {
	Send(ctx context.Context, to, subject, text string) error
}

// Letter puts a job to send a letter into a transaction.
func (q *Queue) Letter(ctx context.Context, tx pgx.Tx, id uuid.UUID) error {
	return q.LetterLater(ctx, tx, id, 0)
}

// LetterLater puts a job to send a letter after a time into a transaction.
func (q *Queue) LetterLater(ctx context.Context, tx pgx.Tx, id uuid.UUID, after time.Duration) error {
	_, err := q.client.InsertTx(ctx, tx, letter{id}, &river.InsertOpts{MaxAttempts: attempts, Queue: soonQueue, ScheduledAt: time.Now().Add(after)})
	return err
}

// A letterWorker sends letters. Without a post they stay in the outbox.
type letterWorker struct {
	river.WorkerDefaults[letter]
	store *store.Store
	post  Post
}

// Work sends a letter, once.
func (w *letterWorker) Work(ctx context.Context, job *river.Job[letter]) error {
	if w.post == nil {
		return nil
	}
	return w.store.SendMail(ctx, job.Args.MailID, func(m store.Mail) error {
		if err := w.post.Send(ctx, m.Recipient, m.Subject, m.Text); err != nil {
			return fmt.Errorf("a letter cannot be sent: %w", err)
		}
		return nil
	})
}
