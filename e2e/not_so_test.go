//touches: web/src/components web/src/views/take server/corrections.go store/corrections.go core/evenness

package e2e_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"manudrill/core/follow"
	"manudrill/core/simulate"
	"manudrill/e2e/browser"
	"manudrill/server"
)

// A student says of a stop that was told that it was none: it is told no more, stands beside the
// take, is counted for the studio, and comes back where it is taken back.
func TestItWasNotSo(t *testing.T) {
	h := newHouse(t)
	_, assignment := h.pupilOf("Mira Nottso", "Not so")
	player := simulate.Player{Seed: 4, MotorMs: 3, SlurDropDB: 2, NoiseDB: -66, Course: []simulate.Act{{Kind: follow.Stop, Before: 9, Seconds: 2}}}
	take := server.SimulatedTake{ID: uuid.New(), Assignment: assignment, Player: player, RecordedAt: time.Now().Add(-time.Hour)}
	require.NoError(t, take.Make(h.ctx, h.kept))
	p := h.open(browser.Window{})
	p.enterAt("Mira Nottso", "/takes/"+take.ID.String())
	p.reads("You stopped for 2.0 s")
	p.press("not-so")
	p.press("was-not-so:stop")
	p.see("so-after-all")
	p.until("it is told no more", `!document.body.innerText.includes('You stopped for')`)
	p.accessible()
	p.enterAt(instructor, "/studio")
	p.see("contradictions", "A stop")
	p.enterAt(instructor, "/takes/"+take.ID.String())
	p.press("so-after-all")
	p.reads("You stopped for 2.0 s")
}

// Who plays with a capo that nobody knows of plays all of it some frets higher: one press, and
// the take counts and the next is heard with the capo.
func TestACapoThatNobodyKnewOf(t *testing.T) {
	h := newHouse(t)
	mira, assignment := h.pupilOf("Mira Capodell", "With a capo")
	player := simulate.Player{Seed: 4, MotorMs: 3, SlurDropDB: 2, NoiseDB: -66, Transpose: 2}
	take := server.SimulatedTake{ID: uuid.New(), Assignment: assignment, Player: player, RecordedAt: time.Now().Add(-time.Hour)}
	require.NoError(t, take.Make(h.ctx, h.kept))
	p := h.open(browser.Window{})
	p.enterAt("Mira Capodell", "/takes/"+take.ID.String())
	p.reads("2 frets too high")
	p.press("had-capo")
	p.until("it counts", `!document.body.innerText.includes('frets too high')`)
	kept, err := h.kept.TakeSummary(h.ctx, take.ID)
	require.NoError(t, err)
	require.True(t, kept.Decision.Counts, kept.Decision.Reason)
	setup, _, err := h.kept.Setup(h.ctx, mira.ID)
	require.NoError(t, err)
	require.Equal(t, 2, setup.Guitar.Capo)
}
