package server_test

import (
	"net/http"
	"net/http/httptest"
	"net/netip"
	"regexp"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/server"
	"manudrill/server/secret"
	"manudrill/store"
	"manudrill/storetest"
)

const password = "four frets up"

// opened is a link by which a studio can be begun.
func (h *house) opened(t *testing.T) (token string) {
	t.Helper()
	token, kept1 := secret.Token()
	require.NoError(t, h.kept.AddOpening(t.Context(), kept1))
	return token
}

// real is a server that is no demo, with limits that a test does not reach.
func (h *house) real(t *testing.T, o server.Options) string {
	t.Helper()
	if o.Limits == (server.Limits{}) {
		o.Limits = plenty.Limits
	}
	handler, err := server.New(h.kept, somePages, o)
	require.NoError(t, err)
	srv := httptest.NewServer(handler)
	t.Cleanup(srv.Close)
	return srv.URL
}

func (c client) of(address string) client {
	c.at = address
	return c
}

// begin begins a studio of its own and returns its owner.
func (h *house) begin(t *testing.T, at, studio, signIn string) client {
	t.Helper()
	c := h.visitor(t).of(at)
	var here api.Here
	c.ok(http.MethodPost, "/house", map[string]any{"token": h.opened(t), "studio": studio, "name": "Oda", "signIn": signIn, "password": password, "email": signIn + "@example.org"}, &here)
	assert.Equal(t, api.PersonRoleOwner, here.Person.Role)
	assert.Equal(t, studio, here.Studio)
	return c
}

func signIn(studio, name, password string) map[string]any {
	return map[string]any{"studio": studio, "name": name, "password": password}
}

// add adds somebody and returns them with a code to come in by.
func add(t *testing.T, by client, name, role string) (id uuid.UUID, code string) {
	t.Helper()
	id = uuid.New()
	by.ok(http.MethodPost, "/people", map[string]any{"people": []any{map[string]any{"id": id, "name": name, "role": role}}}, nil)
	return id, newCode(t, by, id)
}

func newCode(t *testing.T, by client, id uuid.UUID) string {
	t.Helper()
	var c api.PersonalCode
	by.ok(http.MethodPost, "/people/"+id.String()+"/code", nil, &c)
	return c.Code
}

func (h *house) comeIn(t *testing.T, at, code string) client {
	t.Helper()
	c := h.visitor(t).of(at)
	c.ok(http.MethodPost, "/session/code", map[string]any{"code": code}, nil)
	return c
}

// A link begins one studio, whoever presses it how often.
func TestAStudioIsBegunOnce(t *testing.T) {
	h := newHouse(t)
	at := h.real(t, server.Options{})
	token := h.opened(t)
	h.visitor(t).of(at).ok(http.MethodPost, "/house/opening", map[string]any{"token": token}, nil)
	var wg sync.WaitGroup
	begun := make(chan int, 6)
	for range 6 {
		wg.Go(func() {
			status, _ := h.visitor(t).of(at).do(http.MethodPost, "/house",
				map[string]any{"token": token, "studio": "Once", "name": "Oda", "signIn": "oda " + uuid.NewString(), "password": password})
			begun <- status
		})
	}
	wg.Wait()
	close(begun)
	counts := map[int]int{}
	for status := range begun {
		counts[status]++
	}
	assert.Equal(t, map[int]int{http.StatusCreated: 1, http.StatusGone: 5}, counts)
	p := h.visitor(t).of(at).fails(http.StatusGone, http.MethodPost, "/house/opening", map[string]any{"token": token})
	assert.Contains(t, p.Detail, "Ask for a new one")
	weak := map[string]any{"token": h.opened(t), "studio": "Once", "name": "Oda", "signIn": "oda", "password": "12345678"}
	h.visitor(t).of(at).fails(http.StatusUnprocessableEntity, http.MethodPost, "/house", weak)
	h.visitor(t).of(at).ok(http.MethodPost, "/house/opening", map[string]any{"token": weak["token"]}, nil) // not used up by what failed
}

