package server

import (
	"context"
	"errors"
	"io"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/formats/hearing"
	"manudrill/store"
)

// ListTakes lists takes.
func (s *Server) ListTakes(ctx context.Context, r api.ListTakesRequestObject) (api.ListTakesResponseObject, error) {
	page, err := pageOf(r.Params.After, r.Params.Limit)
	if err != nil {
		return nil, err
	}
	takes, err := s.store.Takes(ctx, r.Params.AssignmentId, r.Params.StudentId, page)
	return api.ListTakes200JSONResponse{
		Items: each(takes, summaryOf),
		Next:  next(takes, page, func(t store.TakeSummary) (time.Time, uuid.UUID) { return t.RecordedAt, t.ID }),
	}, err
}

// measured returns a take that was measured.
func (s *Server) measured(ctx context.Context, id uuid.UUID) (store.Take, error) {
	t, err := s.store.Take(ctx, id)
	if err == nil && t.Analysis == nil {
		err = errNotMeasured
	}
	return t, err
}

// GetTake returns a take with its analysis.
func (s *Server) GetTake(ctx context.Context, r api.GetTakeRequestObject) (api.GetTakeResponseObject, error) {
	take, err := s.takeNow(ctx, r.TakeId)
	return api.GetTake200JSONResponse(take), err
}

// takeNow is a take with all that is said of it.
func (s *Server) takeNow(ctx context.Context, id uuid.UUID) (api.Take, error) {
	t, err := s.store.Take(ctx, id)
	if err != nil {
		return api.Take{}, err
	}
	comments, err := s.store.Comments(ctx, t.ID)
	if err != nil {
		return api.Take{}, err
	}
	return s.withReview(ctx, takeOf(t, comments))
}

// MeasureTake measures a take again.
func (s *Server) MeasureTake(ctx context.Context, r api.MeasureTakeRequestObject) (api.MeasureTakeResponseObject, error) {
	if err := s.limits.takes.allow(here(ctx).ID.String()); err != nil {
		return nil, err
	}
	if err := s.store.MeasureAgain(ctx, r.TakeId, s.queueTake(ctx, r.TakeId)); err != nil {
		return nil, err
	}
	t, err := s.store.TakeSummary(ctx, r.TakeId)
	return api.MeasureTake202JSONResponse(summaryOf(t)), err
}

// HandInThere hands a take in for the drill that was played instead, at the tempo that is heard.
func (s *Server) HandInThere(ctx context.Context, r api.HandInThereRequestObject) (api.HandInThereResponseObject, error) {
	t, err := s.measured(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	if t.Other == nil {
		return nil, errNotTold
	}
	if err := s.limits.takes.allow(here(ctx).ID.String()); err != nil {
		return nil, err
	}
	a, err := s.store.Stand(ctx, t.Other.Assignment)
	if err != nil {
		return nil, err
	}
	sound, err := s.store.Sound(ctx, t.ID)
	if err != nil {
		return nil, err
	}
	defer sound.Close()
	id := uuid.NewSHA1(t.ID, a.ID[:])
	h := store.HandIn{ID: id, Rung: a.Rung, AsHeard: true, Source: t.Source, RecordedAt: t.RecordedAt, Sound: sound}
	if err := s.handIn(ctx, a, h); err != nil {
		return nil, err
	}
	there, err := s.store.TakeSummary(ctx, id)
	return api.HandInThere202JSONResponse(summaryOf(there)), err
}

// GetSound returns the recording of a take.
func (s *Server) GetSound(ctx context.Context, r api.GetSoundRequestObject) (api.GetSoundResponseObject, error) {
	request := ctx.(*gin.Context).Request
	sound, err := s.store.Sound(request.Context(), r.TakeId)
	if err != nil {
		return nil, err
	}
	return recording{request, sound}, nil
}

// A recording is sent whole or in the part that was asked for: a browser seeks only
// in what it may have in parts.
type recording struct {
	request *http.Request
	sound   store.Sound
}

// VisitGetSoundResponse sends it, reading part after part.
func (r recording) VisitGetSoundResponse(w http.ResponseWriter) error {
	defer r.sound.Close()
	start := make([]byte, 4)
	n, err := io.ReadFull(r.sound, start)
	if err != nil && !errors.Is(err, io.ErrUnexpectedEOF) && !errors.Is(err, io.EOF) {
		return err
	}
	kind, err := hearing.KindOf(start[:n])
	if err != nil {
		return err
	}
	if _, err := r.sound.Seek(0, io.SeekStart); err != nil {
		return err
	}
	w.Header().Set("Content-Type", kind.Media())
	// A take that waits is kept as it came, and as FLAC once it is measured.
	w.Header().Set("Cache-Control", "private, no-cache")
	http.ServeContent(w, r.request, "", time.Time{}, r.sound)
	return nil
}

// GetRemeasuring tells how far measuring all takes again is.
func (s *Server) GetRemeasuring(ctx context.Context, _ api.GetRemeasuringRequestObject) (api.GetRemeasuringResponseObject, error) {
	r, err := s.store.Remeasuring(ctx)
	return api.GetRemeasuring200JSONResponse(remeasuringOf(r)), err
}

// Remeasure measures all takes again.
func (s *Server) Remeasure(ctx context.Context, _ api.RemeasureRequestObject) (api.RemeasureResponseObject, error) {
	if err := s.store.Remeasure(ctx, s.queueAll(ctx)); err != nil {
		return nil, err
	}
	r, err := s.store.Remeasuring(ctx)
	return api.Remeasure202JSONResponse(remeasuringOf(r)), err
}

// CancelRemeasuring leaves the rest as it is.
func (s *Server) CancelRemeasuring(ctx context.Context, _ api.CancelRemeasuringRequestObject) (api.CancelRemeasuringResponseObject, error) {
	return api.CancelRemeasuring204Response{}, s.store.CancelRemeasuring(ctx)
}
