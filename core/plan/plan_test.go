package plan

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/progress"
	"manudrill/core/tempo"
)

// monday is the first day of the plans here, and today.
var monday = time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)

func ago(weeks int) *time.Time {
	t := monday.AddDate(0, 0, -7*weeks)
	return &t
}

// played is how somebody stands with a drill that rises.
func played() *progress.State {
	return &progress.State{Finding: progress.Finding{Kind: progress.Rising}}
}

func exercise(name string, technique Technique, rank int, pairs ...string) Exercise {
	e := Exercise{Drill: name, Name: name, Technique: technique, Pairs: pairs, Rank: rank, Position: 5, Lowest: 1, Highest: 12, State: played()}
	if technique != Picking {
		e.SlurShare = 0.5
	}
	return e
}

// settings are fifteen minutes on Monday, Tuesday and Thursday with some drills.
func settings(weeks int, drills ...string) Settings {
	s := Usual(monday)
	s.Weeks, s.Days, s.Drills = weeks, []int{1, 2, 4}, drills
	return s
}

func facts(exercises ...Exercise) Facts {
	return Facts{Today: monday, Exercises: exercises}
}

// written is a day on one line: what is played, where and for how long.
func written(d Day) string {
	var parts []string
	for _, l := range d.Lines {
		switch l.Kind {
		case Resting:
			parts = append(parts, fmt.Sprint(l.Seconds))
		case Warming:
			parts = append(parts, fmt.Sprintf("(%s@%d %d)", l.Drill, l.Position, l.Seconds))
		case Playing:
			parts = append(parts, fmt.Sprintf("%s@%d %d", l.Drill, l.Position, l.Seconds))
		}
	}
	return strings.TrimSpace(strings.Join(parts, " ") + " " + d.Reason)
}

func lasts(d Day) (seconds int) {
	for _, l := range d.Lines {
		seconds += l.Seconds
	}
	return seconds
}

func days(w Week) (all []string) {
	for _, d := range w.Days {
		all = append(all, written(d))
	}
	return all
}

// Worked out by hand. Fifteen minutes are 900 s. The warm-up takes 180, the easiest drill
// at position 9; 720 s are left: four times 30 s of rest and 150 s of a drill. There are
// three drills, so each has its turn once a day and 180 s stay free; the next day begins
// with the same one, for all three were played. Positions are 9 and 7 in the first week, 7
// and 5 in the second.
func TestAPlanWorkedOutByHand(t *testing.T) {
	p := Make(settings(2, "a", "b", "c"), facts(exercise("a", Picking, 0, "12"), exercise("b", Picking, 2, "34"), exercise("c", Picking, 5, "24")))
	require.Len(t, p.Weeks, 2)
	assert.Equal(t, []int{9, 7}, p.Weeks[0].Positions)
	assert.Equal(t, []int{7, 5}, p.Weeks[1].Positions)
	const rest = "A day of rest."
	assert.Equal(t, []string{
		"(a@9 180) 30 a@9 150 30 b@7 150 30 c@9 150",
		"(a@9 180) 30 a@7 150 30 b@9 150 30 c@7 150",
		rest,
		"(a@9 180) 30 a@9 150 30 b@7 150 30 c@9 150",
		rest, rest, rest,
	}, days(p.Weeks[0]))
	assert.Equal(t, "(a@9 180) 30 a@5 150 30 b@7 150 30 c@5 150", days(p.Weeks[1])[0])
	assert.Equal(t, "Slow, and no louder than it wants to be.", p.Weeks[0].Days[0].Lines[0].Reason)
	assert.Empty(t, p.Said)
}

// Of six drills four fit a day; the next day goes on with the fifth.
func TestEachDrillHasItsTurn(t *testing.T) {
	var all []Exercise
	var ids []string
	for i, name := range []string{"a", "b", "c", "d", "e", "f"} {
		all, ids = append(all, exercise(name, Picking, i, "12")), append(ids, name)
	}
	s := settings(1, ids...)
	s.Rules = map[RuleID]Setting{Positions: {Off: true}}
	p := Make(s, facts(all...))
	assert.Equal(t, "(a@5 180) 30 a@5 150 30 b@5 150 30 c@5 150 30 d@5 150", written(p.Weeks[0].Days[0]))
	assert.Equal(t, "(a@5 180) 30 e@5 150 30 f@5 150 30 a@5 150 30 b@5 150", written(p.Weeks[0].Days[1]))
	assert.Equal(t, "(a@5 180) 30 c@5 150 30 d@5 150 30 e@5 150 30 f@5 150", written(p.Weeks[0].Days[3]))
}

