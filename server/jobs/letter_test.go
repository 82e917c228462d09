package jobs_test

import (
	"context"
	"errors"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/server/jobs"
	"manudrill/store"
)

// box is a post that keeps what it is given, after failing so often.
type box struct {
	fails int
	mu    sync.Mutex
	texts []string
}

func (b *box) Send(_ context.Context, _, _, text string) error {
	b.mu.Lock()
	defer b.mu.Unlock()
	if b.fails > 0 {
		b.fails--
		return errors.New("the office is closed")
	}
	b.texts = append(b.texts, text)
	return nil
}

// A letter is sent once, tried again where that fails, and what was in it forgotten.
func TestALetterIsSentOnce(t *testing.T) {
	queue, err := jobs.NewQueue(s)
	require.NoError(t, err)
	account, err := s.Account(t.Context(), ann.ID)
	require.NoError(t, err)
	letter := store.Mail{ID: uuid.New(), Recipient: "ann@example.org", Subject: "x", Text: "the link " + uuid.NewString()}
	require.NoError(t, s.AddReset(t.Context(), account, []byte(letter.Text), letter, func(tx pgx.Tx) error {
		return errors.Join(queue.Letter(t.Context(), tx, letter.ID), queue.Letter(t.Context(), tx, letter.ID))
	}))
	post := &box{fails: 1}
	w, err := jobs.Start(in(t), s, post)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, w.Stop(context.Background())) })
	kept := func() store.Mail {
		t.Helper()
		mails, err := s.Mails(in(t), store.Page{})
		require.NoError(t, err)
		for _, m := range mails {
			if m.ID == letter.ID {
				return m
			}
		}
		t.Fatal("the letter is gone")
		return store.Mail{}
	}
	require.Eventually(t, func() bool { return kept().SentAt != nil }, time.Minute, 20*time.Millisecond)
	assert.Empty(t, kept().Text)
	assert.Nil(t, kept().Failure)
	require.Eventually(t, func() bool { // also the second job has come to its end
		var left int
		return s.Pool().QueryRow(in(t), `SELECT count(*) FROM river_job WHERE kind = 'letter' AND state <> 'completed'`).Scan(&left) == nil && left == 0
	}, time.Minute, 20*time.Millisecond)
	post.mu.Lock()
	defer post.mu.Unlock()
	assert.Equal(t, []string{letter.Text}, post.texts)
}
