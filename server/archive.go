package server

import (
	"context"
	"errors"
	"io"
	"log/slog"
	"mime"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/setup"
	"manudrill/formats/archive"
	"manudrill/formats/drillfile"
	"manudrill/formats/hearing"
	"manudrill/store"
)

// GetArchive sends everything about somebody as one file. Students get their own.
func (s *Server) GetArchive(ctx context.Context, r api.GetArchiveRequestObject) (api.GetArchiveResponseObject, error) {
	p, err := s.store.Pupil(ctx, r.PersonId)
	if err != nil {
		return nil, err
	}
	setup, _, err := s.store.Setup(ctx, p.ID)
	if err != nil {
		return nil, err
	}
	if err := s.archives.enter(ctx); err != nil {
		return nil, err
	}
	if err := s.store.TakenOut(ctx, p.Person); err != nil {
		s.archives.leave()
		return nil, err
	}
	if !here(ctx).Teaches() {
		p.Note = "" // which is the instructors'
	}
	return studentArchive{s, sending(ctx), p, setup}, nil
}

// sending is the context in which an archive is written: it takes longer than an answer
// may, and ends with the connection.
func sending(ctx context.Context) context.Context {
	return context.WithoutCancel(ctx.(*gin.Context).Request.Context())
}

// A studentArchive is written while it is sent.
type studentArchive struct {
	server *Server
	ctx    context.Context
	pupil  store.Pupil
	setup  setup.Setup
}

// VisitGetArchiveResponse sends it. One that breaks off ends the connection, so that
// nobody takes it for whole.
func (a studentArchive) VisitGetArchiveResponse(w http.ResponseWriter) error {
	a.server.send(w, a.pupil.Name, a.write)
	return nil
}

// send sends an archive while it is written, and leaves its place to the next.
func (s *Server) send(w http.ResponseWriter, name string, write func(io.Writer) error) {
	defer s.archives.leave()
	w.Header().Set("Content-Type", "application/zip")
	w.Header().Set("Content-Disposition", mime.FormatMediaType("attachment", map[string]string{"filename": name + ".zip"}))
	w.Header().Set("Cache-Control", "no-store")
	if err := write(w); err != nil {
		slog.Error("an archive broke off", "of", name, "error", err)
		_ = http.NewResponseController(w).SetWriteDeadline(time.Now())
	}
}

func (a studentArchive) write(to io.Writer) error {
	w := archive.New(to, time.Now().UTC())
	m := a.pupil.Member
	for _, part := range []func() error{
		w.About,
		func() error {
			about := archive.About{Of: archive.OfStudent, Student: &m.ID, Name: m.Name, Tables: store.TablesVersion()}
			return w.Rows(about, func(row func(string, []byte) error) error { return a.server.store.Rows(a.ctx, &m.ID, row) })
		},
		func() error {
			return w.JSON("student.json", archivedStudent{m.ID, m.Name, m.Email, m.SignIn, m.JoinedAt, m.Note, m.ConsentAt, m.ConsentBy, m.Level, a.setup})
		},
		func() error { return a.drills(w) },
		func() error { return a.routines(w) },
		func() error { return a.hand(w) },
		func() error { return a.plan(w) },
		func() error { return a.lessons(w) },
		func() error { return a.takes(w) },
		w.Close,
	} {
		if err := part(); err != nil {
			return err
		}
	}
	return nil
}

// archivedStudent is student.json.
type archivedStudent struct {
	ID        uuid.UUID   `json:"id"`
	Name      string      `json:"name"`
	Email     string      `json:"email,omitempty"`
	SignIn    string      `json:"signIn,omitempty"`
	JoinedAt  *time.Time  `json:"joinedAt,omitempty"`
	Note      string      `json:"note,omitempty"`
	ConsentAt *time.Time  `json:"consentAt,omitempty"`
	ConsentBy string      `json:"consentBy,omitempty"`
	Level     string      `json:"level,omitempty"`
	Setup     setup.Setup `json:"setup"`
}

// archivedDrill is one of drills.json.
type archivedDrill struct {
	Assignment api.Assignment  `json:"assignment"`
	Drill      *drillfile.File `json:"drill,omitempty"` // missing where it cannot be read
	Moves      []api.Move      `json:"moves"`
}

// drills writes what the student was given, ended or not.
func (a studentArchive) drills(w *archive.Writer) error {
	ids, err := a.server.store.AllAssignments(a.ctx, a.pupil.ID)
	if err != nil {
		return err
	}
	all := make([]archivedDrill, len(ids))
	for i, id := range ids {
		stand, err := a.server.store.Stand(a.ctx, id)
		if err != nil {
			return err
		}
		all[i].Assignment = assignmentOf(stand.Assignment)
		if stand.File.Odd == nil {
			all[i].Drill = &stand.File.Value
		}
		for page := (store.Page{}); ; {
			moves, err := a.server.store.Moves(a.ctx, id, page)
			if err != nil {
				return err
			}
			all[i].Moves = append(all[i].Moves, each(moves, moveOf)...)
			if len(moves) < page.Size() {
				break
			}
			last := moves[len(moves)-1]
			page.After = &store.Cursor{At: last.At, ID: last.ID}
		}
	}
	return w.JSON("drills.json", all)
}

