package tempo_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/tempo"
)

// A gate may ask how the notes join: a pass with more is not clean, and it is said which.
func TestAGateAsksHowTheNotesJoin(t *testing.T) {
	gate := tempo.Usual().Gate
	pass := clean
	assert.Empty(t, gate.Fault(pass))
	pass.GapsPercent, pass.RingingPercent, pass.BentPercent = 33.3, 33.3, 100
	assert.Empty(t, gate.Fault(pass), "a third is allowed, and dragging is not asked for")
	pass.RingingPercent = 40
	assert.Contains(t, gate.Fault(pass), "rang on, the gate allows 33 %")
	pass.GapsPercent = 50
	assert.Contains(t, gate.Fault(pass), "50 % of the notes broke off")
	gate.GapsPercent, gate.RingingPercent, gate.BentPercent = 0, 0, 50
	assert.Contains(t, gate.Fault(pass), "before 100 % of the pull-offs")
	gate.BentPercent = 0
	assert.Empty(t, gate.Fault(pass), "nothing is asked")
	gate.GapsPercent = 101
	assert.Contains(t, gate.Check().Error(), "from 1 to 100")
}

// Sloppy takes do not climb: every note broken off, or every string left ringing.
func TestSloppyTakesDoNotClimb(t *testing.T) {
	l := ladder
	l.Gate = tempo.Usual().Gate
	broken, ringing := clean, clean
	broken.GapsPercent, ringing.RingingPercent = 100, 100
	for _, sloppy := range []tempo.PassFigures{broken, ringing} {
		d := l.Decide(at(68), 2, []tempo.Result{take(68, sloppy, sloppy, sloppy, sloppy)})
		assert.Equal(t, tempo.Hold, d.Step, d.Reason)
	}
	assert.Equal(t, tempo.Up, l.Decide(at(68), 2, []tempo.Result{take(68, clean, clean)}).Step)
}

// A gate that was written before notes had to join asks what a new one asks; one that says not
// to ask does not.
func TestGatesFromBeforeAreRead(t *testing.T) {
	var g tempo.Gate
	require.NoError(t, json.Unmarshal([]byte(`{"rightPercent": 90, "spreadPercent": 7, "levelSpreadDb": 4, "passesInARow": 2}`), &g))
	assert.Equal(t, tempo.Gate{RightPercent: 90, SpreadPercent: 7, LevelSpreadDB: 4, PassesInARow: 2, GapsPercent: 33, RingingPercent: 33}, g)
	g.GapsPercent, g.RingingPercent = 0, 0
	written, err := json.Marshal(g)
	require.NoError(t, err)
	var again tempo.Gate
	require.NoError(t, json.Unmarshal(written, &again))
	assert.Equal(t, g, again)
}
