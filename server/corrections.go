package server

import (
	"context"
	"slices"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/advice"
	"manudrill/core/evenness"
	"manudrill/store"
)

// Correct keeps that something told of a take was not so.
func (s *Server) Correct(ctx context.Context, r api.CorrectRequestObject) (api.CorrectResponseObject, error) {
	t, err := s.measured(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	if !finds(t, r.CorrectionId, *r.Body) {
		return nil, errNotTold
	}
	if err := s.store.Correct(ctx, r.TakeId, r.CorrectionId, *r.Body); err != nil {
		return nil, err
	}
	take, err := s.takeNow(ctx, r.TakeId)
	return api.Correct200JSONResponse(take), err
}

// finds reports whether a finding that is said not to be so is one of the take's, or was said
// already; of other things the store knows.
func finds(t store.Take, id uuid.UUID, c evenness.Correction) bool {
	said := slices.ContainsFunc(t.Corrections, func(k store.Correction) bool { return k.ID == id || k.What == c })
	return c.Of != evenness.OfFinding || said ||
		slices.ContainsFunc(advice.Of(*t.Analysis, t.Chart).Findings, func(f advice.Finding) bool { return f.About == c.Kind })
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
