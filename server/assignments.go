package server

import (
	"context"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/progress"
	"manudrill/store"
)

// ListAssignments lists what is assigned now.
func (s *Server) ListAssignments(ctx context.Context, r api.ListAssignmentsRequestObject) (api.ListAssignmentsResponseObject, error) {
	got, err := s.store.Assignments(ctx, ownStudent(ctx, r.Params.StudentId), r.Params.DrillId)
	return api.ListAssignments200JSONResponse(each(got, assignmentOf)), err
}

// Assign gives a drill to a student.
func (s *Server) Assign(ctx context.Context, r api.AssignRequestObject) (api.AssignResponseObject, error) {
	if err := s.playable(ctx, r.Body.DrillId, r.Body.StudentId); err != nil {
		return nil, err
	}
	id, err := s.store.Assign(ctx, r.Body.DrillId, r.Body.StudentId)
	if err != nil {
		return nil, err
	}
	a, err := s.store.Assignment(ctx, id)
	return api.Assign201JSONResponse(assignmentOf(a)), err
}

// playable reports the faults of a drill on a student's guitar.
func (s *Server) playable(ctx context.Context, drill, student uuid.UUID) error {
	d, err := s.store.Drill(ctx, drill)
	if err != nil {
		return err
	}
	_, err = s.checked(ctx, &d.File, &student)
	return err
}

// GiveNewest puts the newest version of the drill on the student's stand.
func (s *Server) GiveNewest(ctx context.Context, r api.GiveNewestRequestObject) (api.GiveNewestResponseObject, error) {
	a, err := s.store.Assignment(ctx, r.AssignmentId)
	if err != nil {
		return nil, err
	}
	if err := s.playable(ctx, a.DrillID, a.Student.ID); err != nil {
		return nil, err
	}
	if err := s.store.GiveNewest(ctx, a.ID); err != nil {
		return nil, err
	}
	a, err = s.store.Assignment(ctx, a.ID)
	return api.GiveNewest200JSONResponse(assignmentOf(a)), err
}

// Unassign takes an assignment back.
func (s *Server) Unassign(ctx context.Context, r api.UnassignRequestObject) (api.UnassignResponseObject, error) {
	return api.Unassign204Response{}, s.store.Unassign(ctx, r.AssignmentId)
}

// assignment returns an assignment that the person here may see.
func (s *Server) assignment(ctx context.Context, id uuid.UUID) (store.Assignment, error) {
	a, err := s.store.Assignment(ctx, id)
	if err != nil {
		return a, err
	}
	return a, mayRead(ctx, a.Student.ID)
}

// GetAssignment returns what lies on the stand.
func (s *Server) GetAssignment(ctx context.Context, r api.GetAssignmentRequestObject) (api.GetAssignmentResponseObject, error) {
	a, err := s.assignment(ctx, r.AssignmentId)
	if err != nil {
		return nil, err
	}
	chart, err := a.File.Drill.Chart(a.StudentSetup().Guitar, a.BPM())
	if err != nil {
		return nil, err
	}
	return api.GetAssignment200JSONResponse{Assignment: assignmentOf(a), Chart: chart, BeatsPerPass: chart.Beats(), Neck: neckOf(a.StudentSetup(), chart)}, nil
}

// GetProgress returns the trend of an assignment's takes.
func (s *Server) GetProgress(ctx context.Context, r api.GetProgressRequestObject) (api.GetProgressResponseObject, error) {
	a, err := s.assignment(ctx, r.AssignmentId)
	if err != nil {
		return nil, err
	}
	takes, err := s.store.Takes(ctx, &a.ID, nil)
	if err != nil {
		return nil, err
	}
	played := make([]progress.Played, len(takes))
	for i, t := range takes { // the latest comes first
		played[len(takes)-1-i] = progress.Played{
			TakeID: t.ID.String(), At: t.RecordedAt, BPM: t.BPM,
			SpreadPercent: t.Analysis.Timing.SpreadPercent, Decision: t.Decision,
		}
	}
	return api.GetProgress200JSONResponse(progress.TrendOf(a.File.Ladder.TargetBPM, played)), nil
}
