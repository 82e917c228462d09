package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/formats/drillfile"
)

// A Block is a saved block.
type Block struct {
	ID       uuid.UUID
	Name     string
	Block    Lenient[drillfile.Block]
	Revision int
	MadeAt   time.Time
}

const selectBlocks = `SELECT id, coalesce(block->>'name', '') AS name, block, revision, made_at FROM blocks`

// Blocks returns all blocks, the latest first.
func (s *Store) Blocks(ctx context.Context, page Page) ([]Block, error) {
	q := question{where: `deleted_at IS NULL`}
	q.after(page, `made_at`, `id`)
	return all[Block](s.pool.Query(ctx, selectBlocks+q.text(), q.args...))
}

// Block returns one block or [ErrNotFound].
func (s *Store) Block(ctx context.Context, id uuid.UUID) (Block, error) {
	return one[Block](s.pool.Query(ctx, selectBlocks+` WHERE deleted_at IS NULL AND id = $1`, id))
}

// AddBlock saves a new block under an id that its maker has given it. Where the id
// is there already, the block of it is left as it is: it was saved twice.
func (s *Store) AddBlock(ctx context.Context, id uuid.UUID, b drillfile.Block) error {
	_, err := s.pool.Exec(ctx, `INSERT INTO blocks (id, block) VALUES ($1, $2) ON CONFLICT DO NOTHING`, id, b)
	return err
}

// ChangeBlock saves a block that was changed from a revision. It returns [ErrChanged] where
// somebody else has changed it since.
func (s *Store) ChangeBlock(ctx context.Context, id uuid.UUID, from int, b drillfile.Block) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		revision, err := value[int](tx.Query(ctx, `SELECT revision FROM blocks WHERE id = $1 AND deleted_at IS NULL FOR UPDATE`, id))
		if err != nil {
			return err
		}
		if revision != from {
			return ErrChanged
		}
		_, err = tx.Exec(ctx, `UPDATE blocks SET block = $2, revision = revision + 1 WHERE id = $1`, id, b)
		return err
	})
}

// DeleteBlock takes a block off the list. For a while it can be brought back.
func (s *Store) DeleteBlock(ctx context.Context, id uuid.UUID) error {
	return touch(ctx, s.pool, `UPDATE blocks SET deleted_at = now() WHERE id = $1 AND deleted_at IS NULL`, id)
}

// RestoreBlock brings a deleted block back.
func (s *Store) RestoreBlock(ctx context.Context, id uuid.UUID) error {
	return touch(ctx, s.pool, `UPDATE blocks SET deleted_at = NULL WHERE id = $1 AND deleted_at > now() - $2::interval`, id, binKeeps)
}
