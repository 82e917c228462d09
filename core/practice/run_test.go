package practice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/practice"
)

func play(name string, by practice.By, count, of int) practice.Item {
	return practice.Item{Kind: practice.Play, Drill: name, Enough: &practice.Enough{By: by, Count: count, Of: of}}
}

// A student is a run under way, at a time.
type student struct {
	t       *testing.T
	routine practice.Routine
	state   practice.State
	now     float64
}

func (s *student) press(k practice.Key) *student {
	s.state = s.routine.Step(s.state, practice.Event{Key: k, At: s.now})
	return s
}

// plays a take of ten seconds, whose verdict is read for four.
func (s *student) plays(clean bool) *student {
	s.t.Helper()
	require.Equal(s.t, practice.Playing, s.state.Phase)
	s.now += 10
	s.state = s.routine.Step(s.state, practice.Event{Key: practice.Ended, At: s.now, Heard: true, Clean: clean, Pause: 4})
	return s.waits(4)
}

func (s *student) waits(seconds float64) *student {
	s.now += seconds
	return s.press(practice.Tick)
}

func (s *student) at(phase practice.Phase, item int) *student {
	s.t.Helper()
	assert.Equal(s.t, phase, s.state.Phase)
	assert.Equal(s.t, item, s.state.Item)
	return s
}

func (s *student) told(left string) *student {
	s.t.Helper()
	assert.Equal(s.t, left, s.routine.Tell(s.state, s.now).Left)
	return s
}

func begun(t *testing.T, items ...practice.Item) *student {
	return (&student{t: t, routine: practice.Routine{Name: "test", Items: items}, now: 1000}).press(practice.Start)
}

var rest = practice.Item{Kind: practice.Rest, Seconds: 30}

// One key, and the whole routine runs: takes, rest, a note, the next drill.
func TestARoutineRunsByItself(t *testing.T) {
	s := begun(t, practice.Item{Kind: practice.Note, Text: "slow", Seconds: 10}, play("a", practice.ByTakes, 2, 0), rest, play("b", practice.ByTakes, 1, 0))
	s.at(practice.Reading, 0).told("0:10").waits(9).at(practice.Reading, 0).waits(1)
	s.at(practice.Playing, 1).told("take 1 of 2").plays(true).at(practice.Playing, 1).told("take 2 of 2").plays(false)
	s.at(practice.Resting, 2).told("0:30")
	assert.Equal(t, 3, s.routine.Tell(s.state, s.now).Then, "what comes next is shown during the rest")
	s.waits(29).at(practice.Resting, 2).waits(1).at(practice.Playing, 3).plays(true).at(practice.Over, 4)
	assert.InDelta(t, 1, s.routine.Tell(s.state, s.now).Share, 0)
}

// The take that is under way when the time is up is the last, and is never broken off.
func TestADrillForSoLong(t *testing.T) {
	s := begun(t, play("a", practice.BySeconds, 20, 0), play("b", practice.ByTakes, 1, 0))
	s.told("0:20 left").plays(true).at(practice.Playing, 0).told("0:06 left")
	s.plays(true).at(practice.Playing, 1)
}

// What succeeds now and then is played until so many of the last takes were clean; or
// until it is plain that they will not be today.
func TestThreeOfTheLastFive(t *testing.T) {
	s := begun(t, play("a", practice.ByClean, 3, 5), rest)
	s.plays(true).plays(false).plays(false).plays(true).told("2 of the last 4 clean, 3 wanted")
	s.plays(false).plays(true).told("2 of the last 5 clean, 3 wanted").at(practice.Playing, 0)
	s.plays(true).at(practice.Resting, 1)

	s = begun(t, play("a", practice.ByClean, 3, 5), rest)
	for range 15 {
		s.plays(false)
	}
	s.at(practice.Resting, 1)
}

