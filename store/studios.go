package store

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"
	"unicode"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A Studio is one house of instructors and students, who see nothing of others.
type Studio struct {
	ID       uuid.UUID
	Name     string
	Handle   string // by which it is asked for where there are several
	Revision int

	SoundDays *int   // how long sounds are kept; nil for ever
	TimeZone  string // by which its days begin (IANA)
}

const selectStudios = `SELECT id, name, handle, revision, sound_days, time_zone FROM studios`

// ErrUsed is returned for a link or a code that was used already, has expired, or
// was never given out.
var ErrUsed = errors.New("used, expired or unknown")

// Studio returns the studio that is asked in, or [ErrNotFound].
func (s *Store) Studio(ctx context.Context) (Studio, error) {
	return one[Studio](s.pool.Query(ctx, selectStudios+` WHERE id = current_studio()`))
}

// Studios returns how many studios there are, two at the most.
func (s *Store) Studios(ctx context.Context) (int, error) {
	return value[int](s.pool.Query(AsHouse(ctx), `SELECT count(*) FROM (SELECT FROM studios LIMIT 2) AS few`))
}

// AddStudio makes a studio under an id. One that is there already is left as it is.
func (s *Store) AddStudio(ctx context.Context, id uuid.UUID, name string) error {
	return s.in(AsHouse(ctx), func(tx pgx.Tx) error { return addStudio(ctx, tx, id, name) })
}

func addStudio(ctx context.Context, tx pgx.Tx, id uuid.UUID, name string) error {
	if _, err := tx.Exec(ctx, `LOCK TABLE studios IN SHARE ROW EXCLUSIVE MODE`); err != nil { // two of one name get two handles
		return err
	}
	handle := handleOf(name)
	taken, err := value[int](tx.Query(ctx, `SELECT count(*) FROM studios WHERE handle = $1 OR handle ~ ('^' || $1 || '-[0-9]+$')`, handle))
	if err != nil {
		return err
	}
	if taken > 0 {
		handle = fmt.Sprintf("%s-%d", handle, taken+1)
	}
	_, err = tx.Exec(ctx, `INSERT INTO studios (id, name, handle) VALUES ($1, $2, $3) ON CONFLICT (id) DO NOTHING`, id, name, handle)
	return err
}

// handleOf is a name as it can be typed by anybody: letters, digits and dashes.
func handleOf(name string) string {
	var b strings.Builder
	for _, r := range strings.ToLower(name) {
		switch {
		case unicode.IsLetter(r) || unicode.IsDigit(r):
			b.WriteRune(r)
		case b.Len() > 0 && !strings.HasSuffix(b.String(), "-"):
			b.WriteByte('-')
		}
	}
	if handle := strings.TrimSuffix(b.String(), "-"); handle != "" {
		return handle
	}
	return "studio"
}

// ChangeStudio gives the studio another name and says for how many days it keeps
// sounds, nil for ever, from a revision. People go on signing in by the handle it
// has.
func (s *Store) ChangeStudio(ctx context.Context, from int, name string, soundDays *int, timeZone *string) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		revision, err := value[int](tx.Query(ctx, `SELECT revision FROM studios WHERE id = current_studio() FOR UPDATE`))
		if err != nil {
			return err
		}
		if revision != from {
			return ErrChanged
		}
		if err := checkZone(ctx, tx, timeZone); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `UPDATE studios SET name = $1, sound_days = $2, time_zone = coalesce($3, time_zone), revision = revision + 1 WHERE id = current_studio()`,
			name, soundDays, timeZone)
		if err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "set up the studio", About: name})
	})
}

// ErrTimeZone is returned for a time zone that there is not.
var ErrTimeZone = errors.New("there is no such time zone")

// checkZone reports [ErrTimeZone] for one that the database, which counts the days, does
// not know.
func checkZone(ctx context.Context, tx pgx.Tx, name *string) error {
	if name == nil {
		return nil
	}
	known, err := value[bool](tx.Query(ctx, `SELECT EXISTS (SELECT FROM pg_timezone_names WHERE name = $1)`, *name))
	if err == nil && !known {
		err = ErrTimeZone
	}
	return err
}

// openingLasts is how long a link to begin a studio can be used, as PostgreSQL
// writes it.
const openingLasts = "7 days"

// AddOpening lets whoever has a token begin a studio, once. It is kept as its
// SHA-256.
func (s *Store) AddOpening(ctx context.Context, hash []byte) error {
	_, err := s.pool.Exec(AsHouse(ctx), `INSERT INTO openings (token) VALUES ($1)`, hash)
	return err
}

