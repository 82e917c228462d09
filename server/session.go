package server

import (
	"context"
	"net/http"
	"time"

	"github.com/alexedwards/scs/pgxstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgxpool"

	"manudrill/api"
	"manudrill/store"
)

// sessionPerson is where a session keeps who is here.
const sessionPerson = "person"

func newSessions(pool *pgxpool.Pool) *scs.SessionManager {
	m := scs.New()
	m.Store = pgxstore.NewWithCleanupInterval(pool, time.Hour)
	m.Lifetime = 90 * 24 * time.Hour
	m.Cookie.Name = "manudrill"
	m.Cookie.HttpOnly = true
	m.Cookie.SameSite = http.SameSiteLaxMode
	m.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) {
		http.Error(w, problemOf(err).detail, http.StatusInternalServerError)
	}
	return m
}

// open are the operations for everybody, forInstructor those for instructors
// alone. All others need somebody to be here.
var (
	open          = map[string]bool{"ListPeople": true, "Enter": true, "Leave": true}
	forInstructor = map[string]bool{
		"Preview": true, "ListDrills": true, "GetDrill": true, "CreateDrill": true, "ChangeDrill": true,
		"DeleteDrill": true, "CopyDrill": true, "Assign": true, "Unassign": true, "GiveNewest": true,
		"GetBench": true, "Rework": true, "Vary": true, "Export": true, "Import": true,
		"PutOnShelf": true, "ListVersions": true, "PutComment": true, "DeleteComment": true,
		"ListBlocks": true, "CreateBlock": true, "GetBlock": true, "DeleteBlock": true,
	}
)

type personKey struct{}

// admit lets a request through to an operation if the person may do it, and
// puts the person into the request's context. Real sign-in will come before it.
func (s *Server) admit(next api.StrictHandlerFunc, operation string) api.StrictHandlerFunc {
	return func(c *gin.Context, request any) (any, error) {
		if open[operation] {
			return next(c, request)
		}
		id, err := uuid.Parse(s.sessions.GetString(c.Request.Context(), sessionPerson))
		if err != nil {
			return nil, errNobody
		}
		person, err := s.store.Person(c, id)
		if err != nil {
			return nil, errNobody
		}
		if forInstructor[operation] && person.Role != store.Instructor {
			return nil, errNotYours
		}
		c.Request = c.Request.WithContext(context.WithValue(c.Request.Context(), personKey{}, person))
		return next(c, request)
	}
}

// here returns who makes a request that was admitted.
func here(ctx context.Context) store.Person {
	return ctx.Value(personKey{}).(store.Person)
}

// mayRead reports an error unless the person here may see what belongs to a
// student.
func mayRead(ctx context.Context, student uuid.UUID) error {
	if p := here(ctx); p.Role != store.Instructor && p.ID != student {
		return errNotYours
	}
	return nil
}

// ownStudent narrows a list to the student here; instructors see what they ask for.
func ownStudent(ctx context.Context, asked *uuid.UUID) *uuid.UUID {
	if p := here(ctx); p.Role != store.Instructor {
		return &p.ID
	}
	return asked
}

// ListPeople tells who can be chosen.
func (s *Server) ListPeople(ctx context.Context, _ api.ListPeopleRequestObject) (api.ListPeopleResponseObject, error) {
	people, err := s.store.People(ctx)
	return api.ListPeople200JSONResponse(each(people, personOf)), err
}

// GetSession tells who is here.
func (s *Server) GetSession(ctx context.Context, _ api.GetSessionRequestObject) (api.GetSessionResponseObject, error) {
	return api.GetSession200JSONResponse(personOf(here(ctx))), nil
}

// Enter makes the person chosen the one who is here.
func (s *Server) Enter(ctx context.Context, r api.EnterRequestObject) (api.EnterResponseObject, error) {
	person, err := s.store.Person(ctx, r.Body.PersonId)
	if err != nil {
		return nil, err
	}
	if err := s.sessions.RenewToken(ctx); err != nil {
		return nil, err
	}
	s.sessions.Put(ctx, sessionPerson, person.ID.String())
	return api.Enter200JSONResponse(personOf(person)), nil
}

// Leave forgets who is here.
func (s *Server) Leave(ctx context.Context, _ api.LeaveRequestObject) (api.LeaveResponseObject, error) {
	return api.Leave204Response{}, s.sessions.Destroy(ctx)
}
