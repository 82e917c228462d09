package server

import (
	"context"
	"crypto/sha256"
	"errors"
	"io"
	"net/http"
	"os"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/api"
	"manudrill/core/bounds"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/hearing"
	"manudrill/formats/midifile"
	"manudrill/formats/sound"
	"manudrill/store"
)

// patience is how long a hand-in waits for its take to be measured before it
// answers that the take is kept.
const patience = 2 * time.Second

// AddTake takes a recording in. It is stored as it comes, together with the job to
// measure it.
func (s *Server) AddTake(ctx context.Context, r api.AddTakeRequestObject) (api.AddTakeResponseObject, error) {
	kept, a, err := s.expect(ctx, r.AssignmentId, r.TakeId)
	if err == nil && !kept {
		err = s.receive(ctx, a, r)
	}
	if err != nil {
		return nil, err
	}
	take, ready, err := s.await(ctx, r.TakeId)
	if ready {
		return api.AddTake200JSONResponse(take), err
	}
	return api.AddTake202JSONResponse(take), err
}

// receive takes in what was not handed in before.
func (s *Server) receive(ctx context.Context, a store.Stand, r api.AddTakeRequestObject) error {
	at, err := recordedAt(r.Params.RecordedAt, time.Now())
	if err != nil {
		return err
	}
	if a.EndedAt != nil && !at.Before(*a.EndedAt) {
		return errEnded
	}
	if err := s.asPlayed(ctx, &a, r.Params.Version); err != nil {
		return err
	}
	move(&a, r.Params.Position)
	file, hash, err := spool(ctx, r.Body)
	if err != nil {
		return err
	}
	defer file.Close()
	if err := looksLikeATake(file); err != nil {
		return err
	}
	aside := tempo.Aside(valueOr(r.Params.Aside, ""))
	if string(r.Params.Source) == store.Key {
		aside = tempo.Tapped
	}
	rise := valueOr(r.Params.Rise, 0)
	if rise > 0 && aside == tempo.NoAside {
		aside = tempo.OwnTempo
	}
	return s.handIn(ctx, a, store.HandIn{
		ID: r.TakeId, RiseBPM: rise, Rung: tempo.Rung{BPM: r.Params.Bpm, NotesPerBeat: valueOr(r.Params.NotesPerBeat, a.Rung.NotesPerBeat)},
		Aside: aside, ClickAt: r.Params.ClickAt, AsHeard: valueOr(r.Params.AsHeard, false), Source: string(r.Params.Source), RecordedAt: at, Sound: file, Hash: hash,
	})
}

// SimulateTake lets the simulated player make a take.
func (s *Server) SimulateTake(ctx context.Context, r api.SimulateTakeRequestObject) (api.SimulateTakeResponseObject, error) {
	kept, a, err := s.expect(ctx, r.AssignmentId, r.TakeId)
	if err == nil && !kept {
		err = s.simulate(ctx, a, r.TakeId, *r.Body)
	}
	if err != nil {
		return nil, err
	}
	take, ready, err := s.await(ctx, r.TakeId)
	if ready {
		return api.SimulateTake200JSONResponse(take), err
	}
	return api.SimulateTake202JSONResponse(take), err
}

// valueOr is what is pointed to, or else another.
func valueOr[T any](p *T, other T) T {
	if p != nil {
		return *p
	}
	return other
}

// expect returns the assignment that the person here hands a take in for, and
// whether that very take is kept already.
func (s *Server) expect(ctx context.Context, assignment, take uuid.UUID) (kept bool, a store.Stand, err error) {
	if a, err = s.stand(ctx, assignment); err != nil {
		return false, a, err
	}
	t, err := s.store.TakeSummary(ctx, take)
	switch {
	case err == nil && t.AssignmentID != assignment:
		return false, a, errSameTake
	case err == nil:
		return true, a, nil
	case !errors.Is(err, store.ErrNotFound):
		return false, a, err
	}
	if err := s.limits.takes.allow(here(ctx).ID.String()); err != nil {
		return false, a, err
	}
	return false, a, s.limits.takesOfAddress.allow(addressOf(ctx.(*gin.Context).Request))
}

// Clocks of devices are not those of the server.
const (
	clockAhead  = 24 * time.Hour // so far in the future a device may say it is
	oldestTakes = 10 * 365 * 24 * time.Hour
)

// recordedAt is when a take was recorded by the clock of its device, which is
// believed within bounds.
func recordedAt(told *time.Time, now time.Time) (time.Time, error) {
	switch {
	case told == nil:
		return now, nil
	case told.After(now.Add(clockAhead)), told.Before(now.Add(-oldestTakes)):
		return now, errClock
	case told.After(now):
		return now, nil
	}
	return *told, nil
}

// asPlayed puts the version that was played on the stand again, where another
// has been given since the recording was begun.
func (s *Server) asPlayed(ctx context.Context, a *store.Stand, version *int) error {
	if version == nil || *version == a.Version {
		return nil
	}
	file, err := s.store.Version(ctx, a.DrillID, *version)
	if err == nil && file.Odd != nil {
		err = errOdd
	}
	a.File, a.Version = file, *version
	return err
}

