package server

import (
	"context"
	"fmt"
	"io"
	"strings"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/progress"
	"manudrill/formats/logbook"
	"manudrill/store"
)

// ReadPaper reads a log that was kept on paper and tells what is wrong with each line.
func (s *Server) ReadPaper(ctx context.Context, r api.ReadPaperRequestObject) (api.ReadPaperResponseObject, error) {
	log, err := s.paper(ctx, r.Body, r.Params.Columns, r.Params.Dates, r.Params.StudentId)
	if err != nil {
		return nil, err
	}
	shown, wrong := []logbook.Entry{}, 0
	for _, e := range log.Entries {
		if e.Fault != "" {
			wrong++
		}
		if len(shown) < linesShown || e.Fault != "" && wrong <= faultsShown {
			shown = append(shown, e.Entry)
		}
	}
	return api.ReadPaper200JSONResponse{
		Heads: log.Heads, Columns: each(log.Columns, func(c logbook.Column) api.PaperColumn { return api.PaperColumn(c) }),
		Dates: api.PaperDates(log.Dates), Rows: len(log.Entries), Wrong: wrong, Entries: shown,
	}, nil
}

// Of a long table the first lines are shown, and so many of those that are wrong.
const (
	linesShown  = 50
	faultsShown = 200
)

// A paperLog is one of which it is known whose its lines are.
type paperLog struct {
	logbook.Log
	Entries []paperEntry
}

type paperEntry struct {
	logbook.Entry
	student uuid.UUID
}

// paper reads a log, of many students or of one.
func (s *Server) paper(ctx context.Context, body io.Reader, columns *[]api.PaperColumn, dates *api.PaperDates, student *uuid.UUID) (paperLog, error) {
	raw, err := io.ReadAll(body)
	if err != nil {
		return paperLog{}, err
	}
	today, err := s.store.Today(ctx)
	if err != nil {
		return paperLog{}, err
	}
	if student != nil {
		if _, err := s.store.Person(ctx, *student); err != nil {
			return paperLog{}, err
		}
	}
	names, err := s.store.Names(ctx)
	if err != nil {
		return paperLog{}, err
	}
	said := each(valueOr(columns, nil), func(c api.PaperColumn) logbook.Column { return logbook.Column(c) })
	// A device east of the studio may write tomorrow.
	log, err := logbook.Read(raw, said, logbook.DateOrder(valueOr(dates, "")), today.AddDate(0, 0, 1))
	if err != nil {
		return paperLog{}, notAList(err)
	}
	by := meant(names)
	return paperLog{log, each(log.Entries, func(e logbook.Entry) paperEntry { return whose(e, student, by) })}, nil
}

// meant is who is meant by a text, in small letters.
func meant(names []store.Named) map[string][]uuid.UUID {
	by := map[string][]uuid.UUID{}
	for _, n := range names {
		for _, text := range []string{n.Name, n.Email} {
			if key := strings.ToLower(text); key != "" {
				by[key] = append(by[key], n.ID)
			}
		}
	}
	return by
}

// whose finds out whose a line is.
func whose(e logbook.Entry, student *uuid.UUID, by map[string][]uuid.UUID) paperEntry {
	if student != nil {
		return paperEntry{e, *student}
	}
	found := by[strings.ToLower(e.Student)]
	switch {
	case len(found) == 1:
		return paperEntry{e, found[0]}
	case e.Fault != "":
	case e.Student == "":
		e.Fault = "There is no student."
	case len(found) > 1:
		e.Fault = fmt.Sprintf("There are %d students who are called %s; write the e-mail address in place of the name.", len(found), e.Student)
	default:
		e.Fault = fmt.Sprintf("Nobody here is called %q; add them first, or write the name as it stands in the list of students.", e.Student)
	}
	return paperEntry{Entry: e}
}

// PutPaper keeps the lines of a log with which nothing is wrong.
func (s *Server) PutPaper(ctx context.Context, r api.PutPaperRequestObject) (api.PutPaperResponseObject, error) {
	log, err := s.paper(ctx, r.Body, r.Params.Columns, r.Params.Dates, r.Params.StudentId)
	if err != nil {
		return nil, err
	}
	good := []store.PaperEntry{}
	for _, e := range log.Entries {
		if e.Fault == "" {
			good = append(good, store.PaperEntry{Student: e.student, Day: e.Day, Drill: e.Drill, BPM: e.BPM, NotesPerBeat: e.NotesPerBeat, Minutes: e.Minutes, Note: e.Note})
		}
	}
	kept, err := s.store.PutPaper(ctx, r.LogId, good)
	return api.PutPaper200JSONResponse{Kept: kept, Known: len(good) - kept, Wrong: len(log.Entries) - len(good)}, err
}

// DeletePaper takes a log that was brought in back.
func (s *Server) DeletePaper(ctx context.Context, r api.DeletePaperRequestObject) (api.DeletePaperResponseObject, error) {
	return api.DeletePaper204Response{}, s.store.DeletePaper(ctx, r.LogId)
}

// RestorePaper brings it back again.
func (s *Server) RestorePaper(ctx context.Context, r api.RestorePaperRequestObject) (api.RestorePaperResponseObject, error) {
	return api.RestorePaper204Response{}, s.store.RestorePaper(ctx, r.LogId)
}

// GetPaper tells what was kept of a student on paper.
func (s *Server) GetPaper(ctx context.Context, r api.GetPaperRequestObject) (api.GetPaperResponseObject, error) {
	if _, err := s.store.Person(ctx, r.StudentId); err != nil {
		return nil, err
	}
	entries, err := s.store.Paper(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	logs, err := s.store.PaperLogs(ctx, r.StudentId)
	return api.GetPaper200JSONResponse{
		Drills: progress.PaperOf(each(entries, func(e store.PaperEntry) progress.PaperEntry {
			return progress.PaperEntry{Day: e.Day, Drill: e.Drill, BPM: e.BPM, NotesPerBeat: e.NotesPerBeat, Minutes: e.Minutes, Note: e.Note}
		})),
		Logs: each(logs, func(l store.PaperLog) api.PaperLog {
			return api.PaperLog{Id: l.ID, At: l.At, Author: l.Author, Entries: l.Entries}
		}),
	}, err
}
