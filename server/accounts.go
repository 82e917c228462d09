package server

import (
	"context"
	"errors"
	"log/slog"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/api"
	"manudrill/server/secret"
	"manudrill/store"
)

// GetHouse tells what whoever stands at the door must know.
func (s *Server) GetHouse(ctx context.Context, _ api.GetHouseRequestObject) (api.GetHouseResponseObject, error) {
	needs, err := s.store.NeedsOwner(ctx)
	if err != nil {
		return nil, err
	}
	n, err := s.store.Studios(ctx)
	house := api.House{Begun: !needs, Demo: s.demo, Several: n > 1}
	if s.demoMade != nil {
		if made, all := s.demoMade(); made < all {
			house.Making = &struct {
				All  int `json:"all"`
				Made int `json:"made"`
			}{all, made}
		}
	}
	return api.GetHouse200JSONResponse(house), err
}

// CheckOpening tells whether a link can begin a studio.
func (s *Server) CheckOpening(ctx context.Context, r api.CheckOpeningRequestObject) (api.CheckOpeningResponseObject, error) {
	if err := s.tries(ctx, ""); err != nil {
		return nil, err
	}
	return api.CheckOpening204Response{}, s.store.Opening(ctx, secret.Kept(r.Body.Token))
}

// Begin begins a studio, whose owner is here from then on.
func (s *Server) Begin(ctx context.Context, r api.BeginRequestObject) (api.BeginResponseObject, error) {
	if err := s.tries(ctx, ""); err != nil {
		return nil, err
	}
	b := r.Body
	token := secret.Kept(b.Token)
	if err := s.store.Opening(ctx, token); err != nil {
		return nil, err
	}
	hash, err := s.newPassword(ctx, b.Password, b.SignIn, b.Name, b.Studio)
	if err != nil {
		return nil, err
	}
	id, err := s.store.Begin(ctx, token, store.Beginning{
		Studio: strings.TrimSpace(b.Studio), Owner: strings.TrimSpace(b.Name), Email: valueOf(b.Email), SignIn: b.SignIn, Password: hash, TimeZone: b.TimeZone,
	})
	if err != nil {
		return nil, err
	}
	h, err := s.isHere(ctx, id)
	return api.Begin201JSONResponse(h), err
}

// newPassword returns what is kept of a password that somebody chooses, unless it
// is easily guessed.
func (s *Server) newPassword(ctx context.Context, password string, names ...string) (string, error) {
	if err := secret.Weak(password, names...); err != nil {
		return "", problem{422, "weak-password", "Choose another password", upperFirst(err.Error()) + ".", nil}
	}
	return s.keeper.Hash(ctx, password)
}

// tries counts one who tries to come in, by their address and by whom they would
// be.
func (s *Server) tries(ctx context.Context, as string) error {
	if err := s.limits.signIns.allow(addressOf(ctx.(*gin.Context).Request)); err != nil || as == "" {
		return err
	}
	return s.limits.ofOne.allow(strings.ToLower(as))
}

// isHere makes somebody the one who is here.
func (s *Server) isHere(ctx context.Context, person uuid.UUID) (api.Here, error) {
	if err := s.sessions.begin(ctx, person); err != nil {
		return api.Here{}, err
	}
	s.people.known.forget(person)
	a, err := s.store.Account(ctx, person)
	return s.hereOf(a), err
}

// GetSession tells who is here.
func (s *Server) GetSession(ctx context.Context, _ api.GetSessionRequestObject) (api.GetSessionResponseObject, error) {
	return api.GetSession200JSONResponse(s.hereOf(here(ctx))), nil
}

// SignIn lets somebody in by name and password.
func (s *Server) SignIn(ctx context.Context, r api.SignInRequestObject) (api.SignInResponseObject, error) {
	studio, name := handle(r.Body.Studio), strings.TrimSpace(r.Body.Name)
	if err := s.tries(ctx, "name "+studio+" "+name); err != nil {
		return nil, err
	}
	a, err := s.store.AccountOf(ctx, studio, name)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	is, err := s.keeper.Matches(ctx, r.Body.Password, a.Hash)
	if err != nil {
		return nil, err
	}
	if !is {
		return nil, errNotKnown
	}
	h, err := s.isHere(ctx, a.ID)
	return api.SignIn200JSONResponse(h), err
}