func TestKeysOnTheWay(t *testing.T) {
	items := []practice.Item{play("a", practice.ByTakes, 1, 0), rest, play("b", practice.ByTakes, 2, 0)}
	s := begun(t, items...)
	s.press(practice.Hold).at(practice.Waiting, 0).press(practice.Start).at(practice.Playing, 0)
	s.press(practice.Next).at(practice.Resting, 1).press(practice.Next).at(practice.Playing, 2)
	s.press(practice.Back).at(practice.Resting, 1).press(practice.Skip).at(practice.Playing, 2)

	t.Run("a rest that is held does not run out", func(t *testing.T) {
		s := begun(t, items...).press(practice.Skip).waits(10).press(practice.Hold).waits(500).at(practice.Waiting, 1).told("0:20")
		s.press(practice.Start).waits(19).at(practice.Resting, 1).waits(1).at(practice.Playing, 2)
	})
	t.Run("the last take once more, from its verdict or from the rest", func(t *testing.T) {
		s := begun(t, items...)
		s.now += 10
		s.state = s.routine.Step(s.state, practice.Event{Key: practice.Ended, At: s.now, Heard: true, Pause: 4})
		s.press(practice.Repeat).at(practice.Playing, 0).told("once more").plays(true).at(practice.Resting, 1)
		s.press(practice.Repeat).at(practice.Playing, 0).plays(true).at(practice.Resting, 1)
	})
	t.Run("another item is chosen while it waits", func(t *testing.T) {
		s := begun(t, items...).press(practice.Hold).press(practice.Skip).press(practice.Skip).press(practice.Skip).at(practice.Waiting, 2)
		s.press(practice.Start).at(practice.Playing, 2).told("take 1 of 2")
	})
}

// A tired hand rests and goes on where it was; the rest is no time of the drill.
func TestTired(t *testing.T) {
	s := begun(t, play("a", practice.BySeconds, 60, 0), rest)
	s.plays(true).press(practice.Tired).at(practice.Resting, 0).told("0:46 left")
	s.waits(practice.TiredSeconds-1).at(practice.Resting, 0).waits(1).at(practice.Playing, 0).told("0:46 left")

	// Held meanwhile, it is no time of the drill either.
	s = begun(t, play("a", practice.BySeconds, 60, 0), rest)
	s.plays(true).press(practice.Tired).waits(10).press(practice.Hold).waits(300).press(practice.Start)
	s.waits(practice.TiredSeconds-10).at(practice.Playing, 0).told("0:46 left")

	s = begun(t, play("a", practice.ByTakes, 1, 0), rest)
	s.now += 10
	s.state = s.routine.Step(s.state, practice.Event{Key: practice.Ended, At: s.now, Heard: true, Pause: 4})
	s.press(practice.Tired).waits(practice.TiredSeconds).at(practice.Resting, 1)
	s.press(practice.Tired).waits(practice.TiredSeconds).at(practice.Over, 2)
}

// It hurts: everything stops, whatever was going on, and no key starts it again.
func TestItHurts(t *testing.T) {
	for name, reach := range map[string]func(*student){
		"while playing": func(*student) {}, "in a pause": func(s *student) { s.press(practice.Hold) }, "while resting": func(s *student) { s.press(practice.Skip) },
	} {
		s := begun(t, play("a", practice.ByTakes, 3, 0), rest)
		reach(s)
		s.press(practice.Hurts)
		for _, k := range []practice.Key{practice.Start, practice.Tick, practice.Next, practice.Skip, practice.Repeat, practice.Tired, practice.Ended} {
			s.waits(100).press(k)
			assert.Equal(t, practice.Hurt, s.state.Phase, "%s, %s", name, k)
		}
	}
}

// Who has left the room is not recorded for the rest of the routine.
func TestNobodyPlays(t *testing.T) {
	s := begun(t, play("a", practice.ByTakes, 5, 0))
	nothing := func() {
		s.now += 10
		s.state = s.routine.Step(s.state, practice.Event{Key: practice.Ended, At: s.now, Pause: 4})
		s.waits(4)
	}
	nothing()
	s.at(practice.Playing, 0).told("take 1 of 5").plays(true)
	nothing()
	s.at(practice.Playing, 0)
	nothing()
	s.at(practice.Waiting, 0)
	assert.Equal(t, practice.Unheard, s.state.Why)
	s.press(practice.Start).at(practice.Playing, 0).told("take 2 of 5")
}