// Two studios of one name, whose owners sign in by one name, are two.
func TestStudiosAreAskedForWhereThereAreSeveral(t *testing.T) {
	h := newHouse(t)
	at := h.real(t, server.Options{})
	var first, second api.Studio
	h.begin(t, at, "Fret House", "oda").ok(http.MethodGet, "/studio", nil, &first)
	h.begin(t, at, "Fret House", "oda").ok(http.MethodGet, "/studio", nil, &second)
	assert.NotEqual(t, first.Handle, second.Handle)
	var told api.House
	h.visitor(t).of(at).ok(http.MethodGet, "/house", nil, &told)
	assert.Equal(t, api.House{Begun: true, Several: true}, told)
	h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session", signIn("", "oda", password))
	h.visitor(t).of(at).ok(http.MethodPost, "/session", signIn(first.Handle, "Oda", password), nil)
	h.visitor(t).of(at).ok(http.MethodPost, "/session", signIn(" Fret  house", "oda", password), nil)
}

// Who does not know the password learns nothing, not even whether there is such a
// person.
func TestSigningIn(t *testing.T) {
	h := newHouse(t)
	at := h.real(t, server.Options{})
	oda := h.begin(t, at, "Sign-in House", "oda")
	out := h.visitor(t).of(at)
	wrong := out.fails(http.StatusUnauthorized, http.MethodPost, "/session", signIn("sign-in house", "oda", "four frets down"))
	nobody := out.fails(http.StatusUnauthorized, http.MethodPost, "/session", signIn("sign-in house", "odo", password))
	assert.Equal(t, wrong, nobody)
	out.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
	var here api.Here
	out.ok(http.MethodPost, "/session", signIn("sign-in-house", " ODA ", password), &here)
	assert.True(t, here.HasPassword)

	// A changed password signs out everywhere else; leaving everywhere does here too.
	out.fails(http.StatusForbidden, http.MethodPut, "/account", map[string]any{"signIn": "oda", "password": "five frets up"})
	out.fails(http.StatusForbidden, http.MethodPut, "/account", map[string]any{"signIn": "oda", "old": "no", "password": "five frets up"})
	out.ok(http.MethodPut, "/account", map[string]any{"signIn": "oda", "old": password, "password": "five frets up"}, nil)
	oda.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
	h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session", signIn("sign-in house", "oda", password))
	elsewhere := h.visitor(t).of(at)
	elsewhere.ok(http.MethodPost, "/session", signIn("sign-in house", "oda", "five frets up"), nil)
	out.ok(http.MethodGet, "/session", nil, nil)
	out.ok(http.MethodDelete, "/sessions", nil, nil)
	for _, c := range []client{out, elsewhere} {
		c.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
	}
	// Nobody enters by one click where it is no demo, not even as who is invented.
	h.visitor(t).of(at).fails(http.StatusNotFound, http.MethodPut, "/session", map[string]any{"personId": ann.ID})
	h.visitor(t).of(at).fails(http.StatusNotFound, http.MethodGet, "/demo/people", nil)
}

// A card is enough to come in by, again and again, until a password is chosen or
// another card given.
func TestComingInByACode(t *testing.T) {
	h := newHouse(t)
	at := h.real(t, server.Options{})
	oda := h.begin(t, at, "Code House", "oda")
	id, code := add(t, oda, "Mira Tamsin", "student")
	var m api.Member
	oda.ok(http.MethodGet, "/people/"+id.String(), nil, &m)
	assert.Equal(t, api.Invited, m.State)
	mira := h.comeIn(t, at, strings.ToLower(strings.ReplaceAll(code, "-", " ")))
	again := h.comeIn(t, at, code)
	oda.ok(http.MethodGet, "/people/"+id.String(), nil, &m)
	assert.Equal(t, api.Joined, m.State)
	h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session/code", map[string]any{"code": "0000-0000-0000"})
	h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session/code", map[string]any{"code": code[:13] + "="})

	// A name another has is refused, and nothing is lost by it.
	mira.fails(http.StatusConflict, http.MethodPut, "/account", map[string]any{"signIn": "ODA", "password": password})
	mira.fails(http.StatusUnprocessableEntity, http.MethodPut, "/account", map[string]any{"signIn": "mira", "password": "mira tamsin"})
	mira.ok(http.MethodPut, "/account", map[string]any{"signIn": "mira", "password": password}, nil)
	again.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
	h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session/code", map[string]any{"code": code})
	h.visitor(t).of(at).ok(http.MethodPost, "/session", signIn("code house", "mira", password), nil)

	// Another code ends the password and the session.
	fresh := newCode(t, oda, id)
	assert.NotEqual(t, code, fresh)
	mira.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
	h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session", signIn("code house", "mira", password))
	mira = h.comeIn(t, at, fresh)

	// Who is archived is out at once, and in again once brought back.
	oda.ok(http.MethodPost, "/people/"+id.String()+"/archive", nil, nil)
	mira.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
	h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session/code", map[string]any{"code": fresh})
	oda.ok(http.MethodPost, "/people/"+id.String()+"/back", nil, nil)
	h.comeIn(t, at, fresh)
}

