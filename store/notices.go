package store

import (
	"context"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// SetLetters sets whether somebody gets a letter when something was said of a take.
func (s *Store) SetLetters(ctx context.Context, person uuid.UUID, wanted bool) error {
	return touch(AsHouse(ctx), s.pool, `UPDATE people SET wants_letters = $2 WHERE id = $1`, person, wanted)
}

// toldEvery is how long after a letter there is no other, as PostgreSQL writes it: whoever
// looks by then finds all that was said meanwhile.
const toldEvery = "6 hours"

// Tell writes a letter to those who want one when something was said of a take, by whoever
// says it: to the student, and to those who have said something of it before. It does what
// is given with each in the same transaction. It is one of its own, after what was said is
// kept: people are locked before takes.
func (s *Store) Tell(ctx context.Context, take, by uuid.UUID, letter func(Account) Mail, also func(pgx.Tx, Mail) error) error {
	studio := scopeOf(ctx).Studio
	ctx = AsHouse(ctx)
	return s.in(ctx, func(tx pgx.Tx) error {
		told, err := everyID(tx.Query(ctx, `
			UPDATE people SET told_at = now() WHERE id IN (
				SELECT id FROM people p WHERE p.studio_id = $4 AND p.wants_letters AND p.email <> '' AND NOT p.demo AND p.archived_at IS NULL AND p.remove_at IS NULL
				  AND (p.told_at IS NULL OR p.told_at < now() - $3::interval) AND p.id <> $2
				  AND (p.id = (SELECT student_id FROM takes WHERE id = $1) OR p.id IN (SELECT author_id FROM take_comments WHERE take_id = $1)
				       OR p.id = (SELECT author_id FROM reviews WHERE take_id = $1))
				ORDER BY p.id FOR UPDATE) RETURNING id`, take, by, toldEvery, studio))
		if err != nil {
			return err
		}
		for _, id := range told {
			account, err := one[Account](tx.Query(ctx, accounts+`p.id = $1`, id))
			if err != nil {
				return err
			}
			m := letter(account)
			if _, err := tx.Exec(ctx, `INSERT INTO mails (id, studio_id, recipient, subject, text) VALUES ($1, $2, $3, $4, $5)`, m.ID, account.StudioID, m.Recipient, m.Subject, m.Text); err != nil {
				return err
			}
			if err := also(tx, m); err != nil {
				return err
			}
		}
		return nil
	})
}