func TestATakeThatBrokeOff(t *testing.T) {
	s := begun(t, play("a", practice.ByTakes, 2, 0)).plays(true).press(practice.Failed).at(practice.Waiting, 0).told("take 2 of 2")
	assert.Equal(t, practice.Broken, s.state.Why)
	s.press(practice.Start).at(practice.Playing, 0).plays(true).at(practice.Over, 1)
}

// Whatever is pressed whenever, the run stays within its routine, and comes to its end
// if somebody plays on.
func TestAnythingCanBePressed(t *testing.T) {
	keys := []practice.Key{practice.Tick, practice.Ended, practice.Failed, practice.Start, practice.Hold, practice.Next, practice.Repeat, practice.Skip, practice.Back, practice.Tired}
	rapid.Check(t, func(t *rapid.T) {
		r := practice.Routine{Name: "any", Items: rapid.SliceOfN(rapid.SampledFrom([]practice.Item{
			rest, play("a", practice.ByTakes, 2, 0), play("b", practice.BySeconds, 30, 0), play("c", practice.ByClean, 2, 3), {Kind: practice.Note, Seconds: 5, Text: "x"},
		}), 1, 5).Draw(t, "items")}
		var s practice.State
		now := 0.0
		step := func(k practice.Key, heard, clean bool) {
			now += rapid.Float64Range(0, 20).Draw(t, "wait")
			s = r.Step(s, practice.Event{Key: k, At: now, Heard: heard, Clean: clean, Pause: 2})
			if s.Item < 0 || s.Item > len(r.Items) || (s.Item == len(r.Items)) != (s.Phase == practice.Over) {
				t.Fatalf("item %d of %d in phase %s", s.Item, len(r.Items), s.Phase)
			}
			if s.Phase == practice.Playing && r.Items[s.Item].Kind != practice.Play {
				t.Fatalf("a %s is played", r.Items[s.Item].Kind)
			}
			if told := r.Tell(s, now); told.Share < 0 || told.Share > 1 {
				t.Fatalf("share %g", told.Share)
			}
		}
		for range rapid.IntRange(0, 30).Draw(t, "presses") {
			step(rapid.SampledFrom(keys).Draw(t, "key"), rapid.Bool().Draw(t, "heard"), rapid.Bool().Draw(t, "clean"))
		}
		for range 2000 {
			if s.Phase == practice.Over {
				return
			}
			switch s.Phase {
			case practice.Playing:
				step(practice.Ended, true, false)
			case practice.Waiting:
				step(practice.Start, false, false)
			default:
				step(practice.Tick, false, false)
			}
		}
		t.Fatalf("it never ends: %+v", s)
	})
}

// A take to warm up is played and its verdict read, but the item has as many takes to come
// as before.
func TestAWarmUpIsNoneOfTheTakes(t *testing.T) {
	s := begun(t, play("a", practice.ByTakes, 2, 0), play("b", practice.ByClean, 1, 1)).told("take 1 of 2")
	s.now += 10
	s.state = s.routine.Step(s.state, practice.Event{Key: practice.Ended, At: s.now, Heard: true, Aside: true, Pause: 4})
	s.at(practice.Pausing, 0).waits(4).at(practice.Playing, 0).told("take 1 of 2")
	s.plays(false).at(practice.Playing, 0).told("take 2 of 2").plays(false).at(practice.Playing, 1)
	s.state = s.routine.Step(s.state, practice.Event{Key: practice.Ended, At: s.now, Heard: true, Clean: true, Aside: true, Pause: 4})
	s.waits(4).at(practice.Playing, 1)
}
