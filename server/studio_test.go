package server_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"testing"
	"testing/fstest"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/legacy"
	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/server"
	"manudrill/server/jobs"
	"manudrill/store"
	"manudrill/storetest"
)

var (
	teacher   = store.Person{ID: uuid.New(), Name: "Tess", Role: store.Instructor, Demo: true}
	ann       = store.Person{ID: uuid.New(), Name: "Ann", Role: store.Student, Demo: true}
	ben       = store.Person{ID: uuid.New(), Name: "Ben", Role: store.Student, Demo: true}
	plenty    = server.Options{Demo: true, Limits: server.Limits{SignIns: 1e6, OfOne: 1e6, Takes: 1e6, TakesOfAddress: 1e6}}
	somePages = fstest.MapFS{"index.html": {Data: []byte("<title>the interface</title>")}, "assets/a.js": {Data: []byte("1")},
		"assets/a.js.br": {Data: []byte("small")}, "assets/a.js.gz": {Data: []byte("smaller")}}
)

func TestMain(m *testing.M) { os.Exit(storetest.Run(m)) }

// A house is what one test has of its own: a database with one studio, in which are Tess, Ann
// and Ben, and a server with its worker.
type house struct {
	kept *store.Store
	base string // the server's address
}

// newHouse opens a house; its test runs beside others.
func newHouse(t *testing.T) *house {
	t.Helper()
	t.Parallel()
	return houseAlone(t)
}

// houseAlone opens a house for a test that no other may run beside: it measures memory, say.
func houseAlone(t testing.TB) *house {
	t.Helper()
	h := &house{kept: storetest.Open(t, teacher, ann, ben)}
	handler, err := server.New(h.kept, somePages, plenty)
	require.NoError(t, err)
	workers, err := jobs.Start(context.WithoutCancel(t.Context()), h.kept, nil)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, workers.Stop(context.Background())) })
	srv := httptest.NewServer(handler)
	t.Cleanup(srv.Close)
	h.base = srv.URL
	return h
}

// contract finds the operation of a request by its path.
var contract = sync.OnceValue(func() routers.Router {
	doc, err := openapi3.NewLoader().LoadFromData(api.Spec)
	if err != nil {
		panic(err) // the tests' own
	}
	router, err := legacy.NewRouter(doc)
	if err != nil {
		panic(err)
	}
	return router
})

// A client is one person's browser.
type client struct {
	t    *testing.T
	http *http.Client
	from int    // the revision that changes are made on
	at   string // the server that is asked
}

// on is the client making its changes on a revision.
func (c client) on(revision int) client {
	c.from = revision
	return c
}

// newly is a path to make something under a new id.
func newly(path string) string { return path + "?id=" + uuid.NewString() }

func (h *house) visitor(t *testing.T) client {
	t.Helper()
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return client{t: t, http: &http.Client{Jar: jar}, at: h.base}
}

func (h *house) as(t *testing.T, p store.Person) client {
	t.Helper()
	c := h.visitor(t)
	c.ok(http.MethodPut, "/session", map[string]any{"personId": p.ID}, nil)
	return c
}

// jsonText is sent as it is.
type jsonText string

// do sends a request, checks the answer against the contract and returns it.
func (c client) do(method, path string, body any) (int, []byte) {
	c.t.Helper()
	var reader io.Reader
	contentType := "application/json"
	switch b := body.(type) {
	case nil:
	case jsonText:
		reader = strings.NewReader(string(b))
	case []byte:
		reader, contentType = bytes.NewReader(b), "application/octet-stream"
	default:
		raw, err := json.Marshal(b)
		require.NoError(c.t, err)
		reader = bytes.NewReader(raw)
	}
	req, err := http.NewRequestWithContext(c.t.Context(), method, c.at+"/api"+path, reader)
	require.NoError(c.t, err)
	if reader != nil {
		req.Header.Set("Content-Type", contentType)
	}
	if method == http.MethodPut {
		req.Header.Set("If-Match", strconv.Itoa(c.from))
	}
	return c.send(req)
}

