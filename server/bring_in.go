package server

import (
	"context"
	"errors"
	"io"
	"net/http"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/api"
	"manudrill/formats/archive"
	"manudrill/store"
)

// GetStudioArchive sends everything about the studio as one file.
func (s *Server) GetStudioArchive(ctx context.Context, _ api.GetStudioArchiveRequestObject) (api.GetStudioArchiveResponseObject, error) {
	studio, err := s.store.Studio(ctx)
	if err != nil {
		return nil, err
	}
	if err := s.archives.enter(ctx); err != nil {
		return nil, err
	}
	if err := s.store.StudioTakenOut(ctx); err != nil {
		s.archives.leave()
		return nil, err
	}
	return studioArchive{s, sending(ctx), studio}, nil
}

// A studioArchive is written while it is sent.
type studioArchive struct {
	server *Server
	ctx    context.Context
	studio store.Studio
}

// VisitGetStudioArchiveResponse sends it.
func (a studioArchive) VisitGetStudioArchiveResponse(w http.ResponseWriter) error {
	a.server.send(w, a.studio.Name, a.write)
	return nil
}

func (a studioArchive) write(to io.Writer) error {
	w := archive.New(to, time.Now().UTC())
	about := archive.About{Of: archive.OfStudio, Name: a.studio.Name, Tables: store.TablesVersion()}
	rows := func(row func(string, []byte) error) error { return a.server.store.Rows(a.ctx, nil, row) }
	if err := errors.Join(w.AboutStudio(), w.Rows(about, rows)); err != nil {
		return err
	}
	for page := (store.Page{Limit: 200}); ; {
		takes, err := a.server.store.Takes(a.ctx, nil, nil, page)
		if err != nil {
			return err
		}
		for _, t := range takes {
			if err := a.server.recordings(a.ctx, w, archive.Folder(t.RecordedAt, t.ID.String()), t.ID); err != nil {
				return err
			}
		}
		if len(takes) < page.Size() {
			return w.End()
		}
		last := takes[len(takes)-1]
		page.After = &store.Cursor{At: last.RecordedAt, ID: last.ID}
	}
}

// bringTime is how long an archive may take to be brought in, which is one transaction.
const bringTime = 20 * time.Minute

// BringIn brings in an archive of a student, or of a whole studio into an empty one.
func (s *Server) BringIn(ctx context.Context, r api.BringInRequestObject) (api.BringInResponseObject, error) {
	if err := s.incoming.enter(ctx); err != nil {
		return nil, err
	}
	defer s.incoming.leave()
	file, _, err := spool(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	size, err := file.Seek(0, io.SeekEnd)
	if err != nil {
		return nil, err
	}
	from, err := archive.Open(file, size)
	if err != nil {
		return nil, err
	}
	switch {
	case from.Of == archive.OfStudio && here(ctx).Role != store.Owner:
		return nil, errOwnersAlone
	case from.Tables > store.TablesVersion():
		return nil, errNewer
	}
	ctx, end := context.WithTimeout(ctx, bringTime)
	defer end()
	brought, err := s.store.BringIn(ctx, from.Student, from, func(tx pgx.Tx, take uuid.UUID) error { return s.queue.Measure(ctx, tx, take) })
	if err != nil {
		return nil, err
	}
	return api.BringIn200JSONResponse{
		StudentId: from.Student, Name: from.Name,
		Students: brought.Students, Drills: brought.Drills, Takes: brought.Takes, Sounds: brought.Sounds,
	}, nil
}

// broughtInProblem tells why an archive cannot be brought in.
func broughtInProblem(err error) (problem, bool) {
	var odd store.ErrOddRow
	switch {
	case archive.IsFault(err):
		return problem{http.StatusUnprocessableEntity, "not-an-archive", "This file cannot be brought in", upperFirst(err.Error()) + ".", nil}, true
	case errors.Is(err, store.ErrHere):
		return errIsHere, true
	case errors.Is(err, store.ErrNotEmpty):
		return errNotEmpty, true
	case errors.As(err, new(store.ErrTaken)):
		return errTakenHere, true
	case errors.As(err, &odd):
		return problem{http.StatusUnprocessableEntity, "odd-archive", "This archive has been changed", upperFirst(odd.Error()) + ". Nothing was brought in; take the archive out anew.", nil}, true
	}
	return problem{}, false
}
