package server

import (
	"context"

	"manudrill/api"
)

// Correct keeps that something told of a take was not so.
func (s *Server) Correct(ctx context.Context, r api.CorrectRequestObject) (api.CorrectResponseObject, error) {
	if _, err := s.measured(ctx, r.TakeId); err != nil {
		return nil, err
	}
	if err := s.store.Correct(ctx, r.TakeId, r.CorrectionId, *r.Body); err != nil {
		return nil, err
	}
	take, err := s.takeNow(ctx, r.TakeId)
	return api.Correct200JSONResponse(take), err
}

// TakeBackCorrection lets what was told stand again.
func (s *Server) TakeBackCorrection(ctx context.Context, r api.TakeBackCorrectionRequestObject) (api.TakeBackCorrectionResponseObject, error) {
	if err := s.store.TakeBackCorrection(ctx, r.TakeId, r.CorrectionId); err != nil {
		return nil, err
	}
	take, err := s.takeNow(ctx, r.TakeId)
	return api.TakeBackCorrection200JSONResponse(take), err
}

// GetContradictions tells how often each kind of what is told was said not to be so.
func (s *Server) GetContradictions(ctx context.Context, _ api.GetContradictionsRequestObject) (api.GetContradictionsResponseObject, error) {
	kinds, takes, err := s.store.Contradictions(ctx)
	return api.GetContradictions200JSONResponse{Takes: takes, Kinds: each(kinds, contradictedOf)}, err
}
