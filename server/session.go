package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/google/uuid"

	"manudrill/store"
)

// sessionPerson is where a session keeps who is here.
const sessionPerson = "person"

// remembered is how long a server goes by what it has read of a session or a
// person: a screen asks for several things at once. Who leaves is forgotten at
// once where they left, and within this time by other servers.
const remembered = 2 * time.Second

// sessions keep who is here, by a cookie.
type sessions struct {
	*scs.SessionManager
	kept *sessionStore
}

// newSessions names the cookie after the house, so that two of them on one host
// leave each other's people signed in.
func newSessions(s *store.Store) sessions {
	m := scs.New()
	kept := &sessionStore{s, newMemo[string, foundSession](remembered)}
	m.Store = kept
	m.Codec = codec{}
	m.Lifetime = 90 * 24 * time.Hour
	m.Cookie.Name = "manudrill-" + s.House()
	m.Cookie.HttpOnly = true
	m.Cookie.SameSite = http.SameSiteLaxMode
	m.HashTokenInStore = true // who reads the database can be nobody
	m.ErrorFunc = func(w http.ResponseWriter, _ *http.Request, err error) { refuse(w, err) }
	return sessions{m, kept}
}

// handler serves requests with their session. Where they come over TLS, the cookie
// goes no other way.
func (s sessions) handler(next http.Handler) http.Handler {
	plain := s.LoadAndSave(next)
	over := *s.SessionManager
	over.Cookie.Secure = true
	overTLS := over.LoadAndSave(next)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if isSecure(r) {
			overTLS.ServeHTTP(w, r)
			return
		}
		plain.ServeHTTP(w, r)
	})
}

// begin makes somebody the one who is here, under a token that nobody had before.
func (s sessions) begin(ctx context.Context, person uuid.UUID) error {
	if err := s.RenewToken(ctx); err != nil {
		return err
	}
	s.Put(ctx, sessionPerson, person.String())
	return nil
}

// forget lets all sessions be looked up again, after some were ended.
func (s sessions) forget() { s.kept.found.clear() }

// A codec writes sessions as JSON, which is read in a tenth of the time that the
// usual form takes; each request reads one.
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

// CommitCtx saves a session, which is somebody's.
func (s *sessionStore) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	defer s.found.forget(token)
	_, values, err := codec{}.Decode(data)
	if err != nil {
		return err
	}
	text, _ := values[sessionPerson].(string)
	person, err := uuid.Parse(text)
	if err != nil {
		return errors.New("a session is somebody's")
	}
	return s.store.PutSession(ctx, token, person, data, expiry)
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
