package progress_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"manudrill/core/progress"
)

// aState is any that a drill may be in on a day.
func aState(r *rapid.T, today time.Time) progress.State {
	ago := func(name string) *time.Time {
		day := today.AddDate(0, 0, -rapid.IntRange(0, 60).Draw(r, name))
		return &day
	}
	f := progress.Finding{Kind: rapid.SampledFrom([]progress.Kind{
		progress.Reached, progress.Few, progress.Back, progress.Rising, progress.Slipping, progress.Stuck, progress.Unclear,
	}).Draw(r, "kind"), Last: ago("last")}
	if f.Kind == progress.Reached || rapid.Bool().Draw(r, "since") {
		f.Since = ago("since")
	}
	s := progress.State{Finding: f, Of: rapid.IntRange(0, 12).Draw(r, "of")}
	if rapid.Bool().Draw(r, "hasGate") {
		of := float64(rapid.IntRange(50, 200).Draw(r, "ofGate"))
		s.OfGate = &of
	}
	if rapid.Bool().Draw(r, "hasWeakest") {
		s.Weakest = &progress.PairCourse{LateMs: float64(rapid.IntRange(1, 40).Draw(r, "late"))}
	}
	return s
}

// What is kept beside a drill says on every day to come why it wants to be looked at, as its
// state does.
func TestAnOutlookHoldsUntilTheNextTake(t *testing.T) {
	day := time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)
	rapid.Check(t, func(r *rapid.T) {
		s := aState(r, day)
		o := s.Outlook()
		for d := day; d.Before(day.AddDate(0, 3, 0)); d = d.AddDate(0, 0, 1) {
			want := progress.Why("")
			// A drill of somebody who plays another one, so that it alone is asked about.
			other := progress.State{Finding: progress.Finding{Kind: progress.Rising, Last: &d}}
			if needs := progress.NeedsOf(false, []progress.Drill{{State: &s}, {State: &other}}, d); len(needs) > 0 {
				want = needs[0].Why
			}
			got := o.Why
			if !o.From.IsZero() && !d.Before(o.From) {
				got = o.Then
			}
			if got != want {
				r.Fatalf("on %s it is %q by its state and %q by its outlook", d.Format(time.DateOnly), want, got)
			}
		}
	})
}

func TestAnOutlookWithoutDays(t *testing.T) {
	o := progress.State{Finding: progress.Finding{Kind: progress.Untouched}}.Outlook()
	assert.Empty(t, o.Why)
	assert.True(t, o.From.IsZero())
	assert.Equal(t, []string{"pain", "slipping", "stuck", "away", "uneven", "ready", "untouched"}, progress.PressingWhys())
	assert.Equal(t, 21, progress.AwayDays)
}