// isMedia tells bodies that a contract cannot look into.
var isMedia = regexp.MustCompile("^(audio|video)/|^text/")

// send returns the answer's status and body.
func (c client) send(req *http.Request) (int, []byte) {
	c.t.Helper()
	resp, err := c.http.Do(req)
	require.NoError(c.t, err)
	defer resp.Body.Close()
	got, err := io.ReadAll(resp.Body)
	require.NoError(c.t, err)
	c.keepsContract(req, resp, got)
	return resp.StatusCode, got
}

func (c client) keepsContract(req *http.Request, resp *http.Response, body []byte) {
	c.t.Helper()
	asked := req.Clone(c.t.Context())
	asked.URL.Scheme, asked.URL.Host = "", ""
	route, params, err := contract().FindRoute(asked)
	if err != nil {
		return // not part of the API
	}
	in := &openapi3filter.ResponseValidationInput{
		RequestValidationInput: &openapi3filter.RequestValidationInput{Request: asked, PathParams: params, Route: route},
		Status:                 resp.StatusCode, Header: resp.Header,
		Options: &openapi3filter.Options{ExcludeResponseBody: isMedia.MatchString(resp.Header.Get("Content-Type"))},
	}
	in.SetBodyBytes(body)
	require.NoError(c.t, openapi3filter.ValidateResponse(c.t.Context(), in), "%s %s answered %s", req.Method, req.URL, body)
}

// ok sends a request that must succeed and reads its answer.
func (c client) ok(method, path string, body, into any) {
	c.t.Helper()
	status, raw := c.do(method, path, body)
	require.Less(c.t, status, 300, "%s %s: %s", method, path, raw)
	if into == nil {
		return
	}
	require.NoError(c.t, json.Unmarshal(raw, into))
	if take, is := into.(*api.Take); is && status == http.StatusAccepted { // a slow machine measures it later
		*take = settled(c.t, c, take.Summary.Id)
	}
}

// fails sends a request that must fail and returns its problem.
func (c client) fails(status int, method, path string, body any) api.Problem {
	c.t.Helper()
	got, raw := c.do(method, path, body)
	require.Equal(c.t, status, got, "%s %s: %s", method, path, raw)
	var p api.Problem
	require.NoError(c.t, json.Unmarshal(raw, &p))
	require.Equal(c.t, status, p.Status)
	require.NotEmpty(c.t, p.Title)
	require.NotEmpty(c.t, p.Detail)
	return p
}

func someDrill() drillfile.File {
	d := drill.New("pairs", drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns})
	d.Path.Position, d.Path.Strings = 7, []int{4, 3, 2, 1}
	return drillfile.File{
		Drill: d,
		Ladder: tempo.Ladder{StartBPM: 100, StepBPM: 10, TargetBPM: 120,
			Gate: tempo.Gate{RightPercent: 90, SpreadPercent: 10, LevelSpreadDB: 6, PassesInARow: 2}},
	}
}

// assigned makes a drill and gives it to a student.
func (h *house) assigned(t *testing.T, file drillfile.File, to store.Person) api.Assignment {
	t.Helper()
	c := h.as(t, teacher)
	var d api.SavedDrill
	c.ok(http.MethodPost, newly("/drills"), file, &d)
	var a api.Assignment
	c.ok(http.MethodPost, "/assignments", map[string]any{"drillId": d.Id, "studentId": to.ID}, &a)
	return a
}

var steady = simulate.Player{Seed: 5, ClockMs: 3, MotorMs: 2, SlurDropDB: 1, NoiseDB: -70}

func takePath(a api.Assignment, take uuid.UUID, bpm float64) string {
	return fmt.Sprintf("/assignments/%s/takes/%s?source=file&bpm=%g", a.Id, take, bpm)
}
