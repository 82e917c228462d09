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

// One server, one database and one studio serve all tests of the package; each
// test makes its own drills.
var (
	base      string
	contract  routers.Router
	teacher   = store.Person{ID: uuid.New(), Name: "Tess", Role: store.Instructor, Demo: true}
	ann       = store.Person{ID: uuid.New(), Name: "Ann", Role: store.Student, Demo: true}
	ben       = store.Person{ID: uuid.New(), Name: "Ben", Role: store.Student, Demo: true}
	kept      *store.Store
	plenty    = server.Options{Demo: true, Limits: server.Limits{SignIns: 1e6, OfOne: 1e6, Takes: 1e6, TakesOfAddress: 1e6}}
	somePages = fstest.MapFS{"index.html": {Data: []byte("<title>the interface</title>")}, "assets/a.js": {Data: []byte("1")},
		"assets/a.js.br": {Data: []byte("small")}, "assets/a.js.gz": {Data: []byte("smaller")}}
)

func TestMain(m *testing.M) {
	os.Exit(storetest.Main(served{m}, func(s *store.Store) { kept = s }, teacher, ann, ben))
}

// served runs tests on a server.
type served struct{ tests *testing.M }

func (s served) Run() int {
	code, err := s.run()
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		code = 1
	}
	return code
}

func (s served) run() (int, error) {
	ctx := context.Background()
	handler, err := server.New(kept, somePages, plenty)
	if err != nil {
		return 0, err
	}
	workers, err := jobs.Start(ctx, kept, nil)
	if err != nil {
		return 0, err
	}
	defer func() { _ = workers.Stop(ctx) }()
	srv := httptest.NewServer(handler)
	defer srv.Close()
	base = srv.URL
	doc, err := openapi3.NewLoader().LoadFromData(api.Spec)
	if err != nil {
		return 0, err
	}
	doc.Servers = openapi3.Servers{{URL: base + "/api"}}
	if contract, err = legacy.NewRouter(doc); err != nil {
		return 0, err
	}
	return s.tests.Run(), nil
}

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

func visitor(t *testing.T) client {
	t.Helper()
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return client{t: t, http: &http.Client{Jar: jar}, at: base}
}

func as(t *testing.T, p store.Person) client {
	t.Helper()
	c := visitor(t)
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
	route, params, err := contract.FindRoute(req)
	if err != nil {
		return // not part of the API
	}
	in := &openapi3filter.ResponseValidationInput{
		RequestValidationInput: &openapi3filter.RequestValidationInput{Request: req, PathParams: params, Route: route},
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
func assigned(t *testing.T, file drillfile.File, to store.Person) api.Assignment {
	t.Helper()
	c := as(t, teacher)
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
