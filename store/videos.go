package store

import (
	"context"
	"io"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A Video shows the hands while a take is played.
type Video struct {
	Media    string  // its media type
	Size     int64   // bytes
	StartsAt float64 // s from the start of the take's sound
}

const insertVideoPart = `INSERT INTO video_parts (take_id, part, bytes) VALUES ($1, $2, $3)`

// PutVideo keeps the video of a take, in place of what was there.
func (s *Store) PutVideo(ctx context.Context, take uuid.UUID, v Video, video io.Reader) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		// Of two who do so at once the second waits.
		if err := touch(ctx, tx, `SELECT 1 FROM takes WHERE id = $1 FOR NO KEY UPDATE`, take); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `DELETE FROM take_videos WHERE take_id = $1`, take); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `INSERT INTO take_videos (take_id, media, size, starts_at) VALUES ($1, $2, 0, $3)`, take, v.Media, v.StartsAt); err != nil {
			return err
		}
		size, err := putParts(ctx, tx, insertVideoPart, take, video)
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `UPDATE take_videos SET size = $2 WHERE take_id = $1`, take, size)
		return err
	})
}

// OpenVideo opens the video of a take, or returns [ErrNotFound]. It is read as long as ctx
// lasts, and closed then.
func (s *Store) OpenVideo(ctx context.Context, take uuid.UUID) (Video, Sound, error) {
	v, err := one[Video](s.pool.Query(ctx, `SELECT media, size, starts_at FROM take_videos WHERE take_id = $1`, take))
	if err != nil {
		return v, nil, err
	}
	return v, s.parts(ctx, `SELECT bytes FROM video_parts WHERE take_id = $1 AND part = $2`, take, v.Size), nil
}

// DeleteVideo deletes the video of a take for good; all else of the take stays.
func (s *Store) DeleteVideo(ctx context.Context, take uuid.UUID) error {
	return touch(ctx, s.pool, `DELETE FROM take_videos WHERE take_id = $1`, take)
}

// AskVideo sets whether a student is asked for their hands on video with an assignment.
func (s *Store) AskVideo(ctx context.Context, assignment uuid.UUID, asked bool) error {
	return touch(ctx, s.pool, `UPDATE assignments SET video = $2 WHERE id = $1`, assignment, asked)
}

// AsksVideo reports whether the hands are asked for on video with the drill of a take.
func (s *Store) AsksVideo(ctx context.Context, take uuid.UUID) (bool, error) {
	return value[bool](s.pool.Query(ctx, `SELECT a.video FROM takes t JOIN assignments a ON a.id = t.assignment_id WHERE t.id = $1`, take))
}

// DropOldVideos deletes the videos that are older than their studio keeps sounds: none is
// kept longer, whatever it is of. It returns how many.
func (s *Store) DropOldVideos(ctx context.Context) (dropped int, err error) {
	tag, err := s.pool.Exec(AsHouse(ctx), `
		DELETE FROM take_videos v USING takes t JOIN studios st ON st.id = t.studio_id
		WHERE t.id = v.take_id AND v.made_at < now() - make_interval(days => st.sound_days)`)
	return int(tag.RowsAffected()), err
}
