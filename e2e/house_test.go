// Package e2e_test drives the real interface in Chromium against real servers and
// databases. Each test has a house of its own, and runs beside the others.
package e2e_test

import (
	"context"
	"fmt"
	"io/fs"
	"maps"
	"net/http"
	"net/http/httptest"
	"os"
	"slices"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/tempo"
	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
	"manudrill/server"
	"manudrill/server/jobs"
	"manudrill/store"
	"manudrill/storetest"
	"manudrill/web"
)

func TestMain(m *testing.M) {
	if _, err := fs.Stat(web.Files(), "index.html"); err != nil {
		fmt.Fprintln(os.Stderr, "the web interface is not built; run 'make build' first")
		os.Exit(1)
	}
	os.Exit(storetest.Run(inBrowser{m}))
}

// chromium is the browser of all tests, begun by the first that needs it.
var chromium = sync.OnceValues(func() (*browser.Browser, error) { return browser.Start(context.Background(), browser.Microphone{}) })

// inBrowser runs tests and ends their browser.
type inBrowser struct{ tests *testing.M }

func (i inBrowser) Run() int {
	code := i.tests.Run()
	if b, err := chromium(); err == nil {
		b.Stop()
	}
	return code
}

const (
	instructor = "Tess Teacher"
	student    = "Stan Student"
)

// A house is all that a test has for itself: a database with a studio, an instructor and
// a student in it, a server, and workers.
type house struct {
	t       testing.TB
	ctx     context.Context // in which its studio is asked
	kept    *store.Store
	handler http.Handler
	base    string // the server's address
	people  map[string]store.Person
}

// newHouse begins a house for a test, which from now on runs beside others.
func newHouse(t *testing.T) *house {
	t.Helper()
	t.Parallel()
	return houseAlone(t)
}

// houseAlone begins a house for what runs by itself.
func houseAlone(t testing.TB) *house {
	t.Helper()
	h := &house{t: t, ctx: storetest.In(t.Context()), people: map[string]store.Person{
		instructor: {ID: uuid.New(), Name: instructor, Role: store.Instructor, Demo: true},
		student:    {ID: uuid.New(), Name: student, Role: store.Student, Demo: true},
	}}
	h.kept = storetest.Open(t, slices.Collect(maps.Values(h.people))...)
	var err error
	h.handler, err = server.New(h.kept, web.Files(), server.Options{Demo: true, Limits: server.Limits{SignIns: 1e6, OfOne: 1e6, Takes: 1e6, TakesOfAddress: 1e6}})
	require.NoError(t, err)
	h.work()
	srv := httptest.NewServer(h.handler)
	t.Cleanup(srv.Close)
	h.base = srv.URL
	return h
}

// work begins to measure what is handed in. Workers take their time to begin, for which
// the test does not wait.
func (h *house) work() {
	began := make(chan func())
	go func() {
		workers, err := jobs.Start(context.Background(), h.kept, nil)
		began <- func() {
			if assert.NoError(h.t, err) {
				_ = workers.Stop(context.Background()) // what is under way is nobody's any more
			}
		}
	}()
	h.t.Cleanup(func() { (<-began)() })
}

// shortDrill takes few seconds to play: 8 notes, twice, four a second.
func shortDrill(name string) drillfile.File {
	d := drill.New(name, drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns})
	d.Path.Strings = []int{4, 3, 2, 1}
	return drillfile.File{
		Drill: d,
		Ladder: tempo.Ladder{StartBPM: 120, StepBPM: 10, TargetBPM: 160,
			Gate: tempo.Gate{RightPercent: 90, SpreadPercent: 10, LevelSpreadDB: 6, PassesInARow: 2}},
	}
}

// onTheStand gives a drill of its own to the student and returns the path of
// the stand.
func (h *house) onTheStand(file drillfile.File) string {
	h.t.Helper()
	id := uuid.New()
	require.NoError(h.t, h.kept.AddDrill(h.ctx, id, file, store.Shelf{}))
	assignment, err := h.kept.Assign(h.ctx, id, h.people[student].ID)
	require.NoError(h.t, err)
	return "/stand/" + assignment.String()
}
