package store

import (
	"context"
	"errors"
	"fmt"
	"io"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A place keeps the sounds of takes: the database, or outside it a folder or a bucket
// where the settings name one. Each sound knows whether it lies outside, so that the
// setting can change.
type place interface {
	// put keeps a sound in place of what was there and returns its size in bytes.
	// What the place cannot do in the transaction it does before: it is kept then
	// though the transaction may fail.
	put(ctx context.Context, tx pgx.Tx, take uuid.UUID, sound io.Reader) (size int64, err error)

	// open opens a sound of a size; it is read as long as ctx lasts.
	open(ctx context.Context, take uuid.UUID, size int64) (Sound, error)

	// drop forgets a sound; one that is not there is no error.
	drop(ctx context.Context, take uuid.UUID) error
}

// A Sound is the recording of a take, read as it is asked for: only a part of it
// is held. It is read by one goroutine.
type Sound interface {
	io.ReadSeeker
	io.Closer
}

// ErrDropped is returned for a sound whose time was over: the results of the take
// are kept.
var ErrDropped = errors.New("the sound was dropped")

// putSound keeps the sound of a take, in place of what was there.
func (s *Store) putSound(ctx context.Context, tx pgx.Tx, take uuid.UUID, sound io.Reader) error {
	size, err := s.newSounds().put(ctx, tx, take, sound)
	if err != nil {
		return err
	}
	_, err = tx.Exec(ctx, `
		INSERT INTO take_sounds (take_id, size, in_bucket) VALUES ($1, $2, $3)
		ON CONFLICT (take_id) DO UPDATE SET size = excluded.size, in_bucket = excluded.in_bucket`, take, size, s.outside != nil)
	return err
}

// newSounds is where sounds that come are kept.
func (s *Store) newSounds() place {
	if s.outside != nil {
		return s.outside
	}
	return inDatabase{s}
}

// KeepSound keeps the sound of a take in another form than it came in.
func (s *Store) KeepSound(ctx context.Context, take uuid.UUID, sound io.Reader) error {
	var was bool
	err := s.in(ctx, func(tx pgx.Tx) (err error) {
		// Of two who do so at once the second waits, and does it again.
		if was, err = value[bool](tx.Query(ctx, `SELECT in_bucket FROM take_sounds WHERE take_id = $1 FOR UPDATE`, take)); err != nil {
			return err
		}
		if err := s.putSound(ctx, tx, take, sound); err != nil {
			return err
		}
		if !was && s.outside != nil {
			_, err = tx.Exec(ctx, `DELETE FROM sound_parts WHERE take_id = $1`, take)
		}
		return err
	})
	return err
}

// Sound opens the recording of a take as it was handed in or, once it is measured,
// as FLAC; or returns [ErrNotFound] or [ErrDropped]. It is read as long as ctx
// lasts, and closed then.
func (s *Store) Sound(ctx context.Context, take uuid.UUID) (Sound, error) {
	type row struct {
		Size     *int64
		InBucket *bool
		Dropped  bool
	}
	of, err := oneByPos[row](s.pool.Query(ctx, `
		SELECT s.size, s.in_bucket, t.sound_dropped_at IS NOT NULL FROM takes t LEFT JOIN take_sounds s ON s.take_id = t.id WHERE t.id = $1`, take))
	switch {
	case err != nil:
		return nil, err
	case of.Dropped:
		return nil, ErrDropped
	case of.Size == nil:
		return nil, ErrNotFound
	case !*of.InBucket:
		return inDatabase{s}.open(ctx, take, *of.Size)
	case s.outside == nil:
		return nil, errNoOutside
	}
	return s.outside.open(ctx, take, *of.Size)
}

// inDatabase keeps sounds in rows, part by part, so that none is ever held whole.
type inDatabase struct{ store *Store }

// soundPart is how many bytes of a sound lie in one row.
const soundPart = 256 << 10

func (inDatabase) put(ctx context.Context, tx pgx.Tx, take uuid.UUID, sound io.Reader) (size int64, err error) {
	if _, err := tx.Exec(ctx, `DELETE FROM sound_parts WHERE take_id = $1`, take); err != nil {
		return 0, err
	}
	return putParts(ctx, tx, `INSERT INTO sound_parts (take_id, part, bytes) VALUES ($1, $2, $3)`, take, sound)
}

// putParts keeps what is read in rows, by a statement for a take, a number and bytes, and
// returns its size.
func putParts(ctx context.Context, tx pgx.Tx, insert string, take uuid.UUID, from io.Reader) (size int64, err error) {
	part := make([]byte, soundPart)
	for number := 0; ; number++ {
		n, err := io.ReadFull(from, part)
		if n > 0 {
			if _, err := tx.Exec(ctx, insert, take, number, part[:n]); err != nil {
				return 0, err
			}
			size += int64(n)
		}
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			return size, nil
		}
		if err != nil {
			return 0, err
		}
	}
}

func (d inDatabase) open(ctx context.Context, take uuid.UUID, size int64) (Sound, error) {
	return d.store.parts(ctx, `SELECT bytes FROM sound_parts WHERE take_id = $1 AND part = $2`, take, size), nil
}

// parts opens what lies in rows, by a query for a take and a number.
func (s *Store) parts(ctx context.Context, query string, take uuid.UUID, size int64) Sound {
	return &rowSound{ctx: ctx, store: s, query: query, take: take, size: size, held: -1}
}

func (d inDatabase) drop(ctx context.Context, take uuid.UUID) error {
	_, err := d.store.pool.Exec(ctx, `DELETE FROM sound_parts WHERE take_id = $1`, take)
	return err
}

// A rowSound reads a sound row by row.
type rowSound struct {
	ctx   context.Context
	store *Store
	query string // of a part
	take  uuid.UUID
	size  int64
	at    int64
	held  int // number of the part that is held, −1 for none
	part  []byte
}

// Read reads on from where the sound was left.
func (s *rowSound) Read(p []byte) (int, error) {
	if s.at >= s.size {
		return 0, io.EOF
	}
	if number := int(s.at / soundPart); number != s.held {
		part, err := value[[]byte](s.store.pool.Query(s.ctx, s.query, s.take, number))
		if err != nil {
			return 0, fmt.Errorf("part %d of the sound cannot be read: %w", number, err)
		}
		s.held, s.part = number, part
	}
	from := s.at % soundPart
	if from >= int64(len(s.part)) {
		return 0, io.ErrUnexpectedEOF // it was replaced by a shorter one meanwhile
	}
	n := copy(p, s.part[from:])
	s.at += int64(n)
	return n, nil
}

// Seek goes to a place in the sound.
func (s *rowSound) Seek(offset int64, whence int) (int64, error) {
	at, err := seek(s.at, s.size, offset, whence)
	s.at = at
	return at, err
}

// Close has nothing to give back.
func (s *rowSound) Close() error { return nil }

// seek is the place in a sound of a size that is an offset away from another.
func seek(at, size, offset int64, whence int) (int64, error) {
	switch whence {
	case io.SeekCurrent:
		offset += at
	case io.SeekEnd:
		offset += size
	}
	if offset < 0 {
		return at, errors.New("there is nothing before the start of a sound")
	}
	return offset, nil
}