// routines writes those the student has now.
func (a studentArchive) routines(w *archive.Writer) error {
	kept, err := a.server.store.Routines(a.ctx, a.pupil.ID)
	if err != nil {
		return err
	}
	stands, err := a.server.standsOf(a.ctx, a.pupil.ID, kept...)
	if err != nil {
		return err
	}
	return w.JSON("routines.json", each(kept, func(r store.Routine) api.SavedRoutine { return routineOf(r, stands) }))
}

// hand writes what the student said of their hand.
func (a studentArchive) hand(w *archive.Writer) error {
	all := []api.SavedHandReport{}
	for page := (store.Page{}); ; {
		reports, err := a.server.store.HandReports(a.ctx, a.pupil.ID, page)
		if err != nil {
			return err
		}
		all = append(all, each(reports, handReportOf)...)
		if len(reports) < page.Size() {
			return w.JSON("hand.json", all)
		}
		last := reports[len(reports)-1]
		page.After = &store.Cursor{At: last.At, ID: last.ID}
	}
}

// plan writes the student's plan, where there is one.
func (a studentArchive) plan(w *archive.Writer) error {
	kept, err := a.server.store.Plan(a.ctx, a.pupil.ID)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	return w.JSON("plan.json", api.PlanChange{Settings: kept.Settings.Value, Plan: &kept.Plan.Value})
}

// lessons writes what was noted of the lessons. A student who asks sees none: the notes are
// the instructors'.
func (a studentArchive) lessons(w *archive.Writer) error {
	all := []api.LessonNote{}
	for page := (store.Page{}); ; {
		notes, err := a.server.store.Lessons(a.ctx, a.pupil.ID, page)
		if err != nil {
			return err
		}
		all = append(all, each(notes, noteOf)...)
		if len(notes) < page.Size() {
			break
		}
		last := notes[len(notes)-1]
		page.After = &store.Cursor{At: last.At, ID: last.ID}
	}
	if len(all) == 0 {
		return nil
	}
	return w.JSON("lessons.json", all)
}

// takes writes all takes, page by page.
func (a studentArchive) takes(w *archive.Writer) error {
	for page := (store.Page{Limit: 50}); ; {
		takes, err := a.server.store.Takes(a.ctx, nil, &a.pupil.ID, page)
		if err != nil {
			return err
		}
		for _, t := range takes {
			if err := a.take(w, t); err != nil {
				return err
			}
		}
		if len(takes) < page.Size() {
			return nil
		}
		last := takes[len(takes)-1]
		page.After = &store.Cursor{At: last.RecordedAt, ID: last.ID}
	}
}

func (a studentArchive) take(w *archive.Writer, summary store.TakeSummary) error {
	t, err := a.server.store.Take(a.ctx, summary.ID)
	if err != nil {
		return err
	}
	comments, err := a.server.store.Comments(a.ctx, t.ID)
	if err != nil {
		return err
	}
	row := archive.TakeRow{
		RecordedAt: t.RecordedAt, Drill: t.DrillName, BPM: t.Rung.BPM, NotesPerBeat: t.Rung.NotesPerBeat, Source: t.Source, State: t.State,
		RightPercent: t.RightPercent, SpreadMs: t.SpreadMs, SpreadPercent: t.SpreadPercent, NotesPerSecond: t.NotesPerSecond,
		NotSo: len(t.Corrections), Folder: archive.Folder(t.RecordedAt, t.ID.String()),
	}
	if t.Decision != nil {
		row.Step, row.Counts = string(t.Decision.Step), t.Decision.Counts
	}
	whole, err := a.server.withReview(a.ctx, takeOf(t, comments))
	if err != nil {
		return err
	}
	if err := w.Take(row, whole); err != nil {
		return err
	}
	return a.server.recordings(a.ctx, w, row.Folder, t.ID)
}

// recordings writes the video and the sound of a take, where they are there.
func (s *Server) recordings(ctx context.Context, w *archive.Writer, folder string, take uuid.UUID) error {
	if err := s.archiveVideo(ctx, w, folder, take); err != nil {
		return err
	}
	return s.archiveSound(ctx, w, folder, take)
}

func (s *Server) archiveVideo(ctx context.Context, w *archive.Writer, folder string, take uuid.UUID) error {
	v, video, err := s.store.OpenVideo(ctx, take)
	if errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	defer video.Close()
	return w.Video(folder, strings.TrimPrefix(v.Media, "video/"), video)
}

// archiveSound writes the recording as it is kept.
func (s *Server) archiveSound(ctx context.Context, w *archive.Writer, folder string, take uuid.UUID) error {
	sound, err := s.store.Sound(ctx, take)
	if errors.Is(err, store.ErrDropped) || errors.Is(err, store.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	defer sound.Close()
	start := make([]byte, 4)
	n, err := io.ReadFull(sound, start)
	if err != nil && !errors.Is(err, io.ErrUnexpectedEOF) && !errors.Is(err, io.EOF) {
		return err
	}
	extension := "sound"
	if kind, err := hearing.KindOf(start[:n]); err == nil {
		extension = kind.Extension()
	}
	if _, err := sound.Seek(0, io.SeekStart); err != nil {
		return err
	}
	return w.Sound(folder, extension, sound)
}
