package server

import (
	"context"
	"strconv"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/drill"
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
func (s *Server) add(ctx context.Context, id uuid.UUID, file drillfile.File, shelf store.Shelf) (api.SavedDrill, error) {
	if err := s.store.AddDrill(ctx, id, file, shelf); err != nil {
		return api.SavedDrill{}, err
	}
	return s.saved(ctx, id)
}

// ListDrills lists drills.
func (s *Server) ListDrills(ctx context.Context, r api.ListDrillsRequestObject) (api.ListDrillsResponseObject, error) {
	page, err := pageOf(r.Params.After, r.Params.Limit)
	if err != nil {
		return nil, err
	}
	drills, err := s.store.Drills(ctx, page)
	return api.ListDrills200JSONResponse{
		Items: each(drills, savedDrillOf),
		Next:  next(drills, page, func(d store.Drill) (time.Time, uuid.UUID) { return d.ChangedAt, d.ID }),
	}, err
}

// CreateDrill saves a new drill.
func (s *Server) CreateDrill(ctx context.Context, r api.CreateDrillRequestObject) (api.CreateDrillResponseObject, error) {
	file, err := s.checked(ctx, r.Body, r.Params.For)
	if err != nil {
		return nil, err
	}
	saved, err := s.add(ctx, r.Params.Id, file, store.Shelf{})
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
	if err := s.store.ChangeDrill(ctx, r.DrillId, r.Params.IfMatch, file); err != nil {
		return nil, err
	}
	saved, err := s.saved(ctx, r.DrillId)
	return api.ChangeDrill200JSONResponse(saved), err
}

// DeleteDrill takes a drill off the list.
func (s *Server) DeleteDrill(ctx context.Context, r api.DeleteDrillRequestObject) (api.DeleteDrillResponseObject, error) {
	return api.DeleteDrill204Response{}, s.store.DeleteDrill(ctx, r.DrillId)
}

// RestoreDrill brings a deleted drill back.
func (s *Server) RestoreDrill(ctx context.Context, r api.RestoreDrillRequestObject) (api.RestoreDrillResponseObject, error) {
	return api.RestoreDrill204Response{}, s.store.RestoreDrill(ctx, r.DrillId)
}

// CopyDrill saves a copy under a name of its own.
func (s *Server) CopyDrill(ctx context.Context, r api.CopyDrillRequestObject) (api.CopyDrillResponseObject, error) {
	original, err := s.store.Drill(ctx, r.DrillId)
	if err != nil {
		return nil, err
	}
	if original.File.Odd != nil {
		return nil, errOdd
	}
	file := original.File.Value
	file.Drill.Name = copyName(file.Drill.Name)
	saved, err := s.add(ctx, r.Params.Id, file, original.Shelf)
	return api.CopyDrill201JSONResponse(saved), err
}

// copyName is the name of a copy.
func copyName(name string) string {
	const mark = " (copy)"
	if runes := []rune(name); len(runes) > drill.MaxName-len(mark) {
		name = string(runes[:drill.MaxName-len(mark)])
	}
	return name + mark
}

// PutOnShelf says where a drill stands in the library.
func (s *Server) PutOnShelf(ctx context.Context, r api.PutOnShelfRequestObject) (api.PutOnShelfResponseObject, error) {
	shelf := store.Shelf{Folder: r.Body.Folder, Tags: r.Body.Tags, Favourite: r.Body.Favourite, ShelfRevision: r.Params.IfMatch}
	if err := s.store.PutOnShelf(ctx, r.DrillId, shelf); err != nil {
		return nil, err
	}
	saved, err := s.saved(ctx, r.DrillId)
	return api.PutOnShelf200JSONResponse(saved), err
}

// ListVersions returns a drill's history.
func (s *Server) ListVersions(ctx context.Context, r api.ListVersionsRequestObject) (api.ListVersionsResponseObject, error) {
	var before *int
	if r.Params.After != nil {
		n, err := strconv.Atoi(*r.Params.After)
		if err != nil {
			return nil, notAPlace(store.ErrCursor)
		}
		before = &n
	}
	versions, err := s.store.Versions(ctx, r.DrillId, before)
	if err == nil && len(versions) == 0 && before == nil {
		err = store.ErrNotFound
	}
	page := api.ListVersions200JSONResponse{Items: each(versions, versionOf)}
	if len(versions) == store.VersionsPage {
		last := strconv.Itoa(versions[len(versions)-1].Version)
		page.Next = &last
	}
	return page, err
}
