package server

import (
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/advice"
	"manudrill/core/progress"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
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
	file, err := s.readableDrill(ctx, drill)
	if err != nil {
		return err
	}
	_, err = s.checked(ctx, &file, &student)
	return err
}

// readableDrill returns the document of a drill, unless it cannot be read.
func (s *Server) readableDrill(ctx context.Context, id uuid.UUID) (drillfile.File, error) {
	d, err := s.store.Drill(ctx, id)
	if err == nil && d.File.Odd != nil {
		err = errOdd
	}
	return d.File.Value, err
}

// misfits tells which of some drills do not fit which of some students.
func (s *Server) misfits(ctx context.Context, drills, students []uuid.UUID) ([]api.Misfit, error) {
	files := make([]drillfile.File, len(drills))
	for i, id := range drills {
		file, err := s.readableDrill(ctx, id)
		if err != nil {
			return nil, err
		}
		files[i] = file
	}
	found := []api.Misfit{}
	for _, student := range students {
		setup, err := s.setupFor(ctx, &student)
		if err != nil {
			return nil, err
		}
		for i, file := range files {
			if m, is := file.Misfit(setup); is {
				found = append(found, api.Misfit{DrillId: drills[i], StudentId: student, Text: m.Text, Stops: m.Stops})
			}
		}
	}
	return found, nil
}

// ListMisfits tells which drills do not fit which student.
func (s *Server) ListMisfits(ctx context.Context, r api.ListMisfitsRequestObject) (api.ListMisfitsResponseObject, error) {
	if err := fewEnough(r.Body.DrillIds, r.Body.StudentIds); err != nil {
		return nil, err
	}
	found, err := s.misfits(ctx, r.Body.DrillIds, r.Body.StudentIds)
	return api.ListMisfits200JSONResponse(found), err
}

// mostPairs is the most drills times students that are assigned at once.
const mostPairs = 2000

func fewEnough(drills, students []uuid.UUID) error {
	if len(drills)*len(students) > mostPairs {
		return errTooManyPairs
	}
	return nil
}

// AssignMany gives some drills to some students, but for those that cannot be
// played on the student's guitar.
func (s *Server) AssignMany(ctx context.Context, r api.AssignManyRequestObject) (api.AssignManyResponseObject, error) {
	if err := fewEnough(r.Body.DrillIds, r.Body.StudentIds); err != nil {
		return nil, err
	}
	found, err := s.misfits(ctx, r.Body.DrillIds, r.Body.StudentIds)
	if err != nil {
		return nil, err
	}
	type pair struct{ drill, student uuid.UUID }
	stops := map[pair]bool{}
	answer := api.AssignMany200JSONResponse{Misfits: []api.Misfit{}}
	for _, m := range found {
		if m.Stops {
			stops[pair{m.DrillId, m.StudentId}] = true
			answer.Misfits = append(answer.Misfits, m)
		}
	}
	for _, drill := range r.Body.DrillIds {
		for _, student := range r.Body.StudentIds {
			if stops[pair{drill, student}] {
				continue
			}
			if _, err := s.store.Assign(ctx, drill, student); err != nil {
				return nil, err
			}
			answer.Assigned++
		}
	}
	return answer, nil
}

// SetRung puts a student on a rung.
func (s *Server) SetRung(ctx context.Context, r api.SetRungRequestObject) (api.SetRungResponseObject, error) {
	a, err := s.stand(ctx, r.AssignmentId)
	if err != nil {
		return nil, err
	}
	gate := a.GateNow()
	if r.Body.Gate != nil {
		gate = *r.Body.Gate
	}
	own := tempo.Ladder{Rule: tempo.ByList, List: tempo.Rungs{r.Body.Rung}, Gate: gate}
	if faults := own.Check(r.Body.Rung.NotesPerBeat); len(faults) > 0 {
		return nil, faults
	}
	// It must be playable there, on the student's guitar.
	if _, err := a.File.Value.At(r.Body.Rung).ChartFor(a.StudentSetup().Guitar, a.StudentSetup().Hand, r.Body.Rung.BPM); err != nil {
		return nil, err
	}
	if err := s.store.SetRung(ctx, a.ID, r.Params.IfMatch, r.Body.Rung, r.Body.Gate, strings.TrimSpace(r.Body.Reason)); err != nil {
		return nil, err
	}
	a, err = s.store.Stand(ctx, a.ID)
	return api.SetRung200JSONResponse(assignmentOf(a.Assignment)), err
}