// Opening reports [ErrUsed] unless a token can begin a studio.
func (s *Store) Opening(ctx context.Context, hash []byte) error {
	_, err := value[int](s.pool.Query(AsHouse(ctx), `SELECT 1 FROM openings WHERE token = $1 AND made_at > now() - $2::interval`, hash, openingLasts))
	return used(err)
}

func used(err error) error {
	if errors.Is(err, ErrNotFound) {
		return ErrUsed
	}
	return err
}

// A Beginning is a studio that is begun by its owner.
type Beginning struct {
	Studio   string
	Owner    string
	Email    string
	SignIn   string
	Password string  // its hash
	TimeZone *string // of the browser; nil for UTC
}

// Begin begins a studio with a token, which is used up, and returns its owner. A
// studio in which nobody can sign in yet, made by an earlier Manudrill, is taken
// over with all that is in it.
func (s *Store) Begin(ctx context.Context, hash []byte, b Beginning) (owner uuid.UUID, err error) {
	ctx = AsHouse(ctx)
	err = s.in(ctx, func(tx pgx.Tx) error {
		if err := used(touch(ctx, tx, `DELETE FROM openings WHERE token = $1 AND made_at > now() - $2::interval`, hash, openingLasts)); err != nil {
			return err
		}
		studio, err := oldStudio(ctx, tx)
		switch {
		case errors.Is(err, ErrNotFound):
			studio = uuid.New()
			err = addStudio(ctx, tx, studio, b.Studio)
		case err == nil:
			_, err = tx.Exec(ctx, `UPDATE studios SET name = $2, handle = $3 WHERE id = $1`, studio, b.Studio, handleOf(b.Studio))
		}
		if err != nil {
			return err
		}
		owner, err = value[uuid.UUID](tx.Query(ctx, `
			WITH first AS (SELECT id FROM people WHERE studio_id = $1 AND role = 'instructor' ORDER BY name LIMIT 1),
			took AS (UPDATE people SET name = $3, role = 'owner', email = nullif($4, ''), sign_in = $5, joined_at = now() FROM first WHERE people.id = first.id RETURNING people.id),
			made AS (INSERT INTO people (id, studio_id, name, role, email, sign_in, joined_at)
				SELECT $2, $1, $3, 'owner', nullif($4, ''), $5, now() WHERE NOT EXISTS (SELECT FROM first) RETURNING id)
			SELECT id FROM took UNION ALL SELECT id FROM made`, studio, uuid.New(), b.Owner, b.Email, b.SignIn))
		if err != nil {
			return nameTaken(err)
		}
		// A zone that only the browser knows is no reason not to begin.
		_, err = tx.Exec(ctx, `UPDATE studios SET time_zone = coalesce((SELECT name FROM pg_timezone_names WHERE name = $2), time_zone) WHERE id = $1`, studio, b.TimeZone)
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `INSERT INTO passwords (person_id, hash) VALUES ($1, $2)`, owner, b.Password)
		return err
	})
	return owner, err
}

// oldStudio is the studio of an earlier Manudrill, in which nobody could sign in.
func oldStudio(ctx context.Context, tx pgx.Tx) (uuid.UUID, error) {
	return value[uuid.UUID](tx.Query(ctx, `
		SELECT id FROM studios st WHERE NOT EXISTS (SELECT FROM people p WHERE p.studio_id = st.id AND (p.demo OR p.joined_at IS NOT NULL OR p.role = 'owner'))
		ORDER BY made_at LIMIT 1 FOR UPDATE`))
}

// NeedsOwner reports whether nobody has come in to any studio yet.
func (s *Store) NeedsOwner(ctx context.Context) (bool, error) {
	return value[bool](s.pool.Query(AsHouse(ctx), `SELECT NOT EXISTS (SELECT FROM people WHERE joined_at IS NOT NULL)`))
}

// A Mail is a letter to somebody of a studio.
type Mail struct {
	ID        uuid.UUID
	Recipient string
	Subject   string
	Text      string // empty once it was sent
	MadeAt    time.Time
	SentAt    *time.Time
	Failure   *string // why it could not be sent
}

// Mails returns what was written, the latest first.
func (s *Store) Mails(ctx context.Context, page Page) ([]Mail, error) {
	q := question{where: `true`}
	q.after(page, `made_at`, `id`)
	return all[Mail](s.pool.Query(ctx, `SELECT id, recipient, subject, text, made_at, sent_at, failure FROM mails`+q.text(), q.args...))
}
