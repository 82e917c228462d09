package demo

import (
	"context"
	"os"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/progress"
	"manudrill/store"
	"manudrill/storetest"
)

// now is a Saturday, so that a week of takes lies before it.
var now = time.Date(2026, 5, 9, 12, 0, 0, 0, time.UTC)

// few are students enough where takes with sound are made.
var few = students[:2]

func TestMain(m *testing.M) { os.Exit(storetest.Run(m)) }

func TestTheDemoStudio(t *testing.T) {
	s := storetest.Open(t)
	making, err := beginWith(t.Context(), s, few, 1, now)
	require.NoError(t, err)
	in := store.Within(t.Context(), store.Scope{Studio: Studio})
	people, err := s.People(in, nil)
	require.NoError(t, err)
	assert.Len(t, people, 2+len(students), "everybody is there before anything is played")
	for _, p := range people {
		assert.True(t, p.Demo, "%s must be labelled as demo", p.Name)
	}
	require.NoError(t, making.Make(t.Context()))
	made, all := making.Progress()
	assert.Equal(t, all, made)
	takes, err := s.Takes(in, nil, nil, store.Page{})
	require.NoError(t, err)
	assert.Len(t, takes, made)
	for _, summary := range takes {
		take, err := s.Take(in, summary.ID)
		require.NoError(t, err)
		assert.False(t, take.Analysis.Foreign)
		assert.GreaterOrEqual(t, take.Analysis.Counts.Played, take.Analysis.Counts.Expected*8/10)
		assert.True(t, take.RecordedAt.Before(now), "takes lie in the past")
		assert.NotEmpty(t, take.Decision.Reason)
	}

	nothing, err := Begin(t.Context(), s, 1, now)
	require.NoError(t, err)
	assert.Nil(t, nothing, "a studio with people is left as it is")
}

// A demo whose making was cut off is made to its end, and is the same as one made
// in one go.
func TestTheDemoIsMadeToItsEnd(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	whole, cut := storetest.Open(t), storetest.Open(t)
	making, err := beginWith(t.Context(), whole, few, 1, now)
	require.NoError(t, err)
	require.NoError(t, making.Make(t.Context()))

	ctx, cancel := context.WithCancel(t.Context())
	defer cancel()
	making, err = beginWith(ctx, cut, few, 1, now)
	require.NoError(t, err)
	go func() {
		for done := 0; done < 5; done, _ = making.Progress() {
			time.Sleep(time.Millisecond)
		}
		cancel()
	}()
	require.ErrorIs(t, making.Make(ctx), context.Canceled)
	making, err = beginWith(t.Context(), cut, few, 1, now.Add(48*time.Hour))
	require.NoError(t, err)
	require.NoError(t, making.Make(t.Context()))
	in := store.Within(t.Context(), store.Scope{Studio: Studio})
	want, err := whole.Takes(in, nil, nil, store.Page{})
	require.NoError(t, err)
	got, err := cut.Takes(in, nil, nil, store.Page{})
	require.NoError(t, err)
	require.Len(t, got, len(want))
	for i := range want {
		want[i].HandedInAt, got[i].HandedInAt = now, now
		want[i].AssignmentID, got[i].AssignmentID = uuid.Nil, uuid.Nil // which are made anew
	}
	assert.Equal(t, want, got)
}

// The histories that were put in are told, and forecasts made on the record in the past
// hold in 75 to 95 of 100 cases. Sounds have no part in it.
func TestTheHistoriesAreTold(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	s := storetest.Open(t)
	making, err := Begin(t.Context(), s, Weeks, now)
	require.NoError(t, err)
	making.students = slices.Clone(students)
	for i := range making.students {
		making.students[i].drills = making.students[i].drills[:1] // one is enough for a history
	}
	in := store.Within(t.Context(), store.Scope{Studio: Studio, Actor: oda})
	for _, old := range []bool{true, false} {
		require.NoError(t, making.each(in, func(st student) error { return making.play(in, st, old, true) }))
	}
	glance, err := s.Glance(in, store.GlanceAsked{Order: "name"})
	require.NoError(t, err)
	var all progress.Backtest
	first, found := map[string]progress.Need{}, map[string]progress.Finding{}
	for _, g := range glance.Students {
		var drills []progress.Drill
		states, err := s.DrillStates(in, g.ID)
		require.NoError(t, err)
		for _, d := range states {
			if d.State != nil {
				all = all.Add(d.State.Value.Backtest)
			}
		}
		for _, d := range g.Drills {
			if d.State != nil {
				drills = append(drills, progress.Drill{Name: d.Name, State: &d.State.Value})
				found[g.Name] = d.State.Value.Finding
			}
		}
		if needs := progress.NeedsOf(g.Hurt, drills, now.Truncate(24*time.Hour)); len(needs) > 0 {
			first[g.Name] = needs[0]
		}
	}
	for name, want := range map[string]struct {
		why  progress.Why
		text string
	}{
		"Pim Haskett":    {progress.StandsStill, "The pair 3→4 has not changed"},
		"Rufus Ombry":    {progress.LosesGround, "Slipping: from"},
		"Odile Prask":    {progress.InPain, "Reported pain"},
		"Juno Brackwell": {progress.TooEasy, "time for something new"},
		"Kasimir Lode":   {progress.StaysAway, "Has not played for"},
	} {
		assert.Equal(t, want.why, first[name].Why, "%s: %v", name, first[name])
		assert.Contains(t, first[name].Text, want.text)
	}
	for name, want := range map[string]progress.Kind{"Tove Lannick": progress.Back, "Finn Wexley": progress.Few, "Lena Quarrow": progress.Rising} {
		assert.Equal(t, want, found[name].Kind, "%s: %s", name, found[name].Text)
	}
	share := float64(all.Held) / float64(all.Of)
	t.Logf("%d of %d forecasts held", all.Held, all.Of)
	assert.GreaterOrEqual(t, share, 0.75)
	assert.LessOrEqual(t, share, 0.95)
	assert.Greater(t, all.Of, 200)
}
