package tempo_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/tempo"
)

var ladder = tempo.Ladder{
	StartBPM: 60, StepBPM: 8, TargetBPM: 100,
	Gate: tempo.Gate{RightPercent: 95, SpreadPercent: 7, LevelSpreadDB: 4, PassesInARow: 3},
}

var (
	clean  = tempo.PassFigures{RightPercent: 100, SpreadPercent: 5, LevelSpreadDB: 2}
	uneven = tempo.PassFigures{RightPercent: 100, SpreadPercent: 12, LevelSpreadDB: 2}
	wrong  = tempo.PassFigures{RightPercent: 80, SpreadPercent: 12, LevelSpreadDB: 2}
	// stopped is even, but not played through.
	stopped = tempo.PassFigures{RightPercent: 100, SpreadPercent: 5, LevelSpreadDB: 2, Interrupted: true}

	rough = tempo.PassFigures{RightPercent: 100, SpreadPercent: 5, LevelSpreadDB: 6}
)

func take(bpm float64, passes ...tempo.PassFigures) tempo.Result {
	return tempo.Result{HeldBPM: bpm, Passes: passes}
}

func at(bpm float64) tempo.Rung { return tempo.Rung{BPM: bpm, NotesPerBeat: 2} }

func with(change func(*tempo.Ladder)) tempo.Ladder {
	l := ladder
	change(&l)
	return l
}

// Rungs worked out by hand for each rule.
func TestRungs(t *testing.T) {
	two := func(bpm ...float64) (rungs tempo.Rungs) {
		for _, b := range bpm {
			rungs = append(rungs, at(b))
		}
		return rungs
	}
	own := tempo.Rungs{{60, 3}, {60, 4}, {52, 6}}
	for name, c := range map[string]struct {
		ladder       tempo.Ladder
		notesPerBeat int
		want         tempo.Rungs
	}{
		"steps":                      {ladder, 2, two(60, 68, 76, 84, 92, 100)},
		"steps, named":               {with(func(l *tempo.Ladder) { l.Rule = tempo.BySteps }), 2, two(60, 68, 76, 84, 92, 100)},
		"start is target":            {with(func(l *tempo.Ladder) { l.TargetBPM = 60 }), 2, two(60)},
		"percent":                    {with(func(l *tempo.Ladder) { l.Rule, l.StepPercent = tempo.ByPercent, 10 }), 2, two(60, 66, 73, 80, 88, 97, 100)},
		"percent of little":          {with(func(l *tempo.Ladder) { l.Rule, l.StepPercent, l.TargetBPM = tempo.ByPercent, 1, 63 }), 2, two(60, 61, 62, 63)},
		"3 to 6":                     {with(func(l *tempo.Ladder) { l.Rule, l.Doublings = tempo.ByDoubling, 1 }), 3, tempo.Rungs{{60, 3}, {60, 6}}},
		"1, 2, 4":                    {with(func(l *tempo.Ladder) { l.Rule, l.Doublings = tempo.ByDoubling, 2 }), 1, tempo.Rungs{{60, 1}, {60, 2}, {60, 4}}},
		"both, to twice the start":   {with(func(l *tempo.Ladder) { l.Rule, l.Doublings, l.StepBPM, l.TargetBPM = tempo.ByBoth, 1, 30, 120 }), 2, tempo.Rungs{{60, 2}, {90, 2}, {120, 2}, {60, 4}, {90, 4}, {120, 4}}},
		"both, further than twice":   {with(func(l *tempo.Ladder) { l.Rule, l.Doublings, l.StepBPM, l.TargetBPM = tempo.ByBoth, 1, 45, 150 }), 2, tempo.Rungs{{60, 2}, {105, 2}, {150, 2}, {105, 4}, {150, 4}}},
		"a list":                     {with(func(l *tempo.Ladder) { l.Rule, l.List = tempo.ByList, own }), 2, own},
		"a list needs no start":      {with(func(l *tempo.Ladder) { l.Rule, l.List, l.StartBPM = tempo.ByList, own, 0 }), 2, own},
		"doubling needs no target":   {with(func(l *tempo.Ladder) { l.Rule, l.Doublings, l.TargetBPM, l.StepBPM = tempo.ByDoubling, 1, 0, 0 }), 4, tempo.Rungs{{60, 4}, {60, 8}}},
		"more than a click is split": {with(func(l *tempo.Ladder) { l.Rule, l.Doublings = tempo.ByDoubling, 2 }), 3, nil},
	} {
		assert.Equal(t, c.want, c.ladder.Rungs(c.notesPerBeat), name)
	}
	assert.InDelta(t, 4, tempo.Rung{BPM: 120, NotesPerBeat: 2}.NotesPerSecond(), 0, "120 × 2 / 60")
}

