//touches: web/src/audio web/src/views/stand

package e2e_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/tempo"
	"manudrill/e2e/browser"
	"manudrill/store"
)

// lastTake waits for the first take of a stand to be measured.
func (h *house) lastTake(stand string) store.TakeSummary {
	t := h.t
	t.Helper()
	id := h.standing(stand).ID
	var takes []store.TakeSummary
	require.Eventually(t, func() bool {
		var err error
		takes, err = h.kept.Takes(h.ctx, &id, nil, store.Page{})
		return err == nil && len(takes) == 1 && takes[0].State == store.Measured
	}, patience, 100*time.Millisecond)
	return takes[0]
}

// The simulated instrument that ships plays the drill by MIDI: it is marked and judged on
// the device and in the studio without a microphone, and moves nobody.
func TestAnInstrumentThatTellsItsNotes(t *testing.T) {
	h := newHouse(t)
	stand := h.onTheStand(shortDrill("By MIDI"))
	p := h.open(browser.Window{})
	p.enterAt(student, stand)
	p.see("notes-a-pass", "8")
	p.see("judged:here")
	p.press("source:midi")
	p.reads("Simulated, to try it out")
	p.press("play")
	p.see("right-notes", "16")
	p.see("all-figures")
	p.reads("A try-out by the simulated player: it counts for nothing.")
	take := h.lastTake(stand)
	assert.Equal(t, store.MIDI, take.Source)
	assert.Equal(t, tempo.TriedOut, take.Aside)
	assert.InDelta(t, 100, take.RightPercent, 0)
	assert.Less(t, take.SpreadMs, 8.0)
	full, err := h.kept.Take(h.ctx, take.ID)
	require.NoError(t, err)
	require.NotNil(t, full.Analysis.Pulse.ClickMs, "when it is clicked is known")
	assert.InDelta(t, 0, full.Analysis.Pulse.ClickMs.Value, 8, "it plays on the click")
}

// Any letter is a note without a pitch: what is told is timing alone.
func TestAKeyIsTappedInTime(t *testing.T) {
	h := newHouse(t)
	stand := h.onTheStand(shortDrill("Tapped"))
	p := h.open(browser.Window{})
	p.enterAt(student, stand)
	p.see("notes-a-pass", "8")
	p.see("judged:here")
	p.press("source:key")
	p.reads("for your timing alone")
	evaluate[any](p, `(() => { // at each note that is due
		let last
		setInterval(() => {
			const now = document.querySelector('.stage .now')?.dataset.note
			if (now !== undefined && now !== last) dispatchEvent(new KeyboardEvent('keydown', { key: 'j' }))
			last = now
		}, 4)
	})()`)
	p.press("play")
	p.see("right-notes", "16")
	p.see("all-figures")
	p.reads("Tapped on a key: it shows your timing, and counts for nothing.")
	take := h.lastTake(stand)
	assert.Equal(t, []any{store.Key, tempo.Tapped}, []any{take.Source, take.Aside})
	assert.Greater(t, take.RightPercent, 60.0, "a busy page may tap late, or once less")
	assert.InDelta(t, 120, h.standing(stand).Rung.BPM, 0)
}
