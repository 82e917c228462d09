package tempo_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

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
	rough  = tempo.PassFigures{RightPercent: 100, SpreadPercent: 5, LevelSpreadDB: 6}
)

func take(bpm float64, passes ...tempo.PassFigures) tempo.Result {
	return tempo.Result{HeldBPM: bpm, Passes: passes}
}

func TestSteps(t *testing.T) {
	assert.Equal(t, []float64{60, 68, 76, 84, 92, 100}, ladder.Steps())
	short := ladder
	short.TargetBPM = 60
	assert.Equal(t, []float64{60}, short.Steps())
}

func TestDecisions(t *testing.T) {
	for name, c := range map[string]struct {
		bpm    float64
		takes  []tempo.Result
		step   tempo.Step
		next   float64
		reason string
	}{
		"nothing played":            {76, nil, tempo.Hold, 76, "Nothing has been played"},
		"enough clean passes":       {76, []tempo.Result{take(76, clean, clean, clean)}, tempo.Up, 84, "3 clean passes in a row"},
		"clean over two takes":      {76, []tempo.Result{take(76, uneven, clean), take(76, clean, clean)}, tempo.Up, 84, "3 clean passes"},
		"too few":                   {76, []tempo.Result{take(76, clean, uneven, clean)}, tempo.Hold, 76, "1 clean pass in a row"},
		"uneven at the end":         {76, []tempo.Result{take(76, clean, clean, uneven)}, tempo.Hold, 76, "timing spread was 12 %"},
		"wrong before uneven":       {76, []tempo.Result{take(76, wrong)}, tempo.Hold, 76, "80 % of the notes were right"},
		"rough":                     {76, []tempo.Result{take(76, rough)}, tempo.Hold, 76, "level spread was 6 dB"},
		"fail once":                 {76, []tempo.Result{take(76, clean), take(76, uneven)}, tempo.Hold, 76, "Stay at 76"},
		"fail twice":                {76, []tempo.Result{take(76, uneven), take(76, uneven, wrong)}, tempo.Down, 68, "go down to 68"},
		"fail twice at the start":   {60, []tempo.Result{take(60, uneven), take(60, uneven)}, tempo.Hold, 60, "start tempo"},
		"last step is the target":   {92, []tempo.Result{take(92, clean, clean, clean)}, tempo.Up, 100, "go up to 100"},
		"target":                    {100, []tempo.Result{take(100, clean, clean, clean)}, tempo.Hold, 100, "Target reached"},
		"evenly but slower":         {76, []tempo.Result{take(70, clean, clean, clean)}, tempo.Hold, 76, "You played at 70 bpm instead of 76"},
		"within the tolerance":      {76, []tempo.Result{take(78.9, clean, clean, clean)}, tempo.Up, 84, "go up"},
		"another drill":             {76, []tempo.Result{{HeldBPM: 76, Foreign: true, Passes: []tempo.PassFigures{clean, clean, clean}}}, tempo.Hold, 76, "does not match"},
		"a foreign take in between": {76, []tempo.Result{take(76, clean, clean), {Foreign: true}, take(76, clean)}, tempo.Hold, 76, "1 clean pass in a row"},
	} {
		d := ladder.Decide(c.bpm, c.takes)
		assert.Equal(t, c.step, d.Step, name)
		assert.InDelta(t, c.next, d.NextBPM, 1e-9, name)
		assert.Contains(t, d.Reason, c.reason, name)
		assert.Equal(t, name == "target", d.Reached, name)
	}
}

func TestAFigureThatShowsAsTheGateMeetsIt(t *testing.T) {
	assert.True(t, ladder.Gate.Clean(tempo.PassFigures{RightPercent: 94.96, SpreadPercent: 7.04, LevelSpreadDB: 4.04}))
	assert.False(t, ladder.Gate.Clean(tempo.PassFigures{RightPercent: 95, SpreadPercent: 7.06, LevelSpreadDB: 4}))
}

func TestCheck(t *testing.T) {
	assert.Empty(t, ladder.Check())
	for field, change := range map[string]func(*tempo.Ladder){
		"ladder.startBpm":           func(l *tempo.Ladder) { l.StartBPM = 5 },
		"ladder.targetBpm":          func(l *tempo.Ladder) { l.TargetBPM = 50 },
		"ladder.stepBpm":            func(l *tempo.Ladder) { l.StepBPM = 0 },
		"ladder.gate.rightPercent":  func(l *tempo.Ladder) { l.Gate.RightPercent = 101 },
		"ladder.gate.spreadPercent": func(l *tempo.Ladder) { l.Gate.SpreadPercent = 0 },
		"ladder.gate.levelSpreadDb": func(l *tempo.Ladder) { l.Gate.LevelSpreadDB = -1 },
		"ladder.gate.passesInARow":  func(l *tempo.Ladder) { l.Gate.PassesInARow = 0 },
	} {
		l := ladder
		change(&l)
		faults := l.Check()
		assert.Len(t, faults, 1, field)
		assert.Equal(t, field, faults[0].Field)
		assert.Nil(t, l.Steps())
	}
}