// Every ladder without faults climbs: each rung is at least as fast as the one
// before, the first is its start, and there are not too many.
func TestLaddersClimb(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		l := ladder
		l.Rule = rapid.SampledFrom([]tempo.Rule{tempo.BySteps, tempo.ByPercent, tempo.ByDoubling, tempo.ByBoth}).Draw(r, "rule")
		l.StartBPM = float64(rapid.IntRange(20, 320).Draw(r, "start"))
		l.TargetBPM = float64(rapid.IntRange(20, 320).Draw(r, "target"))
		l.StepBPM = rapid.Float64Range(0, 61).Draw(r, "step")
		l.StepPercent = rapid.Float64Range(0, 101).Draw(r, "percent")
		l.Doublings = rapid.IntRange(0, 4).Draw(r, "doublings")
		n := rapid.SampledFrom(drill.Divisions).Draw(r, "notes")
		rungs := l.Rungs(n)
		if len(l.Check(n)) > 0 {
			if rungs != nil {
				r.Fatal("a ladder with faults has no rungs")
			}
			return
		}
		if len(rungs) == 0 || len(rungs) > tempo.MaxRungs || rungs[0] != (tempo.Rung{BPM: l.StartBPM, NotesPerBeat: n}) {
			r.Fatalf("%v", rungs)
		}
		for i := 1; i < len(rungs); i++ {
			if rungs[i].NotesPerSecond() < rungs[i-1].NotesPerSecond() || rungs[i] == rungs[i-1] {
				r.Fatalf("rung %d of %v", i, rungs)
			}
			if rungs.Place(rungs[i]) != i {
				r.Fatalf("rung %d is found at %d", i, rungs.Place(rungs[i]))
			}
		}
		clean := tempo.Result{Passes: []tempo.PassFigures{clean, clean, clean}}
		for i, rung := range rungs { // clean all the way, one climbs rung by rung
			clean.HeldBPM = rung.BPM
			d := l.Decide(rung, n, []tempo.Result{clean})
			if i+1 < len(rungs) && (d.Step != tempo.Up || d.Next != rungs[i+1]) || i+1 == len(rungs) && !d.Reached {
				r.Fatalf("from rung %d of %v: %+v", i, rungs, d)
			}
		}
	})
}

