package store

import (
	"context"
	"time"

	"github.com/google/uuid"

	"manudrill/formats/drillfile"
)

// A Block is a saved block.
type Block struct {
	ID     uuid.UUID
	Block  drillfile.Block
	MadeAt time.Time
}

const selectBlocks = `SELECT id, block, made_at FROM blocks WHERE deleted_at IS NULL`

// Blocks returns all blocks, the latest first.
func (s *Store) Blocks(ctx context.Context) ([]Block, error) {
	return all[Block](s.pool.Query(ctx, selectBlocks+` ORDER BY made_at DESC, id`))
}

// Block returns one block or [ErrNotFound].
func (s *Store) Block(ctx context.Context, id uuid.UUID) (Block, error) {
	return one[Block](s.pool.Query(ctx, selectBlocks+` AND id = $1`, id))
}

// AddBlock saves a new block.
func (s *Store) AddBlock(ctx context.Context, id uuid.UUID, b drillfile.Block) error {
	_, err := s.pool.Exec(ctx, `INSERT INTO blocks (id, block) VALUES ($1, $2)`, id, b)
	return err
}

// DeleteBlock takes a block off the list.
func (s *Store) DeleteBlock(ctx context.Context, id uuid.UUID) error {
	return s.touch(ctx, `UPDATE blocks SET deleted_at = now() WHERE id = $1 AND deleted_at IS NULL`, id)
}
