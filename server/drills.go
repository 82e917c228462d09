package server

import (
	"context"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// checked returns the drill document of a request if it can be played on the
// guitar it is for.
func (s *Server) checked(ctx context.Context, file *drillfile.File, person *uuid.UUID) (drillfile.File, error) {
	setup, err := s.setupFor(ctx, person)
	if err != nil {
		return drillfile.File{}, err
	}
	if faults := file.Check(setup.Guitar); len(faults) > 0 {
		return drillfile.File{}, faults
	}
	return *file, nil
}

// saved returns a drill as it is kept.
func (s *Server) saved(ctx context.Context, id uuid.UUID) (api.SavedDrill, error) {
	d, err := s.store.Drill(ctx, id)
	return savedDrillOf(d), err
}

// add keeps a new drill.
func (s *Server) add(ctx context.Context, file drillfile.File, shelf store.Shelf) (api.SavedDrill, error) {
	id := uuid.New()
	if err := s.store.AddDrill(ctx, id, file, shelf); err != nil {
		return api.SavedDrill{}, err
	}
	return s.saved(ctx, id)
}

// ListDrills lists all drills.
func (s *Server) ListDrills(ctx context.Context, _ api.ListDrillsRequestObject) (api.ListDrillsResponseObject, error) {
	drills, err := s.store.Drills(ctx)
	return api.ListDrills200JSONResponse(each(drills, savedDrillOf)), err
}

// CreateDrill saves a new drill.
func (s *Server) CreateDrill(ctx context.Context, r api.CreateDrillRequestObject) (api.CreateDrillResponseObject, error) {
	file, err := s.checked(ctx, r.Body, r.Params.For)
	if err != nil {
		return nil, err
	}
	saved, err := s.add(ctx, file, store.Shelf{})
	return api.CreateDrill201JSONResponse(saved), err
}

// GetDrill opens a drill.
func (s *Server) GetDrill(ctx context.Context, r api.GetDrillRequestObject) (api.GetDrillResponseObject, error) {
	saved, err := s.saved(ctx, r.DrillId)
	return api.GetDrill200JSONResponse(saved), err
}

// ChangeDrill saves a changed drill.
func (s *Server) ChangeDrill(ctx context.Context, r api.ChangeDrillRequestObject) (api.ChangeDrillResponseObject, error) {
	file, err := s.checked(ctx, r.Body, r.Params.For)
	if err != nil {
		return nil, err
	}
	if err := s.store.ChangeDrill(ctx, r.DrillId, file); err != nil {
		return nil, err
	}
	saved, err := s.saved(ctx, r.DrillId)
	return api.ChangeDrill200JSONResponse(saved), err
}

// DeleteDrill takes a drill off the list.
func (s *Server) DeleteDrill(ctx context.Context, r api.DeleteDrillRequestObject) (api.DeleteDrillResponseObject, error) {
	return api.DeleteDrill204Response{}, s.store.DeleteDrill(ctx, r.DrillId)
}

// CopyDrill saves a copy under a name of its own.
func (s *Server) CopyDrill(ctx context.Context, r api.CopyDrillRequestObject) (api.CopyDrillResponseObject, error) {
	original, err := s.store.Drill(ctx, r.DrillId)
	if err != nil {
		return nil, err
	}
	original.File.Drill.Name += " (copy)"
	saved, err := s.add(ctx, original.File, original.Shelf)
	return api.CopyDrill201JSONResponse(saved), err
}

// PutOnShelf says where a drill stands in the library.
func (s *Server) PutOnShelf(ctx context.Context, r api.PutOnShelfRequestObject) (api.PutOnShelfResponseObject, error) {
	if err := s.store.PutOnShelf(ctx, r.DrillId, store.Shelf{Folder: r.Body.Folder, Tags: r.Body.Tags, Favourite: r.Body.Favourite}); err != nil {
		return nil, err
	}
	saved, err := s.saved(ctx, r.DrillId)
	return api.PutOnShelf200JSONResponse(saved), err
}

// ListVersions returns a drill's history.
func (s *Server) ListVersions(ctx context.Context, r api.ListVersionsRequestObject) (api.ListVersionsResponseObject, error) {
	versions, err := s.store.Versions(ctx, r.DrillId)
	if err == nil && len(versions) == 0 {
		err = store.ErrNotFound
	}
	return api.ListVersions200JSONResponse(each(versions, versionOf)), err
}
