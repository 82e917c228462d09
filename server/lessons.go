package server

import (
	"context"
	"errors"
	"time"

	"manudrill/api"
	"manudrill/core/progress"
	"manudrill/store"
)

// ListReviews lists the takes that wait for an instructor.
func (s *Server) ListReviews(ctx context.Context, _ api.ListReviewsRequestObject) (api.ListReviewsResponseObject, error) {
	today, err := s.store.Today(ctx)
	if err != nil {
		return nil, err
	}
	waiting, err := s.store.TakesToReview(ctx)
	return api.ListReviews200JSONResponse(each(waiting, func(w store.ToReview) api.WaitingTake {
		out := api.WaitingTake{
			AssignmentId: w.Assignment, Student: personOf(w.Student), DrillName: w.DrillName, TakeId: w.Take, RecordedAt: w.RecordedAt, Takes: w.Takes, Rung: w.Rung,
		}
		if state := stateOf(w.State); state != nil {
			finding := state.Finding.On(today)
			out.Finding = &finding
		}
		return out
	})), err
}

// PutReview says that a take was listened to.
func (s *Server) PutReview(ctx context.Context, r api.PutReviewRequestObject) (api.PutReviewResponseObject, error) {
	err := s.store.PutReview(ctx, r.TakeId, r.Body.Accepted, valueOf(r.Body.Note))
	if err == nil {
		s.tellOf(ctx, r.TakeId)
	}
	return api.PutReview204Response{}, err
}

// DeleteReview lets a take wait again.
func (s *Server) DeleteReview(ctx context.Context, r api.DeleteReviewRequestObject) (api.DeleteReviewResponseObject, error) {
	return api.DeleteReview204Response{}, s.store.DeleteReview(ctx, r.TakeId)
}

// ListUnreadReviews lists what instructors said that whoever is here has not read.
func (s *Server) ListUnreadReviews(ctx context.Context, _ api.ListUnreadReviewsRequestObject) (api.ListUnreadReviewsResponseObject, error) {
	if here(ctx).Teaches() {
		return api.ListUnreadReviews200JSONResponse{}, nil
	}
	unread, err := s.store.UnreadReviews(ctx)
	return api.ListUnreadReviews200JSONResponse(each(unread, func(r store.NewReview) api.UnreadReview {
		return api.UnreadReview{Review: reviewOf(r.Review), DrillName: r.DrillName, Rung: r.Rung}
	})), err
}

func reviewOf(r store.Review) api.Review {
	return api.Review{TakeId: r.TakeID, At: r.At, Author: r.Author, Accepted: r.Accepted, Note: r.Note}
}

// notesShown is how many notes of lessons are told.
const notesShown = 30

// lessonWeeks is how many weeks a lesson looks back at, to tell what has changed.
const lessonWeeks = 12

// GetLesson tells what there is to say, to look at and to hear in the next lesson.
func (s *Server) GetLesson(ctx context.Context, r api.GetLessonRequestObject) (api.GetLessonResponseObject, error) {
	if _, err := s.store.Pupil(ctx, r.StudentId); err != nil {
		return nil, err
	}
	today, err := s.store.Today(ctx)
	if err != nil {
		return nil, err
	}
	since, err := s.lessonBefore(ctx, r, today)
	if err != nil {
		return nil, err
	}
	played, err := s.playedDrills(ctx, r.StudentId, today, lessonWeeks)
	if err != nil {
		return nil, err
	}
	hurt, err := s.store.Hurts(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	hear, err := s.store.TakesToHear(ctx, r.StudentId, since)
	if err != nil {
		return nil, err
	}
	notes, err := s.store.Lessons(ctx, r.StudentId, store.Page{Limit: notesShown})
	if err != nil {
		return nil, err
	}
	unread, err := s.store.UnreadAnswers(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	drills := each(played, func(d progress.PlayedDrill) progress.Drill { return progress.Drill{Name: d.Name, State: d.State} })
	needs := progress.NeedsOf(hurt, drills, today)
	for i, n := range needs {
		if n.Drill >= 0 {
			needs[i].Text = drills[n.Drill].Name + ": " + n.Text
		}
	}
	return api.GetLesson200JSONResponse{
		Since: since, Said: progress.Since(played, since, today), Needs: needs, Hear: each(hear, summaryOf), Notes: each(notes, noteOf), Comments: unread,
	}, nil
}

// lessonBefore is the day of the lesson before today's, or a week ago.
func (s *Server) lessonBefore(ctx context.Context, r api.GetLessonRequestObject, today time.Time) (time.Time, error) {
	last, was, err := s.store.LastLesson(ctx, r.StudentId, today)
	if err != nil || !was {
		return today.AddDate(0, 0, -7), err
	}
	return last.UTC().Truncate(24 * time.Hour), nil
}

func noteOf(l store.Lesson) api.LessonNote {
	return api.LessonNote{Id: l.ID, At: l.At, Author: l.Author, Text: l.Text, Revision: l.Revision}
}

// PutLesson notes a lesson.
func (s *Server) PutLesson(ctx context.Context, r api.PutLessonRequestObject) (api.PutLessonResponseObject, error) {
	return api.PutLesson204Response{}, s.store.PutLesson(ctx, r.LessonId, r.StudentId, r.Params.IfMatch, r.Body.Text)
}

// DeleteLesson takes the note of a lesson away.
func (s *Server) DeleteLesson(ctx context.Context, r api.DeleteLessonRequestObject) (api.DeleteLessonResponseObject, error) {
	return api.DeleteLesson204Response{}, s.store.DeleteLesson(ctx, r.LessonId, r.StudentId)
}

// withReview adds what an instructor has said of a take to it.
func (s *Server) withReview(ctx context.Context, take api.Take) (api.Take, error) {
	r, err := s.store.TakeReview(ctx, take.Summary.Id)
	if errors.Is(err, store.ErrNotFound) {
		return take, nil
	}
	if err != nil {
		return take, err
	}
	review := reviewOf(r)
	take.Review = &review
	return take, nil
}
