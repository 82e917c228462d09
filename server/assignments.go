package server

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/progress"
	"manudrill/store"
)

// ListAssignments lists what is assigned now.
func (s *Server) ListAssignments(ctx context.Context, r api.ListAssignmentsRequestObject) (api.ListAssignmentsResponseObject, error) {
	page, err := pageOf(r.Params.After, r.Params.Limit)
	if err != nil {
		return nil, err
	}
	got, err := s.store.Assignments(ctx, r.Params.StudentId, r.Params.DrillId, page)
	return api.ListAssignments200JSONResponse{
		Items: each(got, assignmentOf),
		Next:  next(got, page, func(a store.Assignment) (time.Time, uuid.UUID) { return a.AssignedAt, a.ID }),
	}, err
}

// ListPupils lists the students with what they have.
func (s *Server) ListPupils(ctx context.Context, r api.ListPupilsRequestObject) (api.ListPupilsResponseObject, error) {
	after, err := afterID(r.Params.After)
	if err != nil {
		return nil, err
	}
	page, err := pageOf(nil, r.Params.Limit)
	if err != nil {
		return nil, err
	}
	got, err := s.store.Pupils(ctx, r.Params.GroupId, after, page)
	return api.ListPupils200JSONResponse{
		Items: each(got, pupilOf),
		Next:  nextID(got, page.Size(), func(p store.Pupil) uuid.UUID { return p.ID }),
	}, err
}

// GetPupil returns a student with what is assigned to them.
func (s *Server) GetPupil(ctx context.Context, r api.GetPupilRequestObject) (api.GetPupilResponseObject, error) {
	p, err := s.store.Pupil(ctx, r.StudentId)
	return api.GetPupil200JSONResponse(pupilOf(p)), err
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
	a, err := s.store.Stand(ctx, id)
	return api.Assign201JSONResponse(assignmentOf(a.Assignment)), err
}

// playable reports the faults of a drill on a student's guitar.
func (s *Server) playable(ctx context.Context, drill, student uuid.UUID) error {
	d, err := s.store.Drill(ctx, drill)
	if err != nil {
		return err
	}
	if d.File.Odd != nil {
		return errOdd
	}
	_, err = s.checked(ctx, &d.File.Value, &student)
	return err
}

// GiveNewest puts the newest version of the drill on the student's stand.
func (s *Server) GiveNewest(ctx context.Context, r api.GiveNewestRequestObject) (api.GiveNewestResponseObject, error) {
	a, err := s.store.Stand(ctx, r.AssignmentId)
	if err != nil {
		return nil, err
	}
	if err := s.playable(ctx, a.DrillID, a.Student.ID); err != nil {
		return nil, err
	}
	if err := s.store.GiveNewest(ctx, a.ID); err != nil {
		return nil, err
	}
	a, err = s.store.Stand(ctx, a.ID)
	return api.GiveNewest200JSONResponse(assignmentOf(a.Assignment)), err
}

// Unassign takes an assignment back.
func (s *Server) Unassign(ctx context.Context, r api.UnassignRequestObject) (api.UnassignResponseObject, error) {
	return api.Unassign204Response{}, s.store.Unassign(ctx, r.AssignmentId)
}

// Reassign gives an assignment back that was taken back.
func (s *Server) Reassign(ctx context.Context, r api.ReassignRequestObject) (api.ReassignResponseObject, error) {
	if err := s.store.Reassign(ctx, r.AssignmentId); err != nil {
		return nil, err
	}
	a, err := s.store.Stand(ctx, r.AssignmentId)
	return api.Reassign200JSONResponse(assignmentOf(a.Assignment)), err
}

// stand returns an assignment that the person here may see, with its drill.
func (s *Server) stand(ctx context.Context, id uuid.UUID) (store.Stand, error) {
	a, err := s.store.Stand(ctx, id)
	if err != nil {
		return a, err
	}
	if a.File.Odd != nil {
		return store.Stand{}, errOdd
	}
	return a, nil
}

// GetAssignment returns what lies on the stand.
func (s *Server) GetAssignment(ctx context.Context, r api.GetAssignmentRequestObject) (api.GetAssignmentResponseObject, error) {
	a, err := s.stand(ctx, r.AssignmentId)
	if err != nil {
		return nil, err
	}
	setup := a.StudentSetup()
	chart, err := a.File.Value.Drill.Chart(setup.Guitar, a.BPM())
	if err != nil {
		return nil, err
	}
	return api.GetAssignment200JSONResponse{
		Assignment: assignmentOf(a.Assignment), Chart: chart, BeatsPerPass: chart.Beats(), Neck: neckOf(setup, chart),
	}, nil
}

// GetProgress returns the trend of an assignment's takes.
func (s *Server) GetProgress(ctx context.Context, r api.GetProgressRequestObject) (api.GetProgressResponseObject, error) {
	page, err := pageOf(r.Params.After, r.Params.Limit)
	if err != nil {
		return nil, err
	}
	a, err := s.stand(ctx, r.AssignmentId)
	if err != nil {
		return nil, err
	}
	takes, passedBefore, err := s.store.Trend(ctx, a.ID, page)
	if err != nil {
		return nil, err
	}
	played := each(takes, func(t store.TrendTake) progress.Played {
		return progress.Played{TakeID: t.ID.String(), At: t.RecordedAt, BPM: t.BPM, SpreadPercent: t.SpreadPercent, Decision: t.Decision}
	})
	slices.Reverse(played) // the latest came first
	return api.GetProgress200JSONResponse{
		Trend: progress.TrendOf(a.Ladder.Value.TargetBPM, passedBefore, played),
		Next:  next(takes, page, func(t store.TrendTake) (time.Time, uuid.UUID) { return t.RecordedAt, t.ID }),
	}, nil
}
