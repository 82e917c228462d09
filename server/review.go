package server

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/advice"
	"manudrill/core/evenness"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// GetContrast sets two takes side by side, the earlier one first.
func (s *Server) GetContrast(ctx context.Context, r api.GetContrastRequestObject) (api.GetContrastResponseObject, error) {
	before, err := s.measured(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	after, err := s.measured(ctx, r.OtherId)
	if err != nil {
		return nil, err
	}
	if after.RecordedAt.Before(before.RecordedAt) {
		before, after = after, before
	}
	c, err := evenness.Compare(*before.Analysis, *after.Analysis, before.Chart, after.Chart)
	if errors.Is(err, evenness.ErrOtherNotes) {
		err = errOtherNotes
	}
	return api.GetContrast200JSONResponse(c), err
}

// TakeRemedy keeps a remedy of a take as a drill and puts it on the student's
// stand. The drill's id comes from the take and the remedy, so that asking twice
// makes one.
func (s *Server) TakeRemedy(ctx context.Context, r api.TakeRemedyRequestObject) (api.TakeRemedyResponseObject, error) {
	t, err := s.measured(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	remedies := advice.Of(*t.Analysis, t.Chart).Remedies
	if r.Number >= len(remedies) {
		return nil, errMissing
	}
	remedy := remedies[r.Number]
	file, err := s.checked(ctx, &drillfile.File{Drill: remedy.Drill, Ladder: remedy.Ladder}, &t.Student.ID)
	if err != nil {
		return nil, err
	}
	drill := uuid.NewSHA1(t.ID, []byte(remedy.Drill.Name))
	id, err := s.store.AddRemedy(ctx, drill, file, store.Shelf{Folder: "Remedies"}, t.Student.ID)
	if err != nil {
		return nil, err
	}
	a, err := s.store.Stand(ctx, id)
	return api.TakeRemedy200JSONResponse(assignmentOf(a.Assignment)), err
}

// PutComment pins a comment to a note.
func (s *Server) PutComment(ctx context.Context, r api.PutCommentRequestObject) (api.PutCommentResponseObject, error) {
	t, err := s.measured(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	if r.Body.Note >= len(t.Analysis.Notes) {
		return nil, errMissing
	}
	c := store.Comment{ID: r.CommentId, TakeID: t.ID, Note: r.Body.Note, Text: r.Body.Text, Author: here(ctx).Person, Revision: r.Params.IfMatch}
	if err := s.store.PutComment(ctx, c); err != nil {
		return nil, err
	}
	s.tellOf(ctx, t.ID)
	all, err := s.store.Comments(ctx, t.ID)
	return api.PutComment200JSONResponse(each(all, commentOf)), err
}

// ListUnread lists the comments that whoever is here has not read yet.
func (s *Server) ListUnread(ctx context.Context, _ api.ListUnreadRequestObject) (api.ListUnreadResponseObject, error) {
	unread, err := s.store.UnreadComments(ctx)
	return api.ListUnread200JSONResponse(each(unread, takeCommentOf)), err
}

// ListComments lists the comments on the takes of a student.
func (s *Server) ListComments(ctx context.Context, r api.ListCommentsRequestObject) (api.ListCommentsResponseObject, error) {
	page, err := pageOf(r.Params.After, r.Params.Limit)
	if err != nil {
		return nil, err
	}
	if _, err := s.store.Pupil(ctx, r.StudentId); err != nil {
		return nil, err
	}
	got, err := s.store.CommentsOf(ctx, r.StudentId, page)
	return api.ListComments200JSONResponse{
		Items: each(got, takeCommentOf), Next: next(got, page, func(c store.TakeComment) (time.Time, uuid.UUID) { return c.WrittenAt, c.ID }),
	}, err
}

// MarkRead says that the comments of a take are read.
func (s *Server) MarkRead(ctx context.Context, r api.MarkReadRequestObject) (api.MarkReadResponseObject, error) {
	if _, err := s.store.TakeState(ctx, r.TakeId); err != nil {
		return nil, err
	}
	return api.MarkRead204Response{}, s.store.MarkRead(ctx, r.TakeId)
}

// DeleteComment takes a comment off.
func (s *Server) DeleteComment(ctx context.Context, r api.DeleteCommentRequestObject) (api.DeleteCommentResponseObject, error) {
	return api.DeleteComment204Response{}, s.store.DeleteComment(ctx, r.CommentId, r.TakeId, here(ctx).ID)
}
