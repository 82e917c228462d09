package store

import (
	"context"
	"errors"
	"fmt"
	"io"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// soundPart is how many bytes of a sound lie in one row.
const soundPart = 256 << 10

// putSound keeps the sound of a take, part by part, in place of what was there.
func putSound(ctx context.Context, tx pgx.Tx, take uuid.UUID, sound io.Reader) error {
	if _, err := tx.Exec(ctx, `DELETE FROM sound_parts WHERE take_id = $1`, take); err != nil {
		return err
	}
	part := make([]byte, soundPart)
	size := int64(0)
	for number := 0; ; number++ {
		n, err := io.ReadFull(sound, part)
		if n > 0 {
			if _, err := tx.Exec(ctx, `INSERT INTO sound_parts (take_id, part, bytes) VALUES ($1, $2, $3)`, take, number, part[:n]); err != nil {
				return err
			}
			size += int64(n)
		}
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			break
		}
		if err != nil {
			return err
		}
	}
	_, err := tx.Exec(ctx, `INSERT INTO take_sounds (take_id, size) VALUES ($1, $2) ON CONFLICT (take_id) DO UPDATE SET size = excluded.size`, take, size)
	return err
}

// KeepSound keeps the sound of a take in another form than it came in.
func (s *Store) KeepSound(ctx context.Context, take uuid.UUID, sound io.Reader) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		// Of two who do so at once the second waits, and does it again.
		if _, err := value[int](tx.Query(ctx, `SELECT 1 FROM take_sounds WHERE take_id = $1 FOR UPDATE`, take)); err != nil {
			return err
		}
		return putSound(ctx, tx, take, sound)
	})
}

// A Sound is the recording of a take, read part by part as it is asked for: only
// one part is held. It is read by one goroutine.
type Sound struct {
	ctx   context.Context
	store *Store
	take  uuid.UUID
	size  int64
	at    int64
	held  int // number of the part that is held, −1 for none
	part  []byte
}

// Sound opens the recording of a take as it was handed in or, once it is measured,
// as FLAC; or returns [ErrNotFound]. It is read as long as ctx lasts.
func (s *Store) Sound(ctx context.Context, take uuid.UUID) (*Sound, error) {
	size, err := value[int64](s.pool.Query(ctx, `SELECT size FROM take_sounds WHERE take_id = $1`, take))
	return &Sound{ctx: ctx, store: s, take: take, size: size, held: -1}, err
}

// Read reads on from where the sound was left.
func (s *Sound) Read(p []byte) (int, error) {
	if s.at >= s.size {
		return 0, io.EOF
	}
	if number := int(s.at / soundPart); number != s.held {
		part, err := value[[]byte](s.store.pool.Query(s.ctx, `SELECT bytes FROM sound_parts WHERE take_id = $1 AND part = $2`, s.take, number))
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
func (s *Sound) Seek(offset int64, whence int) (int64, error) {
	switch whence {
	case io.SeekCurrent:
		offset += s.at
	case io.SeekEnd:
		offset += s.size
	}
	if offset < 0 {
		return s.at, errors.New("there is nothing before the start of a sound")
	}
	s.at = offset
	return offset, nil
}