// handle is a studio as it is asked for, however it is typed.
func handle(of *string) string {
	return strings.Join(strings.Fields(strings.ToLower(valueOf(of))), "-")
}

// ComeIn lets somebody in by their code.
func (s *Server) ComeIn(ctx context.Context, r api.ComeInRequestObject) (api.ComeInResponseObject, error) {
	code, is := secret.ParseCode(r.Body.Code)
	if !is {
		return nil, errNoCode
	}
	if err := s.tries(ctx, "code "+code.Finder); err != nil {
		return nil, err
	}
	a, rest, err := s.store.AccountOfCode(ctx, code.Finder)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	if is, err = s.keeper.Matches(ctx, code.Rest, rest); err != nil {
		return nil, err
	}
	if !is {
		return nil, errNoCode
	}
	if err := s.store.CameIn(ctx, a.ID); err != nil {
		return nil, err
	}
	h, err := s.isHere(ctx, a.ID)
	return api.ComeIn200JSONResponse(h), err
}

// ListDemoPeople tells who can be chosen in the demo.
func (s *Server) ListDemoPeople(ctx context.Context, r api.ListDemoPeopleRequestObject) (api.ListDemoPeopleResponseObject, error) {
	after, err := afterID(r.Params.After)
	if err != nil {
		return nil, err
	}
	people, err := s.store.DemoPeople(ctx, after)
	return api.ListDemoPeople200JSONResponse{
		Items: each(people, personOf), Next: nextID(people, store.MaxPage, func(p store.Person) uuid.UUID { return p.ID }),
	}, err
}