// The owner looks after instructors, instructors after students.
func TestWhoLooksAfterWhom(t *testing.T) {
	h := newHouse(t)
	at := h.real(t, server.Options{})
	oda := h.begin(t, at, "Order House", "oda")
	var owner api.Here
	oda.ok(http.MethodGet, "/session", nil, &owner)
	ivo, code := add(t, oda, "Ivo", "instructor")
	teaching := h.comeIn(t, at, code)
	mira, _ := add(t, teaching, "Mira", "student")
	path := func(id uuid.UUID) string { return "/people/" + id.String() }
	change := map[string]any{"name": "X", "email": "", "note": "", "consent": true, "consentBy": "her mother, on paper", "groups": []any{}}

	teaching.fails(http.StatusForbidden, http.MethodPost, "/people", map[string]any{"people": []any{map[string]any{"id": uuid.New(), "name": "Ina", "role": "instructor"}}})
	teaching.on(1).fails(http.StatusForbidden, http.MethodPut, path(owner.Person.Id), change)
	for _, does := range []string{"/code", "/archive", "/back"} {
		teaching.fails(http.StatusForbidden, http.MethodPost, path(owner.Person.Id)+does, nil)
	}
	oda.fails(http.StatusConflict, http.MethodPost, path(owner.Person.Id)+"/archive", nil)
	oda.fails(http.StatusConflict, http.MethodPost, path(owner.Person.Id)+"/code", nil)
	oda.fails(http.StatusConflict, http.MethodDelete, path(ivo), nil)
	teaching.on(1).ok(http.MethodPut, path(mira), change, nil)
	teaching.on(1).fails(http.StatusPreconditionFailed, http.MethodPut, path(mira), change)
	var gone api.Member
	teaching.ok(http.MethodDelete, path(mira), nil, &gone)
	require.NotNil(t, gone.RemoveAt)
	assert.NotNil(t, gone.ConsentAt)
	oda.ok(http.MethodPost, path(ivo)+"/archive", nil, nil)
	teaching.fails(http.StatusUnauthorized, http.MethodGet, "/people", nil)

	var lines api.AuditPage
	oda.ok(http.MethodGet, "/audit?studentId="+mira.String(), nil, &lines)
	var told []string
	for _, l := range lines.Items {
		told = append(told, l.Actor+" "+l.Did+" "+l.About)
	}
	assert.Equal(t, []string{"Ivo removed X", "Ivo changed X", "Ivo gave a code to Mira", "Ivo added Mira"}, told)
}

// A forgotten password is set anew by a link, once, which stays in the outbox where
// no letters are sent.
func TestAForgottenPassword(t *testing.T) {
	h := newHouse(t)
	at := h.real(t, server.Options{URL: "https://drills.example.org/"})
	oda := h.begin(t, at, "Letter House", "oda")
	out := h.visitor(t).of(at)
	for _, name := range []string{"oda", "oda", "nobody"} { // asked twice, the first link is void and its letter gone
		out.ok(http.MethodPost, "/resets", map[string]any{"studio": "letter house", "name": name}, nil)
	}
	var letters api.LetterPage
	oda.ok(http.MethodGet, "/letters", nil, &letters)
	require.Len(t, letters.Items, 1)
	assert.Equal(t, "oda@example.org", letters.Items[0].Recipient)
	link := regexp.MustCompile(`https://drills\.example\.org/reset#(\S+)`).FindStringSubmatch(letters.Items[0].Text)
	require.Len(t, link, 2, letters.Items[0].Text)
	out.fails(http.StatusUnprocessableEntity, http.MethodPut, "/resets", map[string]any{"token": link[1], "password": "aaaaaaaa"})
	out.ok(http.MethodPut, "/resets", map[string]any{"token": link[1], "password": "five frets up"}, nil)
	out.ok(http.MethodGet, "/session", nil, nil)
	oda.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
	h.visitor(t).of(at).fails(http.StatusGone, http.MethodPut, "/resets", map[string]any{"token": link[1], "password": "six frets up"})
	h.visitor(t).of(at).ok(http.MethodPost, "/session", signIn("letter house", "oda", "five frets up"), nil)
}

