package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/getkin/kin-openapi/openapi3"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/store"
)

// sessionPerson is where a session keeps who is here.
const sessionPerson = "person"

// remembered is how long a server goes by what it has read of a session or a
// person: a screen asks for several things at once. Who leaves is forgotten at
// once where they left, and within this time by other servers.
const remembered = 2 * time.Second

func newSessions(s *store.Store) *scs.SessionManager {
	m := scs.New()
	m.Store = &sessionStore{s, newMemo[string, foundSession](remembered)}
	m.Codec = codec{}
	m.Lifetime = 90 * 24 * time.Hour
	m.Cookie.Name = "manudrill"
	m.Cookie.HttpOnly = true
	m.Cookie.SameSite = http.SameSiteLaxMode
	m.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) { refuse(w, err) }
	return m
}

// A codec writes sessions as JSON, which is read in a tenth of the time that the
// usual form takes; each request reads one. Sessions of that form are still read.
type codec struct{}

type sessionDocument struct {
	Deadline time.Time         `json:"deadline"`
	Values   map[string]string `json:"values"`
}

// Encode writes a session, whose values are texts.
func (codec) Encode(deadline time.Time, values map[string]any) ([]byte, error) {
	d := sessionDocument{deadline, map[string]string{}}
	for name, v := range values {
		text, is := v.(string)
		if !is {
			return nil, fmt.Errorf("a session keeps texts, not the %T %q", v, name)
		}
		d.Values[name] = text
	}
	return json.Marshal(d)
}

// Decode reads a session.
func (codec) Decode(raw []byte) (time.Time, map[string]any, error) {
	var d sessionDocument
	if len(raw) == 0 || raw[0] != '{' {
		return scs.GobCodec{}.Decode(raw)
	}
	if err := json.Unmarshal(raw, &d); err != nil {
		return time.Time{}, nil, err
	}
	values := make(map[string]any, len(d.Values))
	for name, text := range d.Values {
		values[name] = text
	}
	return d.Deadline, values, nil
}

// A sessionStore keeps sessions in the database, which it asks for one once in a
// while only.
type sessionStore struct {
	store *store.Store
	found *memo[string, foundSession]
}

type foundSession struct {
	data   []byte
	exists bool
}

// FindCtx returns a session's data.
func (s *sessionStore) FindCtx(ctx context.Context, token string) ([]byte, bool, error) {
	f, err := s.found.get(token, func() (foundSession, error) {
		data, exists, err := s.store.Session(ctx, token)
		return foundSession{data, exists}, err
	})
	return f.data, f.exists, err
}

// CommitCtx saves a session.
func (s *sessionStore) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	defer s.found.forget(token)
	return s.store.PutSession(ctx, token, data, expiry)
}

// DeleteCtx ends a session.
func (s *sessionStore) DeleteCtx(ctx context.Context, token string) error {
	defer s.found.forget(token)
	return s.store.DeleteSession(ctx, token)
}

// Find, Commit and Delete are asked for by the interface and not by the manager,
// which has a context.
func (s *sessionStore) Find(token string) ([]byte, bool, error) {
	return s.FindCtx(context.Background(), token)
}

// Commit is CommitCtx.
func (s *sessionStore) Commit(token string, data []byte, expiry time.Time) error {
	return s.CommitCtx(context.Background(), token, data, expiry)
}

// Delete is DeleteCtx.
func (s *sessionStore) Delete(token string) error { return s.DeleteCtx(context.Background(), token) }

// people remembers who is who.
type people struct {
	store *store.Store
	known *memo[uuid.UUID, store.Person]
}

func newPeople(s *store.Store) *people {
	return &people{s, newMemo[uuid.UUID, store.Person](remembered)}
}

func (p *people) person(ctx context.Context, id uuid.UUID) (store.Person, error) {
	return p.known.get(id, func() (store.Person, error) { return p.store.Person(ctx, id) })
}

// Who may do an operation, as the contract says beside it.
const (
	anybody    = "anybody"
	aPerson    = "person"
	instructor = "instructor"
)

type personKey struct{}

// admit lets a request through to an operation if the person may do it, and
// puts the person into the request's context. Real sign-in will come before it.
func (s *Server) admit(c *gin.Context, o *openapi3.Operation) error {
	who, _ := o.Extensions["x-who"].(string)
	if who == anybody {
		return nil
	}
	id, err := uuid.Parse(s.sessions.GetString(c.Request.Context(), sessionPerson))
	if err != nil {
		return errNobody
	}
	person, err := s.people.person(c, id)
	if errors.Is(err, store.ErrNotFound) {
		return errNobody
	}
	if err != nil {
		return err
	}
	c.Request = c.Request.WithContext(context.WithValue(c.Request.Context(), personKey{}, person))
	if who == aPerson || who == instructor && person.Role == store.Instructor {
		return nil
	}
	return errNotYours
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
func (s *Server) ListPeople(ctx context.Context, r api.ListPeopleRequestObject) (api.ListPeopleResponseObject, error) {
	after, err := afterID(r.Params.After)
	if err != nil {
		return nil, err
	}
	people, err := s.store.People(ctx, after)
	return api.ListPeople200JSONResponse{Items: each(people, personOf), Next: nextID(people, store.MaxPage, func(p store.Person) uuid.UUID { return p.ID })}, err
}

// GetSession tells who is here.
func (s *Server) GetSession(ctx context.Context, _ api.GetSessionRequestObject) (api.GetSessionResponseObject, error) {
	return api.GetSession200JSONResponse(personOf(here(ctx))), nil
}

// Enter makes the person chosen the one who is here.
func (s *Server) Enter(ctx context.Context, r api.EnterRequestObject) (api.EnterResponseObject, error) {
	if err := s.limits.signIns.allow(addressOf(ctx.(*gin.Context).Request)); err != nil {
		return nil, err
	}
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