// What was skipped is carried on: on Thursday, nothing having been played on Tuesday, comes
// what Tuesday would have had. Left out, it is dropped.
func TestWhatWasSkipped(t *testing.T) {
	var all []Exercise
	var ids []string
	for i, name := range []string{"a", "b", "c", "d", "e", "f"} {
		all, ids = append(all, exercise(name, Picking, i, "12")), append(ids, name)
	}
	s := settings(1, ids...)
	s.Rules = map[RuleID]Setting{Positions: {Off: true}}
	f := facts(all...)
	f.Today, f.Played = monday.AddDate(0, 0, 2), []time.Time{monday} // it is Wednesday
	assert.Equal(t, "(a@5 180) 30 e@5 150 30 f@5 150 30 a@5 150 30 b@5 150", written(Make(s, f).Weeks[0].Days[3]))
	s.Rules[CarryOn] = Setting{Off: true}
	assert.Equal(t, "(a@5 180) 30 c@5 150 30 d@5 150 30 e@5 150 30 f@5 150", written(Make(s, f).Weeks[0].Days[3]))
}

// Hammer-ons have the first week, pull-offs the second, then both mix. What is picked is
// in all of them.
func TestBlocks(t *testing.T) {
	f := facts(exercise("ham", Hammering, 0, "12"), exercise("pull", Pulling, 0, "12"), exercise("both", Slurring, 1, "23"), exercise("pick", Picking, 2, "34"))
	s := settings(3, "ham", "pull", "both", "pick")
	p := Make(s, f)
	assert.Equal(t, []string{"Hammer-ons alone", "Pull-offs alone", "Hammer-ons and pull-offs mixed"}, []string{p.Weeks[0].Theme, p.Weeks[1].Theme, p.Weeks[2].Theme})
	assert.Equal(t, []string{"ham", "pick"}, Plan{Weeks: p.Weeks[:1]}.Drills())
	assert.Equal(t, []string{"pull", "pick"}, Plan{Weeks: p.Weeks[1:2]}.Drills())
	assert.ElementsMatch(t, []string{"ham", "pull", "both", "pick"}, Plan{Weeks: p.Weeks[2:]}.Drills())

	s.Rules = map[RuleID]Setting{Blocks: {Off: true}}
	assert.ElementsMatch(t, []string{"ham", "pull", "both", "pick"}, Plan{Weeks: Make(s, f).Weeks[:1]}.Drills(), "mixed from the start, by school")
	alone := Make(settings(1, "ham"), f)
	assert.Equal(t, []string{
		"Hammer-ons and pull-offs mix from the start: blocks take a drill of each alone.",
		"There is time for more: of 15 minutes a day 9 are left. Put another drill in, or play each longer.",
	}, alone.Said)
}

// One new drill a week, in graded order, whatever the order in which they were chosen.
func TestGraded(t *testing.T) {
	fresh := func(name string, rank int, pair string) Exercise {
		e := exercise(name, Picking, rank, pair)
		e.State = nil
		return e
	}
	f := facts(fresh("three", 2, "34"), fresh("one", 0, "12"), fresh("two", 1, "23"))
	p := Make(settings(3, "three", "one", "two"), f)
	assert.Equal(t, []string{"one"}, Plan{Weeks: p.Weeks[:1]}.Drills())
	assert.Equal(t, []string{"one", "two"}, Plan{Weeks: p.Weeks[1:2]}.Drills())
	assert.Equal(t, []string{"one", "two", "three"}, Plan{Weeks: p.Weeks[2:]}.Drills())
	assert.Equal(t, "New: 1-2, in graded order.", p.Weeks[0].Days[0].Lines[2].Reason)
}