// Enter makes somebody of the demo the one who is here.
func (s *Server) Enter(ctx context.Context, r api.EnterRequestObject) (api.EnterResponseObject, error) {
	if err := s.tries(ctx, ""); err != nil {
		return nil, err
	}
	a, err := s.store.Account(ctx, r.Body.PersonId)
	if err == nil && !a.Demo {
		err = store.ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	h, err := s.isHere(ctx, a.ID)
	return api.Enter200JSONResponse(h), err
}

// Leave forgets who is here.
func (s *Server) Leave(ctx context.Context, _ api.LeaveRequestObject) (api.LeaveResponseObject, error) {
	return api.Leave204Response{}, s.sessions.Destroy(ctx)
}

// LeaveEverywhere forgets who is here on all devices.
func (s *Server) LeaveEverywhere(ctx context.Context, _ api.LeaveEverywhereRequestObject) (api.LeaveEverywhereResponseObject, error) {
	if err := s.endSessions(ctx, here(ctx).ID); err != nil {
		return nil, err
	}
	return api.LeaveEverywhere204Response{}, s.sessions.Destroy(ctx)
}

// endSessions ends all sessions of somebody.
func (s *Server) endSessions(ctx context.Context, person uuid.UUID) error {
	defer s.people.known.forget(person)
	defer s.sessions.forget()
	return s.store.EndSessions(ctx, person)
}

// ChangeAccount lets the person here choose a name and a password. Whoever has a
// password must know it.
func (s *Server) ChangeAccount(ctx context.Context, r api.ChangeAccountRequestObject) (api.ChangeAccountResponseObject, error) {
	if err := s.tries(ctx, "account "+here(ctx).ID.String()); err != nil {
		return nil, err
	}
	a, err := s.store.Account(ctx, here(ctx).ID) // as it is now
	if err != nil {
		return nil, err
	}
	if a.Demo {
		return nil, errDemoAccount
	}
	if a.Hash != "" {
		is, err := s.keeper.Matches(ctx, valueOf(r.Body.Old), a.Hash)
		if err != nil {
			return nil, err
		}
		if !is {
			return nil, errOldPassword
		}
	}
	h, err := s.setPassword(ctx, a, r.Body.SignIn, r.Body.Password)
	return api.ChangeAccount200JSONResponse(h), err
}

// setPassword gives somebody a name and a password; they are here from then on,
// and nowhere else.
func (s *Server) setPassword(ctx context.Context, a store.Account, signIn, password string) (api.Here, error) {
	hash, err := s.newPassword(ctx, password, signIn, a.Name, a.Studio)
	if err != nil {
		return api.Here{}, err
	}
	if err := s.store.SetPassword(ctx, a.ID, signIn, hash); err != nil {
		return api.Here{}, err
	}
	s.sessions.forget()
	return s.isHere(ctx, a.ID)
}

// AskReset writes somebody a letter by which they can set another password. Whoever
// asks is not told whether there is such a person.
func (s *Server) AskReset(ctx context.Context, r api.AskResetRequestObject) (api.AskResetResponseObject, error) {
	studio, name := handle(r.Body.Studio), strings.TrimSpace(r.Body.Name)
	if err := s.tries(ctx, "reset "+studio+" "+name); err != nil {
		return nil, err
	}
	a, err := s.store.AccountOf(ctx, studio, name)
	if errors.Is(err, store.ErrNotFound) || err == nil && (a.Email == "" || a.Demo) {
		return api.AskReset202Response{}, nil
	}
	if err != nil {
		return nil, err
	}
	token, kept := secret.Token()
	letter := resetLetter(a, s.url+"/reset#"+token)
	return api.AskReset202Response{}, s.store.AddReset(ctx, a, kept, letter, func(tx pgx.Tx) error {
		if !s.sendsLetters {
			return nil // it is read in the outbox
		}
		return s.queue.Letter(ctx, tx, letter.ID)
	})
}

func resetLetter(a store.Account, link string) store.Mail {
	return store.Mail{ID: uuid.New(), Recipient: a.Email, Subject: "Another password for " + a.Studio,
		Text: "Hello " + a.Name + ",\n\nsomebody, you most likely, wants to set another password for your place at " + a.Studio +
			" (Manudrill). This link does it, once, within an hour:\n\n" + link +
			"\n\nIf it was not you, do nothing: your password stays as it is.\n"}
}

// Reset sets another password by the link of a letter.
func (s *Server) Reset(ctx context.Context, r api.ResetRequestObject) (api.ResetResponseObject, error) {
	if err := s.tries(ctx, ""); err != nil {
		return nil, err
	}
	a, err := s.store.AccountOfReset(ctx, secret.Kept(r.Body.Token))
	if err != nil {
		return nil, err
	}
	h, err := s.setPassword(ctx, a, a.SignIn, r.Body.Password)
	return api.Reset200JSONResponse(h), err
}

// WantLetters sets whether whoever is here gets a letter when something was said of a take.
func (s *Server) WantLetters(ctx context.Context, r api.WantLettersRequestObject) (api.WantLettersResponseObject, error) {
	id := here(ctx).ID
	if err := s.store.SetLetters(ctx, id, r.Body.Wanted); err != nil {
		return nil, err
	}
	s.people.known.forget(id)
	a, err := s.store.Account(ctx, id)
	return api.WantLetters200JSONResponse(s.hereOf(a)), err
}

// tellOf tells those whom it concerns that something was said of a take. It is kept
// already: that no letter can be written is no reason to say otherwise.
func (s *Server) tellOf(ctx context.Context, take uuid.UUID) {
	if !s.sendsLetters {
		return
	}
	me := here(ctx)
	err := s.store.Tell(ctx, take, me.ID, func(to store.Account) store.Mail { return notice(to, me.Name, s.url) },
		func(tx pgx.Tx, m store.Mail) error { return s.queue.LetterLater(ctx, tx, m.ID, noticeAfter) })
	if err != nil {
		slog.Error("no letter could be written", "take", take, "error", err)
	}
}

// noticeAfter is how long a notice waits, so that it tells of all that is said in one go.
const noticeAfter = 10 * time.Minute

// notice says that there is something to read, and nothing of what: letters are read by
// others too.
func notice(to store.Account, by, url string) store.Mail {
	page := url + "/"
	if to.Teaches() {
		page = url + "/students"
	}
	return store.Mail{ID: uuid.New(), Recipient: to.Email, Subject: "Something was said of a take",
		Text: "Hello " + to.Name + ",\n\n" + by + " has said something of a take at " + to.Studio + " (Manudrill):\n\n" + page +
			"\n\nThe next letter comes six hours from now at the earliest. In Manudrill, Settings, you can do without them.\n"}
}

// valueOf is what is pointed to, or nothing.
func valueOf[T any](p *T) (v T) {
	if p != nil {
		v = *p
	}
	return v
}
