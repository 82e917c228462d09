package server

import (
	"context"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/store"
)

// ListBlocks lists blocks.
func (s *Server) ListBlocks(ctx context.Context, r api.ListBlocksRequestObject) (api.ListBlocksResponseObject, error) {
	page, err := pageOf(r.Params.After, r.Params.Limit)
	if err != nil {
		return nil, err
	}
	blocks, err := s.store.Blocks(ctx, page)
	return api.ListBlocks200JSONResponse{
		Items: each(blocks, savedBlockOf),
		Next:  next(blocks, page, func(b store.Block) (time.Time, uuid.UUID) { return b.MadeAt, b.ID }),
	}, err
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
	if err := s.store.AddBlock(ctx, r.Params.Id, *r.Body); err != nil {
		return nil, err
	}
	b, err := s.store.Block(ctx, r.Params.Id)
	return api.CreateBlock201JSONResponse(savedBlockOf(b)), err
}

// GetBlock opens a block.
func (s *Server) GetBlock(ctx context.Context, r api.GetBlockRequestObject) (api.GetBlockResponseObject, error) {
	b, err := s.store.Block(ctx, r.BlockId)
	return api.GetBlock200JSONResponse(savedBlockOf(b)), err
}

// ChangeBlock saves a block that was changed: renamed, put in another order, its drills left
// out or played for longer.
func (s *Server) ChangeBlock(ctx context.Context, r api.ChangeBlockRequestObject) (api.ChangeBlockResponseObject, error) {
	setup, err := s.setupFor(ctx, nil)
	if err != nil {
		return nil, err
	}
	if faults := r.Body.Check(setup.Guitar); len(faults) > 0 {
		return nil, faults
	}
	if err := s.store.ChangeBlock(ctx, r.BlockId, r.Params.IfMatch, *r.Body); err != nil {
		return nil, err
	}
	b, err := s.store.Block(ctx, r.BlockId)
	return api.ChangeBlock200JSONResponse(savedBlockOf(b)), err
}

// DeleteBlock takes a block off the list.
func (s *Server) DeleteBlock(ctx context.Context, r api.DeleteBlockRequestObject) (api.DeleteBlockResponseObject, error) {
	return api.DeleteBlock204Response{}, s.store.DeleteBlock(ctx, r.BlockId)
}

// RestoreBlock brings a deleted block back.
func (s *Server) RestoreBlock(ctx context.Context, r api.RestoreBlockRequestObject) (api.RestoreBlockResponseObject, error) {
	return api.RestoreBlock204Response{}, s.store.RestoreBlock(ctx, r.BlockId)
}
