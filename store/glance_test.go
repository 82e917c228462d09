package store_test

import (
	"cmp"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/practice"
	"manudrill/core/progress"
	"manudrill/store"
)

// The order in which the database puts students, whatever they have, is that of the core.
func TestTheGlancePutsStudentsInTheCoresOrder(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	require.NoError(t, s.Archive(h.ctx, h.student.ID))
	require.NoError(t, s.Archive(h.ctx, h.other.ID))
	today := dayOf(time.Now().UTC())
	rnd := rand.New(rand.NewPCG(7, 7))
	type known struct {
		name   string
		needs  []progress.Need
		drills []progress.Drill
	}
	var all []known
	drills := []uuid.UUID{uuid.New(), uuid.New(), uuid.New()}
	for _, d := range drills {
		require.NoError(t, s.AddDrill(h.ctx, d, fileAt(5), store.Shelf{}))
	}
	for i := range 60 {
		p := store.Person{ID: uuid.New(), Name: fmt.Sprintf("Student %02d", rnd.IntN(40)), Role: store.Student}
		require.NoError(t, s.AddPerson(h.ctx, p))
		k := known{name: p.Name + p.ID.String()}
		hurt := i%13 == 0
		if hurt {
			require.NoError(t, s.AddHandReport(h.ctx, uuid.New(), p.ID, time.Now().Add(-time.Minute), practice.HandReport{Kind: practice.IsHurt}))
		}
		for _, d := range drills[:rnd.IntN(4)] {
			assignment, err := s.Assign(h.ctx, d, p.ID)
			require.NoError(t, err)
			state := stateBy(rnd, today)
			if state != nil {
				require.NoError(t, s.KeepState(h.ctx, assignment, *state))
			}
			k.drills = append(k.drills, progress.Drill{State: state})
		}
		k.needs = progress.NeedsOf(hurt, k.drills, today)
		all = append(all, k)
	}
	slices.SortFunc(all, func(a, b known) int {
		return cmp.Or(progress.Pressing(a.needs, b.needs, a.drills, b.drills), cmp.Compare(a.name, b.name))
	})
	var got []string
	var counts map[string]int
	for after := 0; ; after += store.GlanceSize {
		g, err := s.Glance(h.ctx, store.GlanceAsked{Order: "need", After: after})
		require.NoError(t, err)
		for _, one := range g.Students {
			got = append(got, one.Name+one.ID.String())
		}
		if counts = g.Counts; len(g.Students) < store.GlanceSize {
			break
		}
	}
	want, wantCounts := []string{}, map[string]int{}
	for _, k := range all {
		want = append(want, k.name)
		why := ""
		if len(k.needs) > 0 {
			why = string(k.needs[0].Why)
		}
		wantCounts[why]++
	}
	assert.Equal(t, want, got)
	assert.Equal(t, wantCounts, counts)
	assert.Greater(t, len(counts), 5, "or this would prove little")
	stuck := "stuck"
	g, err := s.Glance(h.ctx, store.GlanceAsked{Order: "name", Why: &stuck})
	require.NoError(t, err)
	assert.Len(t, g.Students, min(counts["stuck"], store.GlanceSize))
	assert.Equal(t, counts, g.Counts, "whichever is asked for")
}

// dayOf is the day of a moment, at its midnight.
func dayOf(at time.Time) time.Time { return at.Truncate(24 * time.Hour) }

// stateBy is a state by chance; nil for one without a take.
func stateBy(rnd *rand.Rand, today time.Time) *progress.State {
	if rnd.IntN(8) == 0 {
		return nil
	}
	kinds := []progress.Kind{progress.Reached, progress.Few, progress.Rising, progress.Slipping, progress.Stuck, progress.Unclear}
	last := today.AddDate(0, 0, -rnd.IntN(30))
	since := last.AddDate(0, 0, -rnd.IntN(10))
	gate := float64(60 + rnd.IntN(100))
	s := progress.State{Finding: progress.Finding{Kind: kinds[rnd.IntN(len(kinds))], Last: &last, Since: &since}, OfGate: &gate, Of: rnd.IntN(9), Days: []time.Time{since, last}}
	if rnd.IntN(2) == 0 {
		s.Weakest = &progress.PairCourse{LateMs: float64(rnd.IntN(30))}
	}
	return &s
}

// Words are looked for in names and in those of drills; days are counted of drills that
// were taken back, too.
func TestTheGlanceIsNarrowed(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	g, err := s.Glance(h.ctx, store.GlanceAsked{Order: "need", Words: []string{"osk"}})
	require.NoError(t, err)
	require.Len(t, g.Students, 1)
	drill := g.Students[0].Drills[0]
	assert.NotEmpty(t, g.Students[0].Dates)
	for words, n := range map[string]int{"OSK": 0, "nobody": 0, "%": 0, "_": 0} {
		g, err := s.Glance(h.ctx, store.GlanceAsked{Order: "need", Words: []string{words}})
		require.NoError(t, err)
		assert.Len(t, g.Students, n, words)
	}
	require.NoError(t, s.Unassign(h.ctx, drill.Assignment))
	g, err = s.Glance(h.ctx, store.GlanceAsked{Order: "days"})
	require.NoError(t, err)
	require.Len(t, g.Students, 2)
	assert.Empty(t, g.Students[1].Drills)
	assert.NotEmpty(t, g.Students[1].Dates, "who has played comes last by the fewest days, and has")
	for order := range map[store.GlanceOrder]bool{"need": true, "name": true, "gate": true, "pair": true} {
		_, err := s.Glance(h.ctx, store.GlanceAsked{Order: order})
		assert.NoError(t, err, order)
	}
}