// spool takes a file in, onto the disk, so that a slow line holds neither memory
// nor a connection to the database. It is gone once it is closed.
func spool(ctx context.Context, body io.Reader) (file *os.File, hash []byte, err error) {
	if file, err = os.CreateTemp("", "manudrill-take-"); err != nil {
		return nil, nil, err
	}
	if err := os.Remove(file.Name()); err != nil {
		return nil, nil, errors.Join(err, file.Close())
	}
	sum := sha256.New()
	c := ctx.(*gin.Context)
	patient := &patientReader{from: body, control: http.NewResponseController(c.Writer), until: time.Now().Add(uploadTime)}
	if _, err := io.Copy(io.MultiWriter(file, sum), patient); err != nil {
		if patient.failed {
			err = brokenOff(err)
		}
		return nil, nil, errors.Join(err, file.Close())
	}
	return file, sum.Sum(nil), nil
}

// A patientReader waits for each part of a body, but not for ever.
type patientReader struct {
	from    io.Reader
	control *http.ResponseController
	until   time.Time
	failed  bool // the body could not be read on
}

func (p *patientReader) Read(b []byte) (int, error) {
	wait := time.Now().Add(stallTime)
	if wait.After(p.until) {
		wait = p.until
	}
	_ = p.control.SetReadDeadline(wait) // a writer that cannot has no connection to wait for
	n, err := p.from.Read(b)
	if errors.Is(err, io.EOF) {
		waitNoMore(p.control)
	}
	p.failed = err != nil && !errors.Is(err, io.EOF)
	return n, err
}

// brokenOff tells that a body did not come to its end; one that is too large stays
// so.
func brokenOff(err error) error {
	if errors.As(err, new(*http.MaxBytesError)) {
		return err
	}
	return errBrokenOff
}

// looksLikeATake refuses what is no take by its beginning, or by all of it where
// it is short: what is not heard is found by the job. The file is then at its
// start again.
func looksLikeATake(file *os.File) error {
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return err
	}
	start := make([]byte, 4)
	n, err := io.ReadFull(file, start)
	if err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, io.ErrUnexpectedEOF) {
		return err
	}
	kind, err := hearing.KindOf(start[:n])
	if err != nil {
		return err
	}
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return err
	}
	if kind == hearing.MIDI {
		err = readsAsMIDI(file)
	} else {
		_, err = sound.Open(file)
	}
	if err != nil {
		return notARecording(err)
	}
	_, err = file.Seek(0, io.SeekStart)
	return err
}

func readsAsMIDI(file io.Reader) error {
	raw, err := io.ReadAll(io.LimitReader(file, bounds.DocumentBytes+1))
	if err != nil {
		return err
	}
	_, err = midifile.Played(raw)
	return err
}

// simulate lets a player play what lies on the stand and hands it in. The sound is
// made whole, by one at a time.
func (s *Server) simulate(ctx context.Context, a store.Stand, take uuid.UUID, player simulate.Player) error {
	if a.EndedAt != nil {
		return errEnded
	}
	chart, err := a.File.Value.At(a.Rung).ChartFor(a.StudentSetup().Guitar, a.StudentSetup().Hand, a.Rung.BPM)
	if err != nil {
		return err
	}
	if chart.TakeSeconds() > bounds.RenditionSeconds {
		return bounds.ErrRenditionTooLong
	}
	if err := s.heavy.enter(ctx); err != nil {
		return err
	}
	defer s.heavy.leave()
	flac, err := Simulated(player, chart)
	if err != nil {
		return err
	}
	return s.handIn(ctx, a, store.HandIn{ID: take, Rung: a.Rung, Source: store.Simulated, RecordedAt: time.Now(), Sound: flac})
}

// handIn keeps a take of what lies on the stand, with the job to measure it.
func (s *Server) handIn(ctx context.Context, a store.Stand, h store.HandIn) error {
	var err error
	h.AssignmentID, h.Version = a.ID, a.Version
	if h.Chart, err = a.File.Value.At(h.Rung).ChartFor(a.StudentSetup().Guitar, a.StudentSetup().Hand, h.Rung.BPM); err != nil {
		return err
	}
	h.Chart.ClickAt, h.Chart.RiseBPM = h.ClickAt, h.RiseBPM
	err = s.store.HandIn(ctx, h, s.queueTake(ctx, h.ID))
	if store.IsKept(err) {
		return nil
	}
	return err
}

// queueTake queues the job to measure a take.
func (s *Server) queueTake(ctx context.Context, take uuid.UUID) func(pgx.Tx) error {
	return func(tx pgx.Tx) error { return s.queue.Measure(ctx, tx, take) }
}

// queueAll queues the job to measure all takes again.
func (s *Server) queueAll(ctx context.Context) func(pgx.Tx, uuid.UUID) error {
	return func(tx pgx.Tx, id uuid.UUID) error { return s.queue.Remeasure(ctx, tx, id) }
}

// await returns a take that is kept, and whether it has been measured or could not
// be, for which it waits a while: whoever has just played would rather not ask
// twice.
func (s *Server) await(ctx context.Context, id uuid.UUID) (take api.Take, ready bool, err error) {
	began := time.Now()
	for pause := 20 * time.Millisecond; ; pause = min(2*pause, 50*time.Millisecond) {
		state, err := s.store.TakeState(ctx, id)
		if err != nil {
			return api.Take{}, false, err
		}
		ready = state != store.Waiting
		if ready || time.Since(began) > patience {
			break
		}
		select {
		case <-ctx.Done():
			return api.Take{}, false, ctx.Err()
		case <-time.After(pause):
		}
	}
	t, err := s.store.Take(ctx, id)
	if err != nil {
		return api.Take{}, false, err
	}
	comments, err := s.store.Comments(ctx, id)
	return takeOf(t, comments), ready, err
}