func TestDecisions(t *testing.T) {
	for name, c := range map[string]struct {
		bpm    float64
		takes  []tempo.Result
		step   tempo.Step
		next   float64
		reason string
	}{
		"nothing played":          {76, nil, tempo.Hold, 76, "Nothing has been played"},
		"enough clean passes":     {76, []tempo.Result{take(76, clean, clean, clean)}, tempo.Up, 84, "3 clean passes in a row"},
		"clean over two takes":    {76, []tempo.Result{take(76, uneven, clean), take(76, clean, clean)}, tempo.Up, 84, "3 clean passes"},
		"too few":                 {76, []tempo.Result{take(76, clean, uneven, clean)}, tempo.Hold, 76, "1 clean pass in a row"},
		"uneven at the end":       {76, []tempo.Result{take(76, clean, clean, uneven)}, tempo.Hold, 76, "in the last pass the timing spread was 12.0 %"},
		"wrong before uneven":     {76, []tempo.Result{take(76, wrong)}, tempo.Hold, 76, "80.0 % of the notes were right"},
		"rough":                   {76, []tempo.Result{take(76, rough)}, tempo.Hold, 76, "level spread was 6.0 dB"},
		"fail once":               {76, []tempo.Result{take(76, clean), take(76, uneven)}, tempo.Hold, 76, "Stay at 76"},
		"fail twice":              {76, []tempo.Result{take(76, uneven), take(76, uneven, wrong)}, tempo.Down, 68, "go down to 68"},
		"fail twice at the start": {60, []tempo.Result{take(60, uneven), take(60, uneven)}, tempo.Hold, 60, "Stay at the start"},
		"last step is the target": {92, []tempo.Result{take(92, clean, clean, clean)}, tempo.Up, 100, "go up to 100"},
		"target":                  {100, []tempo.Result{take(100, clean, clean, clean)}, tempo.Hold, 100, "Target reached"},
		"evenly but slower":       {76, []tempo.Result{take(70, clean, clean, clean)}, tempo.Hold, 76, "You played at 70 bpm instead of 76"},
		"within the tolerance":    {76, []tempo.Result{take(78.9, clean, clean, clean)}, tempo.Up, 84, "go up"},
		"a stop inside":           {76, []tempo.Result{take(76, clean, clean, stopped)}, tempo.Hold, 76, "in the last pass you stopped, went back or left something out"},
		"a stop in each of two":   {76, []tempo.Result{take(76, stopped), take(76, stopped, stopped)}, tempo.Hold, 76, "Stay at 76"},
		"on other frets":          {76, []tempo.Result{{HeldBPM: 76, Transposed: 1, Passes: []tempo.PassFigures{clean, clean, clean}}}, tempo.Hold, 76, "on other frets than written"},
		"another drill":           {76, []tempo.Result{{HeldBPM: 76, Foreign: true, Passes: []tempo.PassFigures{clean, clean, clean}}}, tempo.Hold, 76, "does not match"},

		"something else in between counts for nothing": {76, []tempo.Result{take(76, clean, clean), {Foreign: true}, take(76, clean)}, tempo.Up, 84, "3 clean passes"},
		"off tempo in between counts for nothing":      {76, []tempo.Result{take(76, uneven), take(60, clean, clean, clean), take(76, uneven)}, tempo.Down, 68, "Two takes without a clean pass"},
		"one failed, one of something else":            {76, []tempo.Result{{HeldBPM: 76, Foreign: true, Passes: []tempo.PassFigures{uneven}}, take(76, uneven)}, tempo.Hold, 76, "Stay at 76"},
		"left before the end of a pass":                {76, []tempo.Result{take(76, uneven), take(76)}, tempo.Hold, 76, "No pass was played to its end"},
		"one failed, one left, one failed":             {76, []tempo.Result{take(76, uneven), take(76), take(76, uneven)}, tempo.Down, 68, "Two takes without a clean pass"},
		"between the rungs, up":                        {80, []tempo.Result{take(80, clean, clean, clean)}, tempo.Up, 84, "go up to 84"},
		"between the rungs, down":                      {80, []tempo.Result{take(80, uneven), take(80, uneven)}, tempo.Down, 76, "go down to 76"},
		"below the start":                              {50, []tempo.Result{take(50, uneven), take(50, uneven)}, tempo.Hold, 50, "Stay at the start"},
		"from below the start":                         {50, []tempo.Result{take(50, clean, clean, clean)}, tempo.Up, 60, "go up to 60"},
		"beyond the target":                            {120, []tempo.Result{take(120, uneven), take(120, uneven)}, tempo.Down, 100, "go down to 100"},
	} {
		d := ladder.Decide(at(c.bpm), 2, c.takes)
		assert.Equal(t, c.step, d.Step, name)
		assert.Equal(t, at(c.next), d.Next, name)
		assert.Equal(t, at(c.bpm), d.At, name)
		assert.Contains(t, d.Reason, c.reason, name)
		assert.Equal(t, name == "target", d.Reached, name)
		counts := len(c.takes) > 0 && at(c.bpm).Counts(c.takes[len(c.takes)-1])
		assert.Equal(t, counts, d.Counts, name)
	}
	assert.False(t, at(76).Counts(take(70, clean)))
	assert.False(t, at(76).Counts(tempo.Result{HeldBPM: 76, Foreign: true, Passes: []tempo.PassFigures{clean}}))
	assert.False(t, at(76).Counts(take(76)), "nothing was played through")
}

