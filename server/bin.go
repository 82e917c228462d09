package server

import (
	"context"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/store"
)

// ListBin tells what can be brought back.
func (s *Server) ListBin(ctx context.Context, r api.ListBinRequestObject) (api.ListBinResponseObject, error) {
	page, err := pageOf(r.Params.After, nil)
	if err != nil {
		return nil, err
	}
	bin, err := s.store.Bin(ctx, page)
	return api.ListBin200JSONResponse{
		Items: each(bin, binnedOf),
		Next:  next(bin, page, func(b store.Binned) (time.Time, uuid.UUID) { return b.At, b.ID }),
	}, err
}

func binnedOf(b store.Binned) api.Binned {
	out := api.Binned{Kind: api.BinnedKind(b.Kind), Id: b.ID, Name: b.Name, At: b.At, Until: b.Until}
	if b.Student != "" {
		out.Student = &b.Student
	}
	return out
}
