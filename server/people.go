package server

import (
	"context"
	"errors"
	"io"
	"strings"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/formats/roster"
	"manudrill/server/secret"
	"manudrill/store"
)

// GetStudio returns the studio's name.
func (s *Server) GetStudio(ctx context.Context, _ api.GetStudioRequestObject) (api.GetStudioResponseObject, error) {
	st, err := s.store.Studio(ctx)
	return api.GetStudio200JSONResponse(studioOf(st)), err
}

// ChangeStudio renames the studio and says how long it keeps sounds.
func (s *Server) ChangeStudio(ctx context.Context, r api.ChangeStudioRequestObject) (api.ChangeStudioResponseObject, error) {
	if err := s.store.ChangeStudio(ctx, r.Params.IfMatch, strings.TrimSpace(r.Body.Name), r.Body.SoundDays, r.Body.TimeZone); err != nil {
		return nil, err
	}
	s.people.known.clear() // each knows its name
	st, err := s.store.Studio(ctx)
	return api.ChangeStudio200JSONResponse(studioOf(st)), err
}

// ListLetters lists the letters that were written.
func (s *Server) ListLetters(ctx context.Context, r api.ListLettersRequestObject) (api.ListLettersResponseObject, error) {
	page, err := pageOf(r.Params.After, nil)
	if err != nil {
		return nil, err
	}
	got, err := s.store.Mails(ctx, page)
	return api.ListLetters200JSONResponse{
		Items: each(got, letterOf), Next: next(got, page, func(m store.Mail) (time.Time, uuid.UUID) { return m.MadeAt, m.ID }),
	}, err
}

// ListAudit lists what instructors did to what is others'.
func (s *Server) ListAudit(ctx context.Context, r api.ListAuditRequestObject) (api.ListAuditResponseObject, error) {
	page, err := pageOf(r.Params.After, nil)
	if err != nil {
		return nil, err
	}
	got, err := s.store.Audit(ctx, r.Params.StudentId, page)
	return api.ListAudit200JSONResponse{
		Items: each(got, auditLineOf), Next: next(got, page, func(l store.Line) (time.Time, uuid.UUID) { return l.At, l.ID }),
	}, err
}

// ListPeople lists those who are here.
func (s *Server) ListPeople(ctx context.Context, r api.ListPeopleRequestObject) (api.ListPeopleResponseObject, error) {
	after, err := afterID(r.Params.After)
	if err != nil {
		return nil, err
	}
	people, err := s.store.People(ctx, after)
	return api.ListPeople200JSONResponse{
		Items: each(people, memberOf), Next: nextID(people, store.MaxPage, func(m store.Member) uuid.UUID { return m.ID }),
	}, err
}

// ListGone lists those who are archived or wait to be removed.
func (s *Server) ListGone(ctx context.Context, _ api.ListGoneRequestObject) (api.ListGoneResponseObject, error) {
	people, err := s.store.Gone(ctx)
	return api.ListGone200JSONResponse{Items: each(people, memberOf)}, err
}

// ReadPeople tells what each line of a list would add.
func (s *Server) ReadPeople(ctx context.Context, r api.ReadPeopleRequestObject) (api.ReadPeopleResponseObject, error) {
	raw, err := io.ReadAll(r.Body)
	if err != nil {
		return nil, err
	}
	rows, err := roster.Read(raw)
	if err != nil {
		return nil, notAList(err)
	}
	return api.ReadPeople200JSONResponse{Rows: rows}, nil
}

// AddPeople adds some people, all or none.
func (s *Server) AddPeople(ctx context.Context, r api.AddPeopleRequestObject) (api.AddPeopleResponseObject, error) {
	fresh := make([]store.Member, len(r.Body.People))
	for i, p := range r.Body.People {
		if p.Role == api.NewPeoplePeopleRoleInstructor && here(ctx).Role != store.Owner {
			return nil, errOwnerOnly
		}
		fresh[i] = store.Member{
			Person: store.Person{ID: p.Id, Name: strings.TrimSpace(p.Name), Role: string(p.Role)},
			Email:  valueOf(p.Email), Groups: valueOf(p.Groups),
		}
	}
	if err := s.store.AddPeople(ctx, fresh); err != nil {
		return nil, err
	}
	added := make([]api.Member, len(fresh))
	for i, p := range fresh {
		m, err := s.store.Member(ctx, p.ID)
		if err != nil {
			return nil, err
		}
		added[i] = memberOf(m)
	}
	return api.AddPeople201JSONResponse{Items: added}, nil
}

// GetPerson returns what the studio knows of somebody.
func (s *Server) GetPerson(ctx context.Context, r api.GetPersonRequestObject) (api.GetPersonResponseObject, error) {
	m, err := s.store.Member(ctx, r.PersonId)
	return api.GetPerson200JSONResponse(memberOf(m)), err
}

// managed returns somebody whom the person here may change: instructors all
// students, the owner all, and each themselves.
func (s *Server) managed(ctx context.Context, id uuid.UUID) (store.Member, error) {
	m, err := s.store.Member(ctx, id)
	me := here(ctx)
	if err == nil && m.Role != store.Student && me.Role != store.Owner && m.ID != me.ID {
		err = errOwnerOnly
	}
	return m, err
}