// Down from the ninth position in twos to the first, and up again.
func TestPositionsMoveDownTheNeck(t *testing.T) {
	p := Make(settings(7, "a"), facts(exercise("a", Picking, 0, "12")))
	var weeks [][]int
	for _, w := range p.Weeks {
		weeks = append(weeks, w.Positions)
	}
	assert.Equal(t, [][]int{{9, 7}, {7, 5}, {5, 3}, {3, 1}, {1, 3}, {3, 5}, {5, 7}}, weeks)

	small := exercise("a", Picking, 0, "12")
	small.Lowest = 4
	line := Make(settings(4, "a"), facts(small)).Weeks[3].Days[0].Lines[2]
	assert.Equal(t, 4, line.Position)
	assert.Equal(t, "Goes on. Position 4 is the lowest for this hand.", line.Reason)
}

// Slurring grows from what there was: 20 minutes in the fullest week, 22 in the first of
// the plan, 24.2 in the second. Each line of a half-slurred drill is 75 s of it.
func TestSlurringGrowsGently(t *testing.T) {
	s := settings(2, "a", "b", "c", "d")
	s.MinutesADay, s.Days = 60, []int{1, 2, 3, 4, 5, 6}
	var all []Exercise
	for i, id := range s.Drills {
		e := exercise(id, Slurring, i, "12")
		e.SlurShare = 1
		all = append(all, e)
	}
	f := facts(all...)
	f.SlurSeconds = 1200
	p := Make(s, f)
	for i, most := range []int{1320, 1452} {
		slurred := 0
		for _, d := range p.Weeks[i].Days {
			for _, l := range d.Lines {
				if l.Kind != Resting {
					slurred += l.Seconds
				}
			}
		}
		assert.LessOrEqual(t, slurred, most)
		assert.Greater(t, slurred, most-150-180, "all that is allowed is there, but for less than a line")
		first := lasts(p.Weeks[i].Days[0])
		assert.InDelta(t, first, lasts(p.Weeks[i].Days[4]), 180, "no day of the week pays for another")
	}
	assert.Contains(t, p.Said, "Some days are shorter than 60 minutes, so that slurring grows no faster than the rule allows.")
}

// What has gained nothing gives way to what works the same pair, for two weeks.
func TestStaleGivesWay(t *testing.T) {
	stuck := exercise("stuck", Picking, 6, "12", "23", "34")
	stuck.State = &progress.State{
		Finding: progress.Finding{Kind: progress.Stuck, Since: ago(4)},
		Weakest: &progress.PairCourse{SumOf: sumOf(3, 4)},
	}
	other, kin := exercise("other", Picking, 0, "12"), exercise("kin", Picking, 2, "34")
	p := Make(settings(3, "stuck"), facts(stuck, other, kin))
	assert.Equal(t, []string{"kin"}, Plan{Weeks: p.Weeks[:1]}.Drills(), "3→4 is what holds it up")
	assert.Equal(t, []string{"kin"}, Plan{Weeks: p.Weeks[1:2]}.Drills())
	assert.Equal(t, []string{"stuck"}, Plan{Weeks: p.Weeks[2:]}.Drills())
	assert.Equal(t, "stuck has gained nothing for 4 weeks: this works the same pair.", p.Weeks[0].Days[0].Lines[2].Reason)

	alone := Make(settings(1, "stuck"), facts(stuck, other))
	assert.Equal(t, []string{"stuck"}, alone.Drills(), "without a relative it stays")
	assert.Contains(t, alone.Said[0], "no other drill of the studio works its pair")
}

// What was mastered comes back after one week, two more, four more.
func TestMasteredComesBack(t *testing.T) {
	done := exercise("done", Picking, 0, "12")
	done.Mastered = ago(1)
	p := Make(settings(8, "done", "a"), facts(done, exercise("a", Picking, 1, "23")))
	var weeks []int
	for i, w := range p.Weeks {
		times := 0
		for _, d := range w.Days {
			for _, l := range d.Lines {
				if l.Drill == "done" && l.Kind == Playing {
					times++
					assert.Equal(t, 60, l.Seconds)
				}
			}
		}
		if times > 0 {
			assert.Equal(t, 1, times, "once in a week")
			weeks = append(weeks, i+1) // since it was mastered
		}
	}
	assert.Equal(t, []int{1, 3, 7}, weeks)
}

