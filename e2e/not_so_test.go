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