// ChangePerson changes what the studio knows of somebody.
func (s *Server) ChangePerson(ctx context.Context, r api.ChangePersonRequestObject) (api.ChangePersonResponseObject, error) {
	if _, err := s.managed(ctx, r.PersonId); err != nil {
		return nil, err
	}
	b := r.Body
	err := s.store.ChangePerson(ctx, r.PersonId, r.Params.IfMatch, store.PersonChange{
		Name: strings.TrimSpace(b.Name), Email: b.Email, Note: b.Note, Consent: b.Consent, ConsentBy: strings.TrimSpace(b.ConsentBy), Level: string(valueOf(b.Level)), Groups: b.Groups,
	})
	if err != nil {
		return nil, err
	}
	s.people.known.forget(r.PersonId)
	m, err := s.store.Member(ctx, r.PersonId)
	return api.ChangePerson200JSONResponse(memberOf(m)), err
}

// RemovePerson lets everything about a student be deleted after a waiting time.
func (s *Server) RemovePerson(ctx context.Context, r api.RemovePersonRequestObject) (api.RemovePersonResponseObject, error) {
	m, err := s.managed(ctx, r.PersonId)
	if err == nil && m.Role != store.Student {
		err = errArchiveInstead
	}
	if err == nil {
		err = s.store.Remove(ctx, r.PersonId)
	}
	if err != nil {
		return nil, err
	}
	s.hasGone(r.PersonId)
	m, err = s.store.Member(ctx, r.PersonId)
	return api.RemovePerson200JSONResponse(memberOf(m)), err
}

// hasGone forgets what is remembered of somebody whose sessions have ended.
func (s *Server) hasGone(id uuid.UUID) {
	s.sessions.forget()
	s.people.known.forget(id)
}

// ArchivePerson takes somebody off the lists and out of the house.
func (s *Server) ArchivePerson(ctx context.Context, r api.ArchivePersonRequestObject) (api.ArchivePersonResponseObject, error) {
	if _, err := s.managed(ctx, r.PersonId); err != nil {
		return nil, err
	}
	defer s.hasGone(r.PersonId)
	return api.ArchivePerson204Response{}, s.store.Archive(ctx, r.PersonId)
}

// BringBack brings somebody back.
func (s *Server) BringBack(ctx context.Context, r api.BringBackRequestObject) (api.BringBackResponseObject, error) {
	if _, err := s.managed(ctx, r.PersonId); err != nil {
		return nil, err
	}
	return api.BringBack204Response{}, s.store.BringBack(ctx, r.PersonId)
}

// GiveCode gives somebody a code to come in by.
func (s *Server) GiveCode(ctx context.Context, r api.GiveCodeRequestObject) (api.GiveCodeResponseObject, error) {
	if _, err := s.managed(ctx, r.PersonId); err != nil {
		return nil, err
	}
	if r.PersonId == here(ctx).ID {
		return nil, errOwnCode
	}
	code, err := PutCode(ctx, s.store, s.keeper, r.PersonId)
	s.hasGone(r.PersonId)
	return api.GiveCode201JSONResponse{Code: code.String()}, err
}

// PutCode gives somebody a code that nobody has: one in some thousand is found by
// the same characters as another's, and made anew.
func PutCode(ctx context.Context, s *store.Store, keeper *secret.Keeper, person uuid.UUID) (code secret.Code, err error) {
	for range 5 {
		code = secret.NewCode()
		rest, err := keeper.Hash(ctx, code.Rest)
		if err != nil {
			return code, err
		}
		err = s.PutCode(ctx, person, store.Code{Finder: code.Finder, Rest: rest})
		if !errors.Is(err, store.ErrNameTaken) {
			return code, err
		}
	}
	return code, errSlow
}

// ListGroups lists all groups.
func (s *Server) ListGroups(ctx context.Context, _ api.ListGroupsRequestObject) (api.ListGroupsResponseObject, error) {
	groups, err := s.store.Groups(ctx)
	return api.ListGroups200JSONResponse(each(groups, groupOf)), err
}

// PutGroup makes a group or changes it.
func (s *Server) PutGroup(ctx context.Context, r api.PutGroupRequestObject) (api.PutGroupResponseObject, error) {
	err := s.store.PutGroup(ctx, store.Group{ID: r.GroupId, Name: strings.TrimSpace(r.Body.Name), Revision: r.Params.IfMatch, Students: r.Body.Students})
	if err != nil {
		return nil, err
	}
	groups, err := s.store.Groups(ctx)
	return api.PutGroup200JSONResponse(each(groups, groupOf)), err
}

// DeleteGroup takes a group away.
func (s *Server) DeleteGroup(ctx context.Context, r api.DeleteGroupRequestObject) (api.DeleteGroupResponseObject, error) {
	return api.DeleteGroup204Response{}, s.store.DeleteGroup(ctx, r.GroupId)
}
