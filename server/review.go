package server

import (
	"context"
	"errors"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/evenness"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// GetContrast sets two takes side by side, the earlier one first.
func (s *Server) GetContrast(ctx context.Context, r api.GetContrastRequestObject) (api.GetContrastResponseObject, error) {
	before, err := s.take(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	after, err := s.take(ctx, r.OtherId)
	if err != nil {
		return nil, err
	}
	if after.RecordedAt.Before(before.RecordedAt) {
		before, after = after, before
	}
	c, err := evenness.Compare(before.Analysis, after.Analysis, before.Chart, after.Chart)
	if errors.Is(err, evenness.ErrOtherNotes) {
		err = errOtherNotes
	}
	return api.GetContrast200JSONResponse(c), err
}

// TakeRemedy keeps a remedy of a take as a drill and puts it on the student's
// stand. The drill's id comes from the take and the remedy, so that asking twice
// makes one.
func (s *Server) TakeRemedy(ctx context.Context, r api.TakeRemedyRequestObject) (api.TakeRemedyResponseObject, error) {
	t, err := s.take(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	remedies := evenness.Advise(t.Analysis, t.Chart).Remedies
	if r.Number >= len(remedies) {
		return nil, errMissing
	}
	remedy := remedies[r.Number]
	drill := uuid.NewSHA1(t.ID, []byte(remedy.Drill.Name))
	if _, err := s.store.Drill(ctx, drill); errors.Is(err, store.ErrNotFound) {
		file, err := s.checked(ctx, &drillfile.File{Drill: remedy.Drill, Ladder: remedy.Ladder}, &t.Student.ID)
		if err != nil {
			return nil, err
		}
		if err := s.store.AddDrill(ctx, drill, file, store.Shelf{Folder: "Remedies"}); err != nil {
			return nil, err
		}
	} else if err != nil {
		return nil, err
	}
	id, err := s.store.Assign(ctx, drill, t.Student.ID)
	if err != nil {
		return nil, err
	}
	a, err := s.store.Assignment(ctx, id)
	return api.TakeRemedy200JSONResponse(assignmentOf(a)), err
}

// PutComment pins a comment to a note.
func (s *Server) PutComment(ctx context.Context, r api.PutCommentRequestObject) (api.PutCommentResponseObject, error) {
	t, err := s.take(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	if r.Body.Note >= len(t.Analysis.Notes) {
		return nil, errMissing
	}
	c := store.Comment{ID: r.CommentId, TakeID: t.ID, Note: r.Body.Note, Text: r.Body.Text, Author: here(ctx)}
	if err := s.store.PutComment(ctx, c); err != nil {
		return nil, err
	}
	all, err := s.store.Comments(ctx, t.ID)
	return api.PutComment200JSONResponse(each(all, commentOf)), err
}

// DeleteComment takes a comment off.
func (s *Server) DeleteComment(ctx context.Context, r api.DeleteCommentRequestObject) (api.DeleteCommentResponseObject, error) {
	return api.DeleteComment204Response{}, s.store.DeleteComment(ctx, r.CommentId, r.TakeId, here(ctx).ID)
}
