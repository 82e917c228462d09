//touches: web/src/views/take web/src/components/TakeComments.vue web/src/components/NoteRows.vue
//touches: web/src/components/charts server/review.go server/takes.go

package e2e_test

import (
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/follow"
	"manudrill/core/simulate"
	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
	"manudrill/server"
)

// takeOf lets a player make a take of a drill of its own for the student and
// returns the path of its page.
func (h *house) takeOf(file drillfile.File, p simulate.Player) string {
	t := h.t
	t.Helper()
	id, err := uuid.Parse(filepath.Base(h.onTheStand(file)))
	require.NoError(t, err)
	take := server.SimulatedTake{ID: uuid.New(), Assignment: id, Player: p, RecordedAt: time.Now()}
	require.NoError(t, take.Make(h.ctx, h.kept))
	return "/takes/" + take.ID.String()
}

func (h *house) weakTake(name string) string {
	file := shortDrill(name)
	file.Drill.Rhythm.Passes = 3
	return h.takeOf(file, simulate.Player{Seed: 4, MotorMs: 3, SlurDropDB: 2, NoiseDB: -66, Weak: &simulate.Weak{From: 1, To: 3, LateMs: 40}})
}

// From the whole take to one note in two moves: look, press. The note is heard,
// its bar repeated, slowed down, and a comment pinned, which the student finds.
func TestATakeIsLookedAtHeardAndCommented(t *testing.T) {
	h := newHouse(t)
	path := h.weakTake("Looked at")
	p := h.open(browser.Window{})
	p.enterAt(instructor, path)
	p.see("passes")
	p.see("groups")
	p.reads("The ring finger after the index finger, hammered on, comes late")
	assert.Equal(t, 24, p.count(".timeline .mark"))
	assert.Equal(t, 24, p.count("[aria-label='Passes under one another'] .cell"))
	p.see("sound-at") // the sound has been loaded

	evaluate[any](p, `document.querySelector('audio').addEventListener('seeked', e => { window.from ??= e.target.currentTime })`)
	p.click(`.timeline .mark[aria-label*="string 3"]`)
	p.see("note:3/1")
	p.see("play-from-note")
	p.until("it plays from the note", `window.from !== undefined`)
	assert.Greater(t, evaluate[float64](p, `window.from`), 2.3, "the sound is where the note is")
	p.press("repeat-bar")
	p.see("stop-repeating")
	evaluate[any](p, `(() => { const s = document.querySelector('.sound select'); s.value = '0.5'; s.dispatchEvent(new Event('change')) })()`)
	assert.True(t, evaluate[bool](p, `(a => a.playbackRate === 0.5 && a.preservesPitch)(document.querySelector('audio'))`), "slower, at the same pitch")
	p.until("the bar is heard again", `(() => {
		const a = document.querySelector('audio')
		window.most = Math.max(window.most ?? 0, a.currentTime)
		return a.currentTime < window.most - 0.5 && a.currentTime > 1.9
	})()`)

	// By keys: the time line is one stop of the tab key, arrows go along it, Space presses.
	assert.Equal(t, 1, p.count(`.timeline [tabindex="0"]`))
	evaluate[any](p, `document.querySelector('.timeline [tabindex="0"]').focus()`)
	p.do(chromedp.KeyEvent(kb.Home), chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(" "))
	p.see("note:2/1")
	p.do(chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.Enter))
	p.see("note:3/1")

	p.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="Comment on this note"]`), "Put the ring finger down sooner."))
	p.press("pin")
	p.see("comment:"+instructor, "Put the ring finger down sooner.")
	p.see("remove-comment")
	assert.Equal(t, 1, p.count(".timeline .pin"))

	s := h.open(browser.Window{})
	s.enterAt(student, path)
	s.reads("Put the ring finger down sooner.")
	assert.Zero(t, s.count(`[aria-label="Comment on this note"]`), "students read comments")
	s.press("pinned-note")
	s.see("note:3/1")
	s.reads("early (heard)")
}

// What was done besides playing on is shown where it was.
func TestWhatWasDoneIsShownInTheTake(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Interrupted")
	file.Drill.Rhythm.Passes = 3
	path := h.takeOf(file, simulate.Player{Seed: 4, MotorMs: 3, SlurDropDB: 2, NoiseDB: -66, Course: []simulate.Act{
		{Kind: follow.Hesitation, Before: 10, Seconds: 0.4}, {Kind: follow.Correction, Before: 18, Seconds: 0.4},
	}})
	p := h.open(browser.Window{})
	p.enterAt(student, path)
	p.until("what was done is drawn", `document.querySelectorAll('[data-test="happened"]').length === 2`)
	assert.Equal(t, 1, p.count(`[data-of="hesitation 10"]`))
	assert.Equal(t, 1, p.count(`[data-of="correction 18"]`))
}

// The remedy is one click from the stand for the student, and one from the
// student's list for the instructor.
func TestARemedyIsOneClickAway(t *testing.T) {
	h := newHouse(t)
	path := h.weakTake("Remedied")
	p := h.open(browser.Window{})
	p.enterAt(instructor, path)
	p.reads("Remedied: 1 to 3 alone", "at 70 % of the tempo")
	p.press("take-remedy:0")
	p.see("given")
	p.enterAt(student, path)
	p.press("take-remedy:0")
	p.reads("Remedied: 1 to 3 alone", "a pass")
	assert.Contains(t, evaluate[string](p, `location.pathname`), "/stand/")
}

// Two takes of one drill are set side by side on the page of either.
func TestTwoTakesBesideEachOther(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Beside")
	file.Drill.Rhythm.Passes = 4
	id, err := uuid.Parse(filepath.Base(h.onTheStand(file)))
	require.NoError(t, err)
	var last string
	for i, sd := range []float64{26, 3} {
		take := server.SimulatedTake{
			ID: uuid.New(), Assignment: id, Player: simulate.Player{Seed: 8, MotorMs: sd, NoiseDB: -66},
			RecordedAt: time.Now().Add(time.Duration(i) * time.Hour),
		}
		require.NoError(t, take.Make(h.ctx, h.kept))
		last = "/takes/" + take.ID.String()
	}
	p := h.open(browser.Window{})
	p.enterAt(student, last)
	p.see("another-take")
	p.until("the other take is offered", `[...document.querySelectorAll('select option')].some(o => o.innerText.startsWith('Beside'))`)
	evaluate[any](p, `(() => {
		const s = [...document.querySelectorAll('select')].at(-1)
		s.value = [...s.options].find(o => o.innerText.startsWith('Beside')).value
		s.dispatchEvent(new Event('change'))
	})()`)
	p.see("contrast")
	assert.Equal(t, 4*8, p.count("[aria-label='Both takes, note for note'] .cell"), "time and level of both, for each note of the chart")
	assert.Contains(t, flat(p.text("body")), "Timing spread", fmt.Sprint("at ", last))
}
