package server

import (
	"context"
	"slices"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/practice"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// ListRoutines lists a student's routines.
func (s *Server) ListRoutines(ctx context.Context, r api.ListRoutinesRequestObject) (api.ListRoutinesResponseObject, error) {
	if _, err := s.setupFor(ctx, &r.StudentId); err != nil {
		return nil, err // who may not see the student
	}
	kept, err := s.store.Routines(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	stands, err := s.standsOf(ctx, r.StudentId, kept...)
	return api.ListRoutines200JSONResponse(each(kept, func(r store.Routine) api.SavedRoutine { return routineOf(r, stands) })), err
}

// GetRoutine returns a routine.
func (s *Server) GetRoutine(ctx context.Context, r api.GetRoutineRequestObject) (api.GetRoutineResponseObject, error) {
	saved, err := s.savedRoutine(ctx, r.RoutineId)
	return api.GetRoutine200JSONResponse(saved), err
}

func (s *Server) savedRoutine(ctx context.Context, id uuid.UUID) (api.SavedRoutine, error) {
	kept, err := s.store.Routine(ctx, id)
	if err != nil {
		return api.SavedRoutine{}, err
	}
	stands, err := s.standsOf(ctx, kept.Student.ID, kept)
	return routineOf(kept, stands), err
}

// standsOf returns what a student has of the drills of some routines.
func (s *Server) standsOf(ctx context.Context, student uuid.UUID, routines ...store.Routine) ([]store.Stand, error) {
	var drills []uuid.UUID
	for _, r := range routines {
		for _, text := range r.Routine.Value.Drills() {
			if id, err := uuid.Parse(text); err == nil {
				drills = append(drills, id)
			}
		}
	}
	return s.store.StandsOf(ctx, student, drills)
}

// pause is the usual one between takes, s, and so is what a take lasts beyond its notes.
const (
	pause  = 4.0
	around = 1.0
)

func routineOf(r store.Routine, stands []store.Stand) api.SavedRoutine {
	out := api.SavedRoutine{
		Id: r.ID, Student: personOf(r.Student), Odd: odd(r.Routine.Odd), Routine: r.Routine.Value, Revision: r.Revision, Author: r.Author, ChangedAt: r.ChangedAt,
		Drills: []api.RoutineDrill{},
	}
	out.Routine.Items = notNil(out.Routine.Items)
	seconds := map[string]float64{}
	for _, text := range r.Routine.Value.Drills() {
		at := slices.IndexFunc(stands, func(a store.Stand) bool { return a.DrillID.String() == text })
		if at < 0 {
			continue
		}
		a := stands[at]
		out.Drills = append(out.Drills, api.RoutineDrill{DrillId: a.DrillID, AssignmentId: a.ID, Name: a.DrillName, Rung: a.Rung})
		if chart, err := a.File.Value.At(a.Rung).ChartFor(a.StudentSetup().Guitar, a.StudentSetup().Hand, a.Rung.BPM); a.File.Odd == nil && err == nil {
			seconds[text] = chart.TakeSeconds() + float64(chart.BarBeats())*60/chart.BPM + around // a bar is counted in
		}
	}
	out.Seconds = r.Routine.Value.Seconds(func(id string) float64 { return seconds[id] }, pause)
	return out
}

// PutRoutine makes a routine or changes it.
func (s *Server) PutRoutine(ctx context.Context, r api.PutRoutineRequestObject) (api.PutRoutineResponseObject, error) {
	if faults := r.Body.Check(); len(faults) > 0 {
		return nil, faults
	}
	var drills []uuid.UUID
	for _, text := range r.Body.Drills() {
		id, err := uuid.Parse(text)
		if err != nil {
			return nil, drill.Faults{{Field: "items", Text: "An item names a drill that is none; choose it anew."}}
		}
		if err := s.playable(ctx, id, r.StudentId); err != nil {
			return nil, err
		}
		drills = append(drills, id)
	}
	if err := s.store.PutRoutine(ctx, r.RoutineId, r.StudentId, r.Params.IfMatch, *r.Body, drills); err != nil {
		return nil, err
	}
	saved, err := s.savedRoutine(ctx, r.RoutineId)
	return api.PutRoutine200JSONResponse(saved), err
}

// AddReadyRoutine makes a routine that ships, with its drills. The drills' ids come
// from the studio and their names, so that each is there once however often it is asked
// for.
func (s *Server) AddReadyRoutine(ctx context.Context, r api.AddReadyRoutineRequestObject) (api.AddReadyRoutineResponseObject, error) {
	all := practice.ReadyRoutines()
	at := slices.IndexFunc(all, func(a practice.Ready) bool { return a.ID == r.ReadyId })
	if at < 0 {
		return nil, errMissing
	}
	routine, brought := fromReady(all[at], here(ctx).StudioID)
	for _, d := range brought {
		if _, err := s.checked(ctx, &d.File, &r.StudentId); err != nil {
			return nil, err
		}
	}
	if err := s.store.AddRoutine(ctx, r.RoutineId, r.StudentId, routine, brought); err != nil {
		return nil, err
	}
	saved, err := s.savedRoutine(ctx, r.RoutineId)
	return api.AddReadyRoutine201JSONResponse(saved), err
}

// fromReady gives the drills of a routine that ships their ids in a studio.
func fromReady(ready practice.Ready, studio uuid.UUID) (practice.Routine, []store.NewDrill) {
	routine := ready.Routine
	routine.Items = slices.Clone(routine.Items)
	var brought []store.NewDrill
	for _, d := range ready.Drills {
		id := uuid.NewSHA1(studio, []byte("ready drill "+d.Name))
		brought = append(brought, store.NewDrill{ID: id, File: drillfile.File{Drill: d, Ladder: tempo.Usual()}, Shelf: store.Shelf{Folder: routine.Name}})
		for i := range routine.Items {
			if routine.Items[i].Drill == d.Name {
				routine.Items[i].Drill = id.String()
			}
		}
	}
	return routine, brought
}

// DeleteRoutine takes a routine away.
func (s *Server) DeleteRoutine(ctx context.Context, r api.DeleteRoutineRequestObject) (api.DeleteRoutineResponseObject, error) {
	return api.DeleteRoutine204Response{}, s.store.DeleteRoutine(ctx, r.RoutineId)
}

// RestoreRoutine brings a deleted routine back.
func (s *Server) RestoreRoutine(ctx context.Context, r api.RestoreRoutineRequestObject) (api.RestoreRoutineResponseObject, error) {
	return api.RestoreRoutine204Response{}, s.store.RestoreRoutine(ctx, r.RoutineId)
}

// GetRoutineStands returns all that is needed to play a routine. A drill that cannot be
// laid out any more is left out, as one that was taken back.
func (s *Server) GetRoutineStands(ctx context.Context, r api.GetRoutineStandsRequestObject) (api.GetRoutineStandsResponseObject, error) {
	kept, err := s.store.Routine(ctx, r.RoutineId)
	if err != nil {
		return nil, err
	}
	stands, err := s.standsOf(ctx, kept.Student.ID, kept)
	if err != nil {
		return nil, err
	}
	out := api.GetRoutineStands200JSONResponse{}
	for _, a := range stands {
		if a.File.Odd != nil {
			continue
		}
		laid, err := s.laid(ctx, a, nil)
		if _, faulty := err.(drill.Faults); faulty {
			continue
		}
		if err != nil {
			return nil, err
		}
		out = append(out, laid)
	}
	return out, nil
}
