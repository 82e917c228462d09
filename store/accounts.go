package store

import (
	"context"
	"errors"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// How people sign in. Who somebody is must be known before their studio is, so
// that all of this is asked as the house.

// An Account is what signing in needs to know of somebody.
type Account struct {
	Person
	StudioID uuid.UUID
	Studio   string // its name
	SignIn   string
	Email    string
	Hash     string // of the password; empty where none is chosen

	WantsLetters bool // when something was said of a take
}

// accounts are those of who is here: not archived, not to be removed.
const accounts = `
	SELECT p.id, p.name, p.role, p.demo, p.studio_id, st.name AS studio, coalesce(p.sign_in, '') AS sign_in, coalesce(p.email, '') AS email, coalesce(w.hash, '') AS hash, p.wants_letters
	FROM people p JOIN studios st ON st.id = p.studio_id LEFT JOIN passwords w ON w.person_id = p.id
	WHERE p.archived_at IS NULL AND p.remove_at IS NULL AND `

// asked is the studio of a handle, $1, or the only one there is.
const asked = `(st.handle = lower($1) OR $1 = '' AND (SELECT count(*) FROM (SELECT FROM studios LIMIT 2) AS few) = 1)`

func (s *Store) account(ctx context.Context, where string, args ...any) (Account, error) {
	return one[Account](s.pool.Query(AsHouse(ctx), accounts+where, args...))
}

// Account returns that of somebody who is here, or [ErrNotFound].
func (s *Store) Account(ctx context.Context, person uuid.UUID) (Account, error) {
	return s.account(ctx, `p.id = $1`, person)
}

// AccountOf returns that of a name in a studio, whose handle may be left out where
// there is one studio only; or [ErrNotFound].
func (s *Store) AccountOf(ctx context.Context, studio, name string) (Account, error) {
	return s.account(ctx, `lower(p.sign_in) = lower($2) AND `+asked, studio, name)
}

// SetPassword gives somebody a name to sign in with and a password. The code they
// came in by is used up, and links to set another password are void. Their
// sessions end.
func (s *Store) SetPassword(ctx context.Context, person uuid.UUID, signIn, hash string) error {
	ctx = AsHouse(ctx)
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE people SET sign_in = $2, joined_at = coalesce(joined_at, now()) WHERE id = $1 AND archived_at IS NULL AND remove_at IS NULL`, person, signIn); err != nil {
			return nameTaken(err)
		}
		if err := shutOut(ctx, tx, person); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `INSERT INTO passwords (person_id, hash) VALUES ($1, $2)`, person, hash)
		return err
	})
}

// shutOut ends all by which somebody comes in, before they are given another way.
func shutOut(ctx context.Context, tx pgx.Tx, person uuid.UUID) error {
	for _, statement := range []string{
		`DELETE FROM passwords WHERE person_id = $1`,
		`DELETE FROM codes WHERE person_id = $1`,
		`DELETE FROM resets WHERE person_id = $1`,
	} {
		if _, err := tx.Exec(ctx, statement, person); err != nil {
			return err
		}
	}
	return endSessions(ctx, tx, person)
}

// codeLasts is how long a code waits to be used, as PostgreSQL writes it. Once it
// was used it stays until a password is chosen or another code given.
const codeLasts = "60 days"

// A Code is how somebody comes in before they have a password, or without one: a
// part by which it is found, and the hash of the rest.
type Code struct{ Finder, Rest string }

// PutCode gives somebody a code in place of what they came in by before: an older
// code, and a password too. Their sessions end. It fails with [ErrNameTaken]
// where another's code is found by the same part.
func (s *Store) PutCode(ctx context.Context, person uuid.UUID, c Code) error {
	// Only who sees the person may do so.
	if _, err := s.Person(ctx, person); err != nil {
		return err
	}
	scoped := ctx
	ctx = AsHouse(ctx)
	return s.in(ctx, func(tx pgx.Tx) error {
		p, err := oneByPos[heldPerson](tx.Query(ctx, `
			UPDATE people SET invited_at = now() WHERE id = $1 AND archived_at IS NULL AND remove_at IS NULL RETURNING id, name, role, demo, revision`, person))
		if err != nil {
			return err
		}
		if err := shutOut(ctx, tx, person); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `INSERT INTO codes (person_id, finder, rest, expires_at) VALUES ($1, $2, $3, now() + $4::interval)`, person, c.Finder, c.Rest, codeLasts)
		if err != nil {
			return nameTaken(err)
		}
		return writeAs(ctx, tx, scopeOf(scoped), Line{Did: "gave a code to", Student: studentID(p.Person), About: p.Name})
	})
}

// AccountOfCode returns whose code is found by its first part, with the hash of
// its rest; or [ErrNotFound].
func (s *Store) AccountOfCode(ctx context.Context, finder string) (a Account, rest string, err error) {
	type found struct {
		PersonID uuid.UUID
		Rest     string
	}
	f, err := one[found](s.pool.Query(AsHouse(ctx), `SELECT person_id, rest FROM codes WHERE finder = $1 AND (expires_at IS NULL OR expires_at > now())`, finder))
	if err != nil {
		return a, "", err
	}
	if a, err = s.Account(ctx, f.PersonID); err != nil {
		return a, "", err // who is not here comes in by no code
	}
	return a, f.Rest, nil
}

// CameIn notes that somebody came in by their code, which stays from then on.
func (s *Store) CameIn(ctx context.Context, person uuid.UUID) error {
	ctx = AsHouse(ctx)
	return s.in(ctx, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `UPDATE people SET joined_at = coalesce(joined_at, now()) WHERE id = $1`, person); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `UPDATE codes SET expires_at = NULL WHERE person_id = $1`, person)
		return err
	})
}

// DemoPeople returns a page's size of the invented people, instructors first, then
// by name, after somebody where given.
func (s *Store) DemoPeople(ctx context.Context, after *uuid.UUID) ([]Person, error) {
	return all[Person](s.pool.Query(AsHouse(ctx), `
		SELECT id, name, role, demo FROM people
		WHERE demo AND archived_at IS NULL AND remove_at IS NULL
		  AND ($1::uuid IS NULL OR (role = 'student', name, id) > (SELECT role = 'student', name, id FROM people WHERE id = $1))
		ORDER BY role = 'student', name, id LIMIT $2`, after, MaxPage))
}

// resetLasts is how long a link to set another password can be used, and
// lettersLast how long letters are kept, as PostgreSQL writes it.
const (
	resetLasts  = "1 hour"
	lettersLast = "30 days"
)

// AddReset writes a letter to somebody with a link to set another password, whose
// token is kept as its SHA-256, and does what is given in the same transaction. It
// takes the place of letters to them that were not sent: their links are void.
func (s *Store) AddReset(ctx context.Context, a Account, hash []byte, m Mail, also func(pgx.Tx) error) error {
	ctx = AsHouse(ctx)
	return s.in(ctx, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `DELETE FROM resets WHERE person_id = $1 OR expires_at < now()`, a.ID); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `INSERT INTO resets (token, person_id, expires_at) VALUES ($1, $2, now() + $3::interval)`, hash, a.ID, resetLasts); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `
			DELETE FROM mails WHERE studio_id = $1 AND (recipient = $2 AND sent_at IS NULL OR made_at < now() - $3::interval)`,
			a.StudioID, m.Recipient, lettersLast); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `INSERT INTO mails (id, studio_id, recipient, subject, text) VALUES ($1, $2, $3, $4, $5)`,
			m.ID, a.StudioID, m.Recipient, m.Subject, m.Text); err != nil {
			return err
		}
		return also(tx)
	})
}

// AccountOfReset returns who may set another password with a token, or [ErrUsed].
func (s *Store) AccountOfReset(ctx context.Context, hash []byte) (Account, error) {
	a, err := s.account(ctx, `p.id = (SELECT person_id FROM resets WHERE token = $1 AND expires_at > now())`, hash)
	return a, used(err)
}

// SendMail lets a letter be sent that was not yet, by one at a time; another who tries
// meanwhile has nothing to do. Once sent, what was in it is forgotten; why it was not
// stands beside it, and is returned.
func (s *Store) SendMail(ctx context.Context, id uuid.UUID, send func(Mail) error) error {
	ctx = AsHouse(ctx)
	var fault error
	err := s.in(ctx, func(tx pgx.Tx) error {
		m, err := one[Mail](tx.Query(ctx, `
			SELECT id, recipient, subject, text, made_at, sent_at, failure FROM mails WHERE id = $1 AND sent_at IS NULL FOR UPDATE SKIP LOCKED`, id))
		if errors.Is(err, ErrNotFound) {
			return nil
		}
		if err != nil {
			return err
		}
		if fault = send(m); fault != nil {
			_, err = tx.Exec(ctx, `UPDATE mails SET failure = $2 WHERE id = $1`, id, fault.Error())
			return err
		}
		_, err = tx.Exec(ctx, `UPDATE mails SET failure = NULL, sent_at = now(), text = '' WHERE id = $1`, id)
		return err
	})
	return errors.Join(fault, err)
}

// OwnerOf returns the account of a studio's owner; its handle may be left out where
// there is one studio only.
func (s *Store) OwnerOf(ctx context.Context, studio string) (Account, error) {
	return s.account(ctx, `p.role = 'owner' AND NOT p.demo AND `+asked, studio)
}