func TestPainEmptiesThePlan(t *testing.T) {
	f := facts(exercise("a", Picking, 0, "12"))
	f.Hurt, f.Today = true, monday.AddDate(0, 0, 1)
	p := Make(settings(2, "a"), f)
	assert.NotEmpty(t, p.Weeks[0].Days[0].Lines, "what is past stays")
	for _, d := range append(p.Weeks[0].Days[1:], p.Weeks[1].Days...) {
		assert.Empty(t, d.Lines)
	}
	assert.Contains(t, p.Said[0], "nothing is planned until you let the ladders climb again")
}

func TestAfterAGapTheLadderRestartsLower(t *testing.T) {
	f := facts(exercise("a", Picking, 0, "12"))
	f.LastPlayed = ago(5)
	assert.Equal(t, []Lower{{"a", "a", 2, "After 5 weeks away: 2 rungs lower to begin with."}}, Make(settings(1, "a"), f).Lower)
	f.LastPlayed = ago(2)
	assert.Empty(t, Make(settings(1, "a"), f).Lower)
}

func TestDaysOfRestAndCleanTone(t *testing.T) {
	s := settings(1, "a")
	s.Days = []int{1, 2, 3, 4, 5, 6, 7}
	p := Make(s, facts(exercise("a", Picking, 0, "12")))
	assert.Equal(t, "A day of rest.", p.Weeks[0].Days[6].Reason, "of seven days the last is for rest")
	for i, d := range p.Weeks[0].Days {
		assert.Equal(t, i == 2, d.Clean, "Wednesday is the day of clean tone")
	}
	s.Begins = monday.AddDate(0, 0, 3)
	p = Make(s, facts(exercise("a", Picking, 0, "12")))
	assert.Empty(t, p.Weeks[0].Days[2].Lines, "nothing before the plan begins")
	assert.NotEmpty(t, p.Weeks[0].Days[3].Lines)
}

// Days that were changed by hand, and days that are past, stay as they are.
func TestWhatWasChangedByHandStays(t *testing.T) {
	before := Make(settings(2, "a"), facts(exercise("a", Picking, 0, "12")))
	own := Line{Kind: Playing, Drill: "mine", Name: "mine", Seconds: 600}
	before.Weeks[0].Days[3] = Day{Date: before.Weeks[0].Days[3].Date, Lines: []Line{own}, ByHand: true}
	f := facts(exercise("b", Picking, 0, "12"))
	f.Today = monday.AddDate(0, 0, 1)
	again := Again(Make(settings(2, "b"), f), before, f.Today)
	assert.Equal(t, before.Weeks[0].Days[0], again.Weeks[0].Days[0], "Monday is past")
	assert.Equal(t, "(b@9 180) 30 b@9 150", written(again.Weeks[0].Days[1]))
	assert.Equal(t, []Line{own}, again.Weeks[0].Days[3].Lines)
	assert.True(t, again.Weeks[0].Days[3].ByHand)
}

func TestGoals(t *testing.T) {
	s := settings(4, "a")
	s.Goals = []Goal{{Drill: "a", Rung: tempo.Rung{BPM: 100, NotesPerBeat: 4}, By: monday.AddDate(0, 0, 70)}}
	f := facts(exercise("a", Picking, 0, "12"))
	for name, c := range map[string]struct {
		forecast Forecast
		likely   Likely
		text     string
	}{
		"met":      {Forecast{Met: true}, IsMet, "Met already."},
		"silent":   {Forecast{Why: "It cannot be said: the tempo does not surely go up."}, NotKnown, "It cannot be said: the tempo does not surely go up."},
		"in time":  {Forecast{Known: true, Earliest: monday.AddDate(0, 0, 28), Latest: monday.AddDate(0, 0, 63)}, InTime, "At 15 minutes a day this needs about 7 weeks (4 to 9). By then it is met."},
		"may":      {Forecast{Known: true, Earliest: monday.AddDate(0, 0, 35), Latest: monday.AddDate(0, 0, 77)}, May, "At 15 minutes a day this needs about 8 weeks (5 to 11). By then it may be met, or may not."},
		"too late": {Forecast{Known: true, Earliest: monday.AddDate(0, 0, 84), Latest: monday.AddDate(0, 0, 140)}, TooLate, "At 15 minutes a day this needs about 16 weeks (12 to 20). By then it is too early: take a later day or a lower tempo."},
		"less of it": {Forecast{Known: true, Earliest: monday.AddDate(0, 0, 28), Latest: monday.AddDate(0, 0, 63), MinutesAWeek: 40}, InTime,
			"At 15 minutes a day this needs about 7 weeks (4 to 9). By then it is met. That was with 40 minutes of it a week; the plan has 8."},
	} {
		t.Run(name, func(t *testing.T) {
			f.Forecast = func(Goal) Forecast { return c.forecast }
			p := Make(s, f)
			require.Len(t, p.Goals, 1)
			assert.Equal(t, c.likely, p.Goals[0].Likely)
			assert.Equal(t, c.text, p.Goals[0].Text)
		})
	}
	s.Drills = []string{}
	assert.Equal(t, "The drill of this goal is not in the plan: put it in.", Make(s, f).Goals[0].Text)
}