// Where the click is divided in more than one way, a rung says how.
func TestRungsAreNamedSoThatOneKnowsWhich(t *testing.T) {
	l := with(func(l *tempo.Ladder) { l.Rule, l.Doublings = tempo.ByDoubling, 1 })
	d := l.Decide(tempo.Rung{BPM: 60, NotesPerBeat: 1}, 1, []tempo.Result{take(60, clean, clean, clean)})
	assert.Equal(t, tempo.Rung{BPM: 60, NotesPerBeat: 2}, d.Next)
	assert.Contains(t, d.Reason, "at 60 bpm with 1 note a beat: go up to 60 bpm with 2 notes a beat")
}

func TestAFigureThatShowsAsTheGateMeetsIt(t *testing.T) {
	assert.True(t, ladder.Gate.Clean(tempo.PassFigures{RightPercent: 94.96, SpreadPercent: 7.04, LevelSpreadDB: 4.04}))
	assert.False(t, ladder.Gate.Clean(tempo.PassFigures{RightPercent: 95, SpreadPercent: 7.06, LevelSpreadDB: 4}))
	// 6.35 is a float a little below it, which browsers show as 6.3 though ten times
	// the float rounds to 64; 7.25 lies between two tenths and is shown as 7.3.
	strict := ladder.Gate
	for spread, shown := range map[float64]float64{6.35: 6.3, 7.25: 7.3, 7.05: 7, 0.15: 0.1, 8.45: 8.4, 1e6: 1e6} {
		strict.SpreadPercent = shown
		assert.True(t, strict.Clean(tempo.PassFigures{RightPercent: 100, SpreadPercent: spread}), "%g is shown as %g", spread, shown)
		strict.SpreadPercent = shown - 0.05
		assert.False(t, strict.Clean(tempo.PassFigures{RightPercent: 100, SpreadPercent: spread}), "%g is shown as %g", spread, shown)
	}
}

func TestCheck(t *testing.T) {
	assert.Empty(t, ladder.Check(2))
	for field, change := range map[string]func(*tempo.Ladder){
		"ladder.startBpm":           func(l *tempo.Ladder) { l.StartBPM = 5 },
		"ladder.targetBpm":          func(l *tempo.Ladder) { l.TargetBPM = 50 },
		"ladder.stepBpm":            func(l *tempo.Ladder) { l.StepBPM = 0 },
		"ladder.stepPercent":        func(l *tempo.Ladder) { l.Rule = tempo.ByPercent },
		"ladder.doublings":          func(l *tempo.Ladder) { l.Rule = tempo.ByBoth },
		"ladder.list":               func(l *tempo.Ladder) { l.Rule = tempo.ByList },
		"ladder.rule":               func(l *tempo.Ladder) { l.Rule = "leaps" },
		"ladder.gate.rightPercent":  func(l *tempo.Ladder) { l.Gate.RightPercent = 101 },
		"ladder.gate.spreadPercent": func(l *tempo.Ladder) { l.Gate.SpreadPercent = 0 },
		"ladder.gate.levelSpreadDb": func(l *tempo.Ladder) { l.Gate.LevelSpreadDB = -1 },
		"ladder.gate.passesInARow":  func(l *tempo.Ladder) { l.Gate.PassesInARow = 0 },
	} {
		l := with(change)
		faults := l.Check(2)
		assert.Len(t, faults, 1, field)
		assert.Equal(t, field, faults[0].Field)
		assert.Nil(t, l.Rungs(2))
	}
	for name, list := range map[string]tempo.Rungs{"too slow": {{5, 2}}, "in five": {{60, 5}}, "down again": {{60, 4}, {60, 2}}} {
		faults := with(func(l *tempo.Ladder) { l.Rule, l.List = tempo.ByList, list }).Check(2)
		assert.Len(t, faults, 1, name)
	}
	many := with(func(l *tempo.Ladder) {
		l.Rule, l.Doublings, l.StepBPM, l.StartBPM, l.TargetBPM = tempo.ByBoth, 3, 1, 20, 320
	})
	assert.Contains(t, many.Check(1)[0].Text, "more than 301 rungs")
}