// Passwords and codes cannot be tried out, from wherever.
func TestGuessingIsSlowedDown(t *testing.T) {
	h := newHouse(t)
	at := h.real(t, server.Options{Limits: server.Limits{SignIns: 1e6, OfOne: 3}})
	h.begin(t, at, "Slow House", "oda")
	for range 3 {
		h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session", signIn("slow house", "oda", "no"))
	}
	h.visitor(t).of(at).fails(http.StatusTooManyRequests, http.MethodPost, "/session", signIn("Slow  House", "ODA", password))
	for range 3 {
		h.visitor(t).of(at).fails(http.StatusUnauthorized, http.MethodPost, "/session/code", map[string]any{"code": "AAAA-A000-0000"})
	}
	h.visitor(t).of(at).fails(http.StatusTooManyRequests, http.MethodPost, "/session/code", map[string]any{"code": "AAAA-A111-1111"})
}

// The cookie is out of reach of scripts and other sites, has the name of its house,
// and goes over TLS alone where a proxy that is believed says so.
func TestTheCookie(t *testing.T) {
	h := newHouse(t)
	proxy := netip.MustParsePrefix("10.1.0.0/16")
	handler, err := server.New(h.kept, somePages, server.Options{Demo: true, Proxies: []netip.Prefix{proxy}, Limits: server.Limits{SignIns: 2}})
	require.NoError(t, err)
	enter := func(from, scheme, of string) *httptest.ResponseRecorder {
		req := httptest.NewRequestWithContext(t.Context(), http.MethodPut, "/api/session", strings.NewReader(`{"personId":"`+ann.ID.String()+`"}`))
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("X-Forwarded-Proto", scheme)
		req.Header.Set("X-Forwarded-For", of)
		req.RemoteAddr, req.Host = from+":4711", "localhost"
		w := httptest.NewRecorder()
		handler.ServeHTTP(w, req)
		return w
	}
	over := enter("10.1.2.3", "https", "192.0.2.7").Header().Get("Set-Cookie")
	for _, has := range []string{"manudrill-" + h.kept.House() + "=", "HttpOnly", "SameSite=Lax", "Secure"} {
		assert.Contains(t, over, has)
	}
	assert.NotContains(t, enter("10.1.2.3", "http", "192.0.2.8").Header().Get("Set-Cookie"), "Secure")
	assert.NotContains(t, enter("203.0.113.5", "https", "192.0.2.9").Header().Get("Set-Cookie"), "Secure", "anybody can say so")

	// Tries are counted by who is behind the proxy, whatever they say themselves.
	enter("10.1.2.3", "https", "198.51.100.1, 192.0.2.7, 10.1.9.9")
	assert.Equal(t, http.StatusTooManyRequests, enter("10.1.2.3", "https", "198.51.100.2, 192.0.2.7").Code)
	assert.Equal(t, http.StatusOK, enter("10.1.2.3", "https", "192.0.2.77").Code)
	enter("203.0.113.5", "https", "192.0.2.78")
	assert.Equal(t, http.StatusTooManyRequests, enter("203.0.113.5", "https", "192.0.2.79").Code)
}

// Signed in at one house, one stays so at another on the same host.
func TestTwoHousesOnOneHost(t *testing.T) {
	h := newHouse(t)
	second := storetest.Open(t, teacher)
	handler, err := server.New(second, somePages, plenty)
	require.NoError(t, err)
	other := httptest.NewServer(handler)
	t.Cleanup(other.Close)
	c := h.as(t, teacher)
	there := c.of(other.URL) // with the same cookies: they go by the host, not by the port
	there.ok(http.MethodPut, "/session", map[string]any{"personId": teacher.ID}, nil)
	c.ok(http.MethodGet, "/session", nil, nil)
	there.ok(http.MethodGet, "/session", nil, nil)
}

