// Package e2e_test drives the real interface in Chromium against a real server
// and a real database.
package e2e_test

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"net/http"
	"net/http/httptest"
	"os"
	"slices"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/server"
	"manudrill/server/jobs"
	"manudrill/store"
	"manudrill/storetest"
	"manudrill/web"
)

var (
	base string
	kept *store.Store
)

const (
	instructor = "Tess Teacher"
	student    = "Stan Student"
)

var people = map[string]store.Person{
	instructor: {ID: uuid.New(), Name: instructor, Role: store.Instructor, Demo: true},
	student:    {ID: uuid.New(), Name: student, Role: store.Student, Demo: true},
}

func TestMain(m *testing.M) {
	code, err := run(m)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		code = 1
	}
	os.Exit(code)
}

// handler is the house's, for who comes by another line.
var handler http.Handler

func run(m *testing.M) (int, error) {
	if _, err := fs.Stat(web.Files(), "index.html"); err != nil {
		return 0, errors.New("the web interface is not built; run 'make build' first")
	}
	ctx := context.Background()
	s, closeStore, err := storetest.Open(ctx, slices.Collect(maps.Values(people))...)
	if err != nil {
		return 0, err
	}
	kept = s
	defer func() { _ = closeStore() }()
	handler, err = server.New(kept, web.Files(), server.Options{Demo: true, Limits: server.Limits{SignIns: 1e6, OfOne: 1e6, Takes: 1e6, TakesOfAddress: 1e6}})
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
	return m.Run(), nil
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
func onTheStand(t *testing.T, file drillfile.File) string {
	t.Helper()
	id := uuid.New()
	require.NoError(t, kept.AddDrill(storetest.In(t.Context()), id, file, store.Shelf{}))
	assignment, err := kept.Assign(storetest.In(t.Context()), id, people[student].ID)
	require.NoError(t, err)
	return "/stand/" + assignment.String()
}
