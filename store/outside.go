package store

import (
	"context"
	"errors"
	"fmt"
	"net/url"
	"time"

	"github.com/google/uuid"
)

// An outside is a place for sounds that lies outside the database. What is in it is no
// part of a transaction: a sound is written before its row is, and dropped after; what
// is left over where that breaks off is found by [Store.DropStrays].
type outside interface {
	place

	// answers returns why the place cannot be used; nil where it can.
	answers(ctx context.Context) error

	// each tells every sound of the place, and since when it has lain there.
	each(ctx context.Context, tell func(take uuid.UUID, since time.Time) error) error
}

// KeepSoundsIn lets sounds that come be kept outside the database, in a folder
// (file:///folder) or in a bucket (s3://bucket?region=…, see [bucketOf]). It is called
// before the store is used.
func (s *Store) KeepSoundsIn(ctx context.Context, address string) error {
	o, err := outsideOf(address)
	if err != nil {
		return err
	}
	if err := o.answers(ctx); err != nil {
		return fmt.Errorf("the place of the sounds, %s, cannot be used: %w", address, err)
	}
	s.outside = o
	return nil
}

// outsideOf is the place that an address names.
func outsideOf(address string) (outside, error) {
	u, err := url.Parse(address)
	if err != nil {
		return nil, fmt.Errorf("the address of the sounds cannot be read: %w", err)
	}
	switch {
	case u.Scheme == "file" && u.Host == "" && u.Path != "":
		return inFolder(u.Path), nil
	case u.Scheme == "s3" && u.Host != "":
		return bucketOf(u.Host, u.Query())
	}
	return nil, fmt.Errorf("%q names no place for sounds; say file:///folder, or s3://bucket?region=…", address)
}

// strayAge is how long a sound without a take must have lain there to be dropped: a take
// that comes is written after its sound.
const strayAge = 24 * time.Hour

// DropStrays drops the sounds outside the database that are no take's.
func (s *Store) DropStrays(ctx context.Context) error {
	if s.outside == nil {
		return nil
	}
	return s.dropStrays(AsHouse(ctx), time.Now().Add(-strayAge))
}

func (s *Store) dropStrays(ctx context.Context, before time.Time) error {
	return s.outside.each(ctx, func(take uuid.UUID, since time.Time) error {
		if since.After(before) {
			return nil
		}
		kept, err := value[bool](s.pool.Query(ctx, `SELECT EXISTS (SELECT FROM take_sounds WHERE take_id = $1 AND in_bucket)`, take))
		if err != nil || kept {
			return err
		}
		return s.outside.drop(ctx, take)
	})
}

// errNoOutside is returned for a sound that lies where this program was not told to
// look.
var errNoOutside = errors.New("the sound lies in a place that MANUDRILL_SOUNDS does not name any more")
