package server

import (
	"bytes"
	"context"
	"net/http"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/progress"
	"manudrill/formats/calendar"
	"manudrill/formats/logbook"
	"manudrill/server/secret"
	"manudrill/store"
)

// GetPlanFile returns a student's plan as iCalendar.
func (s *Server) GetPlanFile(ctx context.Context, r api.GetPlanFileRequestObject) (api.GetPlanFileResponseObject, error) {
	kept, err := s.store.PlanForCalendar(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	return asFile{name: "practice.ics", kind: calendarType, body: icalendar(kept)}, nil
}

// GetCalendar returns the plan that an address leads to.
func (s *Server) GetCalendar(ctx context.Context, r api.GetCalendarRequestObject) (api.GetCalendarResponseObject, error) {
	// A token is as long as no guess: a school whose calendars ask is not kept from signing in.
	kept, err := s.store.PlanByCalendar(ctx, secret.Kept(r.Token))
	if err != nil {
		return nil, err
	}
	return asFile{kind: calendarType, body: icalendar(kept)}, nil
}

const calendarType = "text/calendar; charset=utf-8"

func icalendar(kept store.CalendarPlan) func() ([]byte, error) {
	return func() ([]byte, error) {
		if kept.Plan.Plan.Odd != nil {
			return nil, errOdd
		}
		var out bytes.Buffer
		err := calendar.Calendar{
			ID: kept.Student.ID.String(), Name: "Practice of " + kept.Student.Name, ChangedAt: kept.ChangedAt, Revision: kept.Revision, Plan: kept.Plan.Plan.Value,
		}.Write(&out)
		return out.Bytes(), err
	}
}

// GetPlanAddress tells whether calendars can subscribe to a student's plan.
func (s *Server) GetPlanAddress(ctx context.Context, r api.GetPlanAddressRequestObject) (api.GetPlanAddressResponseObject, error) {
	if _, err := s.store.Person(ctx, r.StudentId); err != nil {
		return nil, err
	}
	has, err := s.store.HasCalendar(ctx, r.StudentId)
	return api.GetPlanAddress200JSONResponse{Has: has}, err
}

// MakePlanAddress makes an address to which calendars subscribe.
func (s *Server) MakePlanAddress(ctx context.Context, r api.MakePlanAddressRequestObject) (api.MakePlanAddressResponseObject, error) {
	if err := s.mayShow(ctx, r.StudentId); err != nil {
		return nil, err
	}
	token, kept := secret.Token()
	return api.MakePlanAddress201JSONResponse{Path: "/api/calendars/" + token}, s.store.PutCalendar(ctx, r.StudentId, kept)
}

// RevokePlanAddress revokes it.
func (s *Server) RevokePlanAddress(ctx context.Context, r api.RevokePlanAddressRequestObject) (api.RevokePlanAddressResponseObject, error) {
	if err := s.mayShow(ctx, r.StudentId); err != nil {
		return nil, err
	}
	return api.RevokePlanAddress204Response{}, s.store.DeleteCalendar(ctx, r.StudentId)
}

// mayShow reports who may not decide who sees a student's plan: students decide for
// themselves.
func (s *Server) mayShow(ctx context.Context, student uuid.UUID) error {
	p, err := s.store.Person(ctx, student)
	if err == nil && p.Role != store.Student {
		err = errMissing
	}
	return err
}

// logWeeks is how many weeks the practice log reaches back.
const logWeeks = 104

// GetPracticeLog returns what was practised day by day as CSV.
func (s *Server) GetPracticeLog(ctx context.Context, r api.GetPracticeLogRequestObject) (api.GetPracticeLogResponseObject, error) {
	if _, err := s.store.Person(ctx, r.StudentId); err != nil {
		return nil, err
	}
	today, err := s.store.Today(ctx)
	if err != nil {
		return nil, err
	}
	names, err := s.store.DrillNames(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	weeks, err := s.store.StudentWeeks(ctx, r.StudentId, today, logWeeks)
	if err != nil {
		return nil, err
	}
	return asFile{name: "practice.csv", kind: "text/csv; charset=utf-8", body: func() ([]byte, error) { return practiceLog(weeks, names) }}, nil
}

func practiceLog(weeks []store.StudentWeek, names map[uuid.UUID]string) ([]byte, error) {
	var out bytes.Buffer
	w := logbook.New(&out, "day", "drill", "takes", "takes that count", "clean", "seconds", "slurred seconds", "tempo in the end, bpm", "notes a beat", "timing spread, % of the interval")
	for _, week := range weeks {
		for _, d := range week.Days.Value {
			row(w, names[week.Assignment], d)
		}
	}
	err := w.Done()
	return out.Bytes(), err
}

func row(w *logbook.Writer, drill string, d progress.Day) {
	w.Row(logbook.Day(d.Date), drill, d.Takes, d.Counting, d.Clean, d.Seconds, d.SlurSeconds, d.Stands.BPM, d.Stands.NotesPerBeat, d.SpreadPercent)
}

// maxListed is how many takes one file lists, the latest.
const maxListed = 20_000

// GetTakesFile returns a student's takes as CSV.
func (s *Server) GetTakesFile(ctx context.Context, r api.GetTakesFileRequestObject) (api.GetTakesFileResponseObject, error) {
	if _, err := s.store.Person(ctx, r.StudentId); err != nil {
		return nil, err
	}
	var out bytes.Buffer
	w := logbook.New(&out, "recorded at", "drill", "tempo, bpm", "notes a beat", "recorded by", "state", "right notes, %", "timing spread, ms", "timing spread, % of the interval", "notes a second", "counts for the ladder", "ladder")
	n := 0
	for page := (store.Page{Limit: 200}); n < maxListed; {
		takes, err := s.store.Takes(ctx, nil, &r.StudentId, page)
		if err != nil {
			return nil, err
		}
		for _, t := range takes {
			takeRow(w, t)
		}
		if n += len(takes); len(takes) < page.Size() {
			break
		}
		last := takes[len(takes)-1]
		page.After = &store.Cursor{At: last.RecordedAt, ID: last.ID}
	}
	err := w.Done()
	return asFile{name: "takes.csv", kind: "text/csv; charset=utf-8", body: func() ([]byte, error) { return out.Bytes(), err }}, nil
}

func takeRow(w *logbook.Writer, t store.TakeSummary) {
	step, counts := "", false
	if t.Decision != nil {
		step, counts = string(t.Decision.Step), t.Decision.Counts
	}
	if t.State != store.Measured { // nothing is known of it
		w.Row(t.RecordedAt, t.DrillName, t.Rung.BPM, t.Rung.NotesPerBeat, t.Source, t.State, nil, nil, nil, nil, false, "")
		return
	}
	w.Row(t.RecordedAt, t.DrillName, t.Rung.BPM, t.Rung.NotesPerBeat, t.Source, t.State, t.RightPercent, t.SpreadMs, t.SpreadPercent, t.NotesPerSecond, counts, step)
}

// asFile is an answer that is a file of its own.
type asFile struct {
	name, kind string
	body       func() ([]byte, error)
}

func (f asFile) send(w http.ResponseWriter) error {
	body, err := f.body()
	if err != nil {
		return err
	}
	w.Header().Set("Content-Type", f.kind)
	w.Header().Set("Cache-Control", "private, no-cache")
	if f.name != "" {
		w.Header().Set("Content-Disposition", `attachment; filename="`+f.name+`"`)
	}
	_, err = w.Write(body)
	return err
}

// VisitGetPlanFileResponse sends it.
func (f asFile) VisitGetPlanFileResponse(w http.ResponseWriter) error { return f.send(w) }

// VisitGetCalendarResponse sends it.
func (f asFile) VisitGetCalendarResponse(w http.ResponseWriter) error { return f.send(w) }

// VisitGetTakesFileResponse sends it.
func (f asFile) VisitGetTakesFileResponse(w http.ResponseWriter) error { return f.send(w) }

// VisitGetPracticeLogResponse sends it.
func (f asFile) VisitGetPracticeLogResponse(w http.ResponseWriter) error { return f.send(w) }
