package server

import (
	"context"
	"errors"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"manudrill/store"
)

// Who may do an operation, as the contract says beside it.
const (
	anybody    = "anybody"
	inDemo     = "demo"
	aPerson    = "person"
	instructor = "instructor"
	owner      = "owner"
)

// mayDo reports whether somebody may do what is for such people. What is for
// nobody that is known is closed.
func mayDo(who string, p store.Person) bool {
	switch who {
	case aPerson:
		return true
	case instructor:
		return p.Teaches()
	case owner:
		return p.Role == store.Owner
	}
	return false
}

// people remembers who is who.
type people struct {
	store *store.Store
	known *memo[uuid.UUID, store.Account]
}

func newPeople(s *store.Store) *people {
	return &people{s, newMemo[uuid.UUID, store.Account](remembered)}
}

func (p *people) account(ctx context.Context, id uuid.UUID) (store.Account, error) {
	return p.known.get(id, func() (store.Account, error) { return p.store.Account(ctx, id) })
}

type accountKey struct{}

// admit lets a request through to an operation if the person may do it. From then
// on the request sees what the person may see, which the database decides.
func (s *Server) admit(c *gin.Context, o *openapi3.Operation) error {
	who, _ := o.Extensions["x-who"].(string)
	switch {
	case who == anybody:
		return nil
	case who == inDemo && s.demo:
		return nil
	case who == inDemo:
		return errMissing
	}
	id, err := uuid.Parse(s.sessions.GetString(c.Request.Context(), sessionPerson))
	if err != nil {
		return errNobody
	}
	account, err := s.people.account(c, id)
	if errors.Is(err, store.ErrNotFound) {
		return errNobody
	}
	if err != nil {
		return err
	}
	if !mayDo(who, account.Person) {
		return errNotYours
	}
	ctx := context.WithValue(c.Request.Context(), accountKey{}, account)
	c.Request = c.Request.WithContext(store.Within(ctx, scopeOf(account)))
	return nil
}

// scopeOf is what somebody sees: their studio, and as a student themselves alone.
func scopeOf(a store.Account) store.Scope {
	sc := store.Scope{Studio: a.StudioID, Actor: a.Person}
	if !a.Teaches() {
		sc.Student = a.ID
	}
	return sc
}

// here returns who makes a request that was admitted.
func here(ctx context.Context) store.Account {
	return ctx.Value(accountKey{}).(store.Account)
}