// StartFound puts a student on the rung that a search on the stand has found: the fastest
// that is not above its range. A gate that was set for them stays.
func (s *Server) StartFound(ctx context.Context, r api.StartFoundRequestObject) (api.StartFoundResponseObject, error) {
	a, err := s.stand(ctx, r.AssignmentId)
	if err != nil {
		return nil, err
	}
	if a.EndedAt != nil {
		return nil, errEnded
	}
	rungs := a.Rungs()
	if len(rungs) == 0 {
		return nil, a.Ladder.Value.Check(a.Division)
	}
	found := tempo.Found{BPM: r.Body.Bpm, Low: min(r.Body.Low, r.Body.Bpm), High: max(r.Body.High, r.Body.Bpm), Takes: r.Body.Takes}
	rung := rungs.AtMost(tempo.Rung{BPM: found.Low, NotesPerBeat: r.Body.NotesPerBeat})
	hurt, err := s.store.Hurts(ctx, a.Student.ID)
	if err != nil {
		return nil, err
	}
	if hurt && rung.NotesPerSecond() > a.Rung.NotesPerSecond() {
		return nil, errHurts
	}
	var gate *tempo.Gate
	if a.Gate != nil && a.Gate.Odd == nil {
		gate = &a.Gate.Value
	}
	if err := s.store.SetRung(ctx, a.ID, r.Params.IfMatch, rung, gate, "Found on the stand. "+found.Say()); err != nil {
		return nil, err
	}
	a, err = s.store.Stand(ctx, a.ID)
	return api.StartFound200JSONResponse(assignmentOf(a.Assignment)), err
}

// ListMoves lists what led a student to where they stand.
func (s *Server) ListMoves(ctx context.Context, r api.ListMovesRequestObject) (api.ListMovesResponseObject, error) {
	page, err := pageOf(r.Params.After, r.Params.Limit)
	if err != nil {
		return nil, err
	}
	if _, err := s.store.Stand(ctx, r.AssignmentId); err != nil {
		return nil, err
	}
	got, err := s.store.Moves(ctx, r.AssignmentId, page)
	return api.ListMoves200JSONResponse{
		Items: each(got, moveOf), Next: next(got, page, func(m store.Move) (time.Time, uuid.UUID) { return m.At, m.ID }),
	}, err
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
	laid, err := s.laid(ctx, a, r.Params.Position)
	return api.GetAssignment200JSONResponse(laid), err
}

// move moves the drill on a stand to a position, and returns it; nil where it stays in its
// own: none is asked for, or it does not fit there.
func move(a *store.Stand, position *int) *int {
	file := a.File.Value
	if position == nil || *position == 0 || *position == file.Drill.Path.Position {
		return nil
	}
	file.Drill = file.Drill.InPosition(*position)
	if len(file.Check(a.StudentSetup().Guitar)) > 0 {
		return nil
	}
	a.File.Value = file
	return position
}

// laid is what lies on the stand, written out at the student's rung and moved to a
// position where one is given.
func (s *Server) laid(ctx context.Context, a store.Stand, position *int) (api.Stand, error) {
	setup := a.StudentSetup()
	position = move(&a, position)
	chart, err := a.File.Value.At(a.Rung).ChartFor(setup.Guitar, setup.Hand, a.Rung.BPM)
	if err != nil {
		return api.Stand{}, err
	}
	results, err := s.store.ResultsNow(ctx, a.ID)
	if err != nil {
		return api.Stand{}, err
	}
	hurt, err := s.store.Hurts(ctx, a.Student.ID)
	if err != nil {
		return api.Stand{}, err
	}
	ladder := a.Ladder.Value
	ladder.Gate = a.GateNow()
	return api.Stand{
		Assignment: assignmentOf(a.Assignment), Chart: chart, BeatsPerPass: chart.Beats(), Neck: neckOf(setup, chart),
		Climbing: tempo.Climbing{Ladder: ladder, NotesPerBeat: a.Division, Results: results, Hurt: hurt},
		Drill:    a.File.Value.Drill, Position: position, Guitar: setup.Guitar, Hand: &setup.Hand, School: setup.School, Cues: advice.Cues(chart, setup.School, nil),
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
		return progress.Played{TakeID: t.ID.String(), At: t.RecordedAt, Rung: t.Rung, SpreadPercent: t.SpreadPercent, Passed: t.Passed}
	})
	slices.Reverse(played) // the latest came first
	return api.GetProgress200JSONResponse{
		Trend: progress.TrendOf(a.Rungs(), passedBefore, played),
		Next:  next(takes, page, func(t store.TrendTake) (time.Time, uuid.UUID) { return t.RecordedAt, t.ID }),
	}, nil
}