// A studio that an earlier Manudrill has left, in which nobody could sign in, is its
// first instructor's with all that is in it.
func TestAnEarlierStudioIsTakenOver(t *testing.T) {
	h := newHouse(t)
	tess := store.Person{ID: uuid.New(), Name: "Instructor", Role: store.Instructor}
	old := storetest.Open(t, tess, store.Person{ID: uuid.New(), Name: "Student", Role: store.Student})
	drill := uuid.New()
	require.NoError(t, old.AddDrill(storetest.In(t.Context()), drill, someDrill(), store.Shelf{}))
	handler, err := server.New(old, somePages, server.Options{})
	require.NoError(t, err)
	srv := httptest.NewServer(handler)
	t.Cleanup(srv.Close)
	var told api.House
	c := h.visitor(t).of(srv.URL)
	c.ok(http.MethodGet, "/house", nil, &told)
	assert.False(t, told.Begun)
	token, hash := secret.Token()
	require.NoError(t, old.AddOpening(t.Context(), hash))
	var here api.Here
	c.ok(http.MethodPost, "/house", map[string]any{"token": token, "studio": "Fret House", "name": "Oda", "signIn": "oda", "password": password}, &here)
	assert.Equal(t, tess.ID, here.Person.Id)
	var drills api.DrillPage
	c.ok(http.MethodGet, "/drills", nil, &drills)
	require.Len(t, drills.Items, 1)
	assert.Equal(t, drill, drills.Items[0].Id)

	// An owner who has forgotten the password and comes in by a code has a studio still.
	code := secret.NewCode()
	require.NoError(t, old.PutCode(storetest.In(t.Context()), here.Person.Id, store.Code{Finder: code.Finder, Rest: "hash"}))
	c.ok(http.MethodGet, "/house", nil, &told)
	assert.True(t, told.Begun)
}

// Whoever wants to gets one letter when something was said of their take, and nobody else.
func TestALetterWhenSomethingWasSaid(t *testing.T) {
	h := newHouse(t)
	at := h.real(t, server.Options{URL: "https://drills.example.org", Letters: true})
	studio := "Notices " + uuid.NewString()
	oda := h.begin(t, at, studio, "oda"+uuid.NewString())
	mira := uuid.New()
	oda.ok(http.MethodPost, "/people", map[string]any{"people": []any{map[string]any{"id": mira, "name": "Mira", "role": "student", "email": "mira@example.org"}}}, nil)
	var code struct{ Code string }
	oda.ok(http.MethodPost, "/people/"+mira.String()+"/code", nil, &code)
	pupil := h.visitor(t).of(at)
	pupil.ok(http.MethodPost, "/session/code", map[string]any{"code": code.Code}, nil)

	id := uuid.New()
	oda.ok(http.MethodPost, "/drills?id="+id.String(), someDrill(), nil)
	var a api.Assignment
	oda.ok(http.MethodPost, "/assignments", map[string]any{"drillId": id, "studentId": mira}, &a)
	takeID := uuid.NewString()
	take := "/takes/" + takeID
	pupil.ok(http.MethodPut, "/assignments/"+a.Id.String()+"/simulated/"+takeID, steady, nil)
	said := func(c client, text string) {
		t.Helper()
		require.Eventually(t, func() bool {
			status, _ := c.do(http.MethodPut, take+"/comments/"+uuid.NewString(), map[string]any{"note": 0, "text": text})
			return status == http.StatusOK
		}, 30*time.Second, 100*time.Millisecond, "once the take is measured")
	}
	letters := func() []api.Letter {
		var l api.LetterPage
		oda.ok(http.MethodGet, "/letters", nil, &l)
		return l.Items
	}
	said(oda, "late")
	assert.Empty(t, letters(), "nobody has asked for any")
	var here api.Here
	pupil.ok(http.MethodPut, "/account/letters", map[string]any{"wanted": true}, &here)
	require.NotNil(t, here.Letters)
	assert.True(t, *here.Letters)
	oda.ok(http.MethodPut, "/account/letters", map[string]any{"wanted": true}, nil)
	var both sync.WaitGroup
	for range 2 { // two at once
		both.Go(func() { said(oda, "early") })
	}
	both.Wait()
	oda.on(0).ok(http.MethodPut, take+"/review", map[string]any{"accepted": true, "note": "secret words"}, nil)
	got := letters()
	require.Len(t, got, 1, "one, however much is said")
	assert.Equal(t, "mira@example.org", got[0].Recipient)
	assert.Contains(t, got[0].Text, "Oda has said something of a take")
	assert.NotContains(t, got[0].Text, "secret words")
	said(pupil, "why?")
	assert.Len(t, letters(), 2, "the answer is told to who has said something before")
	pupil.ok(http.MethodPut, "/account/letters", map[string]any{"wanted": false}, &here)
	assert.False(t, *here.Letters)
}
