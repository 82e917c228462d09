package server

import (
	"context"

	"github.com/google/uuid"

	"manudrill/api"
)

// ListBlocks lists all blocks.
func (s *Server) ListBlocks(ctx context.Context, _ api.ListBlocksRequestObject) (api.ListBlocksResponseObject, error) {
	blocks, err := s.store.Blocks(ctx)
	return api.ListBlocks200JSONResponse(each(blocks, savedBlockOf)), err
}

// CreateBlock saves a new block.
func (s *Server) CreateBlock(ctx context.Context, r api.CreateBlockRequestObject) (api.CreateBlockResponseObject, error) {
	setup, err := s.setupFor(ctx, r.Params.For)
	if err != nil {
		return nil, err
	}
	if faults := r.Body.Check(setup.Guitar); len(faults) > 0 {
		return nil, faults
	}
	id := uuid.New()
	if err := s.store.AddBlock(ctx, id, *r.Body); err != nil {
		return nil, err
	}
	b, err := s.store.Block(ctx, id)
	return api.CreateBlock201JSONResponse(savedBlockOf(b)), err
}

// GetBlock opens a block.
func (s *Server) GetBlock(ctx context.Context, r api.GetBlockRequestObject) (api.GetBlockResponseObject, error) {
	b, err := s.store.Block(ctx, r.BlockId)
	return api.GetBlock200JSONResponse(savedBlockOf(b)), err
}

// DeleteBlock takes a block off the list.
func (s *Server) DeleteBlock(ctx context.Context, r api.DeleteBlockRequestObject) (api.DeleteBlockResponseObject, error) {
	return api.DeleteBlock204Response{}, s.store.DeleteBlock(ctx, r.BlockId)
}