// A goal that is nearer comes first.
func TestGoalsComeFirst(t *testing.T) {
	s := settings(1, "a", "b", "c")
	s.Goals = []Goal{{"c", tempo.Rung{BPM: 90, NotesPerBeat: 2}, monday.AddDate(0, 0, 60)}, {"b", tempo.Rung{BPM: 90, NotesPerBeat: 2}, monday.AddDate(0, 0, 30)}}
	p := Make(s, facts(exercise("a", Picking, 0, "12"), exercise("b", Picking, 1, "23"), exercise("c", Picking, 2, "34")))
	assert.Equal(t, "(a@9 180) 30 b@9 150 30 c@7 150 30 a@9 150", written(p.Weeks[0].Days[0]))
	assert.Equal(t, ByGoal, p.Weeks[0].Days[0].Lines[2].Rule)
}

func TestSettingsThatCannotBe(t *testing.T) {
	for name, c := range map[string]struct {
		set  func(*Settings)
		text string
	}{
		"no minutes":  {func(s *Settings) { s.MinutesADay = 0 }, "A day has 5 to 240 minutes of practice, not 0; for less, choose fewer days."},
		"no day":      {func(s *Settings) { s.Days = nil }, "Choose a day of the week at the least."},
		"a day twice": {func(s *Settings) { s.Days = []int{1, 1} }, "The days of the week are 1 to 7, Monday first, each once."},
		"no week":     {func(s *Settings) { s.Weeks = 0 }, "A plan has 1 to 26 weeks, not 0."},
		"no begin":    {func(s *Settings) { s.Begins = time.Time{} }, "Choose the day on which the plan begins."},
		"dates that cross": {func(s *Settings) {
			s.Goals = []Goal{{"a", tempo.Rung{BPM: 90, NotesPerBeat: 2}, monday.AddDate(0, 0, -1)}}
		},
			"Goal 1 is to be reached before the plan begins; choose a later day."},
		"no tempo":     {func(s *Settings) { s.Goals = []Goal{{"a", tempo.Rung{}, monday.AddDate(0, 0, 9)}} }, "The tempo of goal 1 is 0 bpm; set it from 20 to 320."},
		"no such rule": {func(s *Settings) { s.Rules = map[RuleID]Setting{"luck": {}} }, `There is no rule "luck".`},
		"far out":      {func(s *Settings) { s.Rules = map[RuleID]Setting{Growth: {Value: 400}} }, "“Slurring grows gently” is set to 400; set it from 0 to 50."},
		"twice":        {func(s *Settings) { s.Drills = []string{"a", "a"} }, "A drill is in the plan twice."},
	} {
		t.Run(name, func(t *testing.T) {
			s := settings(4, "a")
			c.set(&s)
			faults := s.Check()
			require.NotEmpty(t, faults)
			assert.Equal(t, c.text, faults[0].Text)
		})
	}
	assert.Empty(t, settings(4, "a").Check())
	assert.Empty(t, Usual(monday).Check())
}

// A day is a routine that the stand can run.
func TestADayIsARoutine(t *testing.T) {
	p := Make(settings(1, "a", "b"), facts(exercise("a", Picking, 0, "12"), exercise("b", Picking, 2, "34")))
	r := p.Weeks[0].Days[0].Routine("Monday")
	assert.Empty(t, r.Check())
	assert.Equal(t, []string{"a", "b"}, r.Drills())
	assert.Equal(t, 9, r.Items[0].Position)
	d, is := p.Day(monday)
	assert.True(t, is)
	assert.Equal(t, p.Weeks[0].Days[0], d)
	_, is = p.Day(monday.AddDate(0, 0, 100))
	assert.False(t, is)
}

