package server

import (
	"context"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/setup"
)

// setupOf returns somebody's setup as it is kept.
func (s *Server) setupOf(ctx context.Context, person uuid.UUID) (api.SavedSetup, error) {
	mine, revision, err := s.store.Setup(ctx, person)
	return api.SavedSetup{Setup: mine, Revision: revision, Schools: setup.SchoolChoices, Reach: mine.Guitar.ReachSteps()}, err
}

// GetSetup returns somebody's guitar, hand and weights.
func (s *Server) GetSetup(ctx context.Context, r api.GetSetupRequestObject) (api.GetSetupResponseObject, error) {
	setup, err := s.setupOf(ctx, r.PersonId)
	return api.GetSetup200JSONResponse(setup), err
}

// ChangeSetup saves somebody's guitar, hand and weights.
func (s *Server) ChangeSetup(ctx context.Context, r api.ChangeSetupRequestObject) (api.ChangeSetupResponseObject, error) {
	if err := r.Body.Validate(); err != nil {
		return nil, notASetup(err)
	}
	if err := s.store.ChangeSetup(ctx, r.PersonId, r.Params.IfMatch, *r.Body); err != nil {
		return nil, err
	}
	setup, err := s.setupOf(ctx, r.PersonId)
	return api.ChangeSetup200JSONResponse(setup), err
}
