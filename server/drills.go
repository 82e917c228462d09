package server

import (
	"context"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/formats/drillfile"
)

// Preview writes a drill out while it is being set. Faults are part of the
// answer: a drill half set is no error.
func (s *Server) Preview(_ context.Context, r api.PreviewRequestObject) (api.PreviewResponseObject, error) {
	file := *r.Body
	p := api.Preview{Faults: append(drill.Faults{}, file.Check(s.guitar)...)}
	chart, err := file.Drill.Chart(s.guitar, file.Ladder.StartBPM)
	if err != nil {
		return api.Preview200JSONResponse(p), nil // the faults say why
	}
	cycle := drill.CycleOf(len(chart.Notes), chart.NotesPerBeat)
	neck := neckOf(s.guitar, chart)
	steps := stepsOf(file, chart)
	p.Chart, p.Cycle, p.Neck, p.Steps = &chart, &cycle, &neck, &steps
	return api.Preview200JSONResponse(p), nil
}

// stepsOf tells how fast the notes come at each tempo of the ladder.
func stepsOf(file drillfile.File, chart drill.Chart) []api.TempoStep {
	steps := []api.TempoStep{}
	for _, bpm := range file.Ladder.Steps() {
		chart.BPM = bpm
		steps = append(steps, api.TempoStep{Bpm: bpm, NotesPerSecond: chart.NotesPerSecond(), SecondsPerPass: chart.Seconds()})
	}
	return steps
}

// neckOf measures the neck and how far the hand reaches on it for a chart.
func neckOf(g guitar.Guitar, chart drill.Chart) api.Neck {
	n := api.Neck{Frets: g.Frets, ScaleMm: g.ScaleMM}
	for fret := range g.Frets + 1 {
		n.FretMm = append(n.FretMm, guitar.FretDistance(g.ScaleMM, fret))
	}
	low, high := g.Frets, 0
	for _, note := range chart.Notes {
		low, high = min(low, note.Fret), max(high, note.Fret)
	}
	n.ReachMm = g.Reach(low, high)
	return n
}

// checked returns the drill document of a request if it can be played.
func (s *Server) checked(file *drillfile.File) (drillfile.File, error) {
	if faults := file.Check(s.guitar); len(faults) > 0 {
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
func (s *Server) add(ctx context.Context, file drillfile.File) (api.SavedDrill, error) {
	id := uuid.New()
	if err := s.store.AddDrill(ctx, id, file); err != nil {
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
	file, err := s.checked(r.Body)
	if err != nil {
		return nil, err
	}
	saved, err := s.add(ctx, file)
	return api.CreateDrill201JSONResponse(saved), err
}

// GetDrill opens a drill.
func (s *Server) GetDrill(ctx context.Context, r api.GetDrillRequestObject) (api.GetDrillResponseObject, error) {
	saved, err := s.saved(ctx, r.DrillId)
	return api.GetDrill200JSONResponse(saved), err
}

// ChangeDrill saves a changed drill.
func (s *Server) ChangeDrill(ctx context.Context, r api.ChangeDrillRequestObject) (api.ChangeDrillResponseObject, error) {
	file, err := s.checked(r.Body)
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
	saved, err := s.add(ctx, original.File)
	return api.CopyDrill201JSONResponse(saved), err
}
