package store

import (
	"context"
	"fmt"
	"io"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"gocloud.dev/blob"
	_ "gocloud.dev/blob/fileblob" // file:///folder
	_ "gocloud.dev/blob/s3blob"   // s3://bucket?region=…
	"gocloud.dev/gcerrors"
)

// KeepSoundsIn lets sounds that come be kept in a bucket, named as gocloud.dev/blob
// names it: file:///folder, or s3://bucket with its region and endpoint. It is
// called before the store is used.
func (s *Store) KeepSoundsIn(ctx context.Context, url string) error {
	b, err := blob.OpenBucket(ctx, url)
	if err != nil {
		return fmt.Errorf("the place of the sounds cannot be opened: %w", err)
	}
	if ok, err := b.IsAccessible(ctx); err != nil || !ok {
		return fmt.Errorf("the bucket %s does not answer (%v); check its name and who may use it", url, err)
	}
	s.bucket = &inBucket{b}
	return nil
}

// inBucket keeps each sound as an object. Objects are no part of a transaction: one
// is written before its row is, and dropped after; what is left over where that
// breaks off is found by [Store.DropStrays].
type inBucket struct{ bucket *blob.Bucket }

func key(take uuid.UUID) string { return "takes/" + take.String() }

func (b inBucket) put(ctx context.Context, _ pgx.Tx, take uuid.UUID, sound io.Reader) (int64, error) {
	ctx, cancel := context.WithCancel(ctx)
	defer cancel() // what was not written to its end is not kept
	w, err := b.bucket.NewWriter(ctx, key(take), &blob.WriterOptions{ContentType: "application/octet-stream"})
	if err != nil {
		return 0, err
	}
	size, err := io.Copy(w, sound)
	if err != nil {
		cancel()
		_ = w.Close()
		return 0, err
	}
	return size, w.Close()
}

func (b inBucket) open(ctx context.Context, take uuid.UUID, _ int64) (Sound, error) {
	r, err := b.bucket.NewReader(ctx, key(take), nil)
	if gcerrors.Code(err) == gcerrors.NotFound {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, fmt.Errorf("the sound cannot be read from its bucket: %w", err)
	}
	return r, nil
}

func (b inBucket) drop(ctx context.Context, take uuid.UUID) error {
	if err := b.bucket.Delete(ctx, key(take)); gcerrors.Code(err) != gcerrors.NotFound {
		return err
	}
	return nil
}

// strayAge is how old an object without a take must be to be dropped: a take that
// comes is written after its sound.
const strayAge = 24 * time.Hour

// DropStrays drops the objects of the bucket that are no take's.
func (s *Store) DropStrays(ctx context.Context) error {
	if s.bucket == nil {
		return nil
	}
	return s.dropStrays(AsHouse(ctx), time.Now().Add(-strayAge))
}

func (s *Store) dropStrays(ctx context.Context, before time.Time) error {
	objects := s.bucket.bucket.List(&blob.ListOptions{Prefix: "takes/"})
	for {
		o, err := objects.Next(ctx)
		if err == io.EOF {
			return nil
		}
		if err != nil {
			return err
		}
		take, err := uuid.Parse(o.Key[len("takes/"):])
		if err != nil || o.ModTime.After(before) {
			continue // not ours, or too fresh
		}
		kept, err := value[bool](s.pool.Query(ctx, `SELECT EXISTS (SELECT FROM take_sounds WHERE take_id = $1 AND in_bucket)`, take))
		if err != nil {
			return err
		}
		if !kept {
			if err := s.bucket.drop(ctx, take); err != nil {
				return err
			}
		}
	}
}