func TestExercisesAreRankedByTheirFingers(t *testing.T) {
	for _, c := range []struct {
		pattern   drill.Pattern
		rank      int
		technique Technique
		pairs     []string
	}{
		{drill.SlurCombinations{Combinations: [][]int{{1, 2}}, Slur: drill.HammerOns}, 0, Hammering, []string{"12"}},
		{drill.SlurCombinations{Combinations: [][]int{{1, 2}, {3, 4}}, Slur: drill.PullOffs}, 2, Pulling, []string{"12", "34"}},
		{drill.SlurCombinations{Combinations: [][]int{{2, 4}}, Slur: drill.BothSlurs}, 5, Slurring, []string{"24"}},
		{drill.SlurCombinations{Combinations: [][]int{{1, 2, 3}}, Slur: drill.HammerOns}, 6, Hammering, []string{"12", "23"}},
		{drill.SlurCombinations{Combinations: [][]int{{1, 2, 3, 4}}, Slur: drill.HammerOns}, 7, Hammering, []string{"12", "23", "34"}},
	} {
		chart, err := drill.New("x", c.pattern).Chart(guitar.Standard(), 60)
		require.NoError(t, err)
		e := ExerciseOf("x", "x", chart)
		assert.Equal(t, c.rank, e.Rank, "%v", c.pattern)
		assert.Equal(t, c.technique, e.Technique)
		assert.Equal(t, c.pairs, e.Pairs)
	}
}

// Whatever is planned: no day is longer than its minutes, every line has a rule and a
// reason, no week slurs more than is allowed, and a plan made twice is the same.
func TestWhateverIsPlanned(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var all []Exercise
		s := settings(rapid.IntRange(1, 12).Draw(t, "weeks"))
		for i := range rapid.IntRange(0, 12).Draw(t, "drills") {
			e := exercise(fmt.Sprint("d", i), rapid.SampledFrom([]Technique{Hammering, Pulling, Slurring, Picking}).Draw(t, "technique"), rapid.IntRange(0, 7).Draw(t, "rank"), "12")
			switch rapid.IntRange(0, 3).Draw(t, "state") {
			case 0:
				e.State = nil
			case 1:
				e.Mastered = ago(rapid.IntRange(0, 30).Draw(t, "mastered"))
			case 2:
				e.State = &progress.State{Finding: progress.Finding{Kind: progress.Stuck, Since: ago(rapid.IntRange(0, 12).Draw(t, "stuck"))}}
			}
			all = append(all, e)
			if rapid.Bool().Draw(t, "chosen") {
				s.Drills = append(s.Drills, e.Drill)
			}
		}
		s.MinutesADay = rapid.IntRange(5, 120).Draw(t, "minutes")
		f := facts(all...)
		f.Today = monday.AddDate(0, 0, rapid.IntRange(-20, 60).Draw(t, "today"))
		f.SlurSeconds = float64(rapid.IntRange(0, 6000).Draw(t, "slurred"))
		p := Make(s, f)
		for _, w := range p.Weeks {
			slurred := 0.0
			for _, d := range w.Days {
				seconds := 0
				for _, l := range d.Lines {
					seconds += l.Seconds
					if l.Rule == "" || l.Reason == "" || l.Seconds < minSeconds {
						t.Fatalf("a line without rule, reason or time: %+v", l)
					}
					for _, e := range all {
						if e.Drill == l.Drill {
							slurred += float64(l.Seconds) * e.SlurShare
						}
					}
				}
				if seconds > 60*s.MinutesADay {
					t.Fatalf("%s has %d s of %d min", d.Date, seconds, s.MinutesADay)
				}
			}
			if weeks := w.Begins.Sub(progress.Monday(f.Today)).Hours() / (7 * 24); slurred > max(leastSlurring, f.SlurSeconds)*pow(1.1, 1+max(0, weeks))+1e-6 {
				t.Fatalf("%g s slurred in the week of %s", slurred, w.Begins)
			}
		}
		if faults := p.CheckDays(); len(faults) > 0 {
			t.Fatalf("a plan that its own check refuses: %v", faults)
		}
		assert.Equal(t, p, Make(s, f))
	})
}
