package server

import (
	"bytes"
	"context"
	"io"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/simulate"
	"manudrill/formats/midifile"
	"manudrill/formats/sound"
	"manudrill/store"
)

// AddTake takes a recording in.
func (s *Server) AddTake(ctx context.Context, r api.AddTakeRequestObject) (api.AddTakeResponseObject, error) {
	d, err := s.delivery(ctx, r.AssignmentId, r.TakeId)
	if err != nil {
		return nil, err
	}
	if err := s.asPlayed(ctx, &d.Assignment, r.Params.Version); err != nil {
		return nil, err
	}
	file, err := io.ReadAll(r.Body)
	if err != nil {
		return nil, err
	}
	if err := d.take(file); err != nil {
		return nil, err
	}
	d.BPM, d.Source = r.Params.Bpm, string(r.Params.Source)
	take, err := s.intake.Receive(ctx, d)
	return api.AddTake200JSONResponse(takeOf(take, nil)), err
}

// take reads the file that was handed in: a recording, or MIDI, which is given a
// sound to be heard by.
func (d *Delivery) take(file []byte) (err error) {
	if !midifile.Is(file) {
		d.Sound, err = sound.Decode(file)
		return err
	}
	if d.Notes, err = midifile.Played(file); err != nil {
		return notARecording(err)
	}
	d.Sound = sound.FromMono(simulate.Rate, simulate.Sounding(d.Notes))
	return nil
}

// SimulateTake lets the simulated player make a take.
func (s *Server) SimulateTake(ctx context.Context, r api.SimulateTakeRequestObject) (api.SimulateTakeResponseObject, error) {
	d, err := s.delivery(ctx, r.AssignmentId, r.TakeId)
	if err != nil {
		return nil, err
	}
	take, err := s.intake.Simulate(ctx, *r.Body, d)
	return api.SimulateTake200JSONResponse(takeOf(take, nil)), err
}

// delivery starts a delivery for an assignment of the student here.
func (s *Server) delivery(ctx context.Context, assignment, take uuid.UUID) (Delivery, error) {
	a, err := s.assignment(ctx, assignment)
	if err == nil && a.Ended {
		err = errEnded
	}
	return Delivery{TakeID: take, Assignment: a, BPM: a.BPM(), RecordedAt: time.Now()}, err
}

// asPlayed puts the version that was played on the stand again, where another
// has been given since the recording was begun.
func (s *Server) asPlayed(ctx context.Context, a *store.Assignment, version *int) error {
	if version == nil || *version == a.Version {
		return nil
	}
	file, err := s.store.Version(ctx, a.DrillID, *version)
	a.File, a.Version = file, *version
	return err
}

// ListTakes lists takes.
func (s *Server) ListTakes(ctx context.Context, r api.ListTakesRequestObject) (api.ListTakesResponseObject, error) {
	takes, err := s.store.Takes(ctx, r.Params.AssignmentId, ownStudent(ctx, r.Params.StudentId))
	return api.ListTakes200JSONResponse(each(takes, summaryOf)), err
}

// take returns a take that the person here may see.
func (s *Server) take(ctx context.Context, id uuid.UUID) (store.Take, error) {
	t, err := s.store.Take(ctx, id)
	if err != nil {
		return t, err
	}
	return t, mayRead(ctx, t.Student.ID)
}

// GetTake returns a take with its analysis.
func (s *Server) GetTake(ctx context.Context, r api.GetTakeRequestObject) (api.GetTakeResponseObject, error) {
	t, err := s.take(ctx, r.TakeId)
	if err != nil {
		return nil, err
	}
	comments, err := s.store.Comments(ctx, t.ID)
	return api.GetTake200JSONResponse(takeOf(t, comments)), err
}

// GetSound returns the recording of a take.
func (s *Server) GetSound(ctx context.Context, r api.GetSoundRequestObject) (api.GetSoundResponseObject, error) {
	if _, err := s.take(ctx, r.TakeId); err != nil {
		return nil, err
	}
	flac, err := s.store.Sound(ctx, r.TakeId)
	return recording{ctx.(*gin.Context).Request, flac}, err
}

// A recording is sent whole or in the part that was asked for: a browser seeks only
// in what it may have in parts.
type recording struct {
	request *http.Request
	flac    []byte
}

// VisitGetSoundResponse sends it.
func (r recording) VisitGetSoundResponse(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", "audio/flac")
	http.ServeContent(w, r.request, "", time.Time{}, bytes.NewReader(r.flac))
	return nil
}
