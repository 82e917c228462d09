package server

import (
	"context"

	"manudrill/api"
)

// GetSetup returns somebody's guitar, hand and weights. Students see their own.
func (s *Server) GetSetup(ctx context.Context, r api.GetSetupRequestObject) (api.GetSetupResponseObject, error) {
	if err := mayRead(ctx, r.PersonId); err != nil {
		return nil, err
	}
	setup, err := s.store.Setup(ctx, r.PersonId)
	return api.GetSetup200JSONResponse(setup), err
}

// ChangeSetup saves somebody's guitar, hand and weights.
func (s *Server) ChangeSetup(ctx context.Context, r api.ChangeSetupRequestObject) (api.ChangeSetupResponseObject, error) {
	if err := mayRead(ctx, r.PersonId); err != nil {
		return nil, err
	}
	if err := r.Body.Validate(); err != nil {
		return nil, notASetup(err)
	}
	if err := s.store.ChangeSetup(ctx, r.PersonId, *r.Body); err != nil {
		return nil, err
	}
	return api.ChangeSetup200JSONResponse(*r.Body), nil
}
