//touches: web/src/views/routine web/src/offline web/src/audio/recorder.ts

package e2e_test

import (
	"testing"
	"time"

	"github.com/chromedp/cdproto/storage"
	"github.com/chromedp/chromedp"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/practice"
	"manudrill/formats/drillfile"
)

// While a routine runs it is deleted, and one of its drills taken back: it is played to its
// end all the same. What was played of the drill that is the student's no more is not taken,
// and that is said; it stays on the device.
func TestARoutineIsTakenAwayWhileItRuns(t *testing.T) {
	h := newHouse(t)
	a, b := shortDrill("It stays"), shortDrill("It is taken back")
	path, assignments := h.onRoutine(practice.Routine{Name: "Taken away", Items: []practice.Item{
		takesOf(a.Drill.Name, 1), {Kind: practice.Rest, Seconds: 5}, takesOf(b.Drill.Name, 1),
	}}, a, b)
	p := h.withPlayer(soundsOf(t, []drillfile.File{a, b}, 120))
	p.enterAt(student, path)
	p.see("judged:here")
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "1 of 1")
	ctx := h.ctx
	require.NoError(t, h.kept.DeleteRoutine(ctx, uuid.MustParse(path[len("/routines/"):])))
	require.NoError(t, h.kept.Unassign(ctx, assignments[1]))
	p.see("rest", "It is taken back")
	p.until("both are judged", `said.length === 2`)
	p.see("over")
	p.see("unsent:1")
	p.see("unsent-state:refused")
	first, err := h.kept.Stand(ctx, assignments[0])
	require.NoError(t, err)
	assert.Equal(t, 1, first.Takes)
}

// Nobody plays, or the microphone hears another room: after two takes of nothing the
// routine waits, and nothing was counted, handed in or judged.
func TestARoutineWaitsInSilence(t *testing.T) {
	h := newHouse(t)
	a := shortDrill("Nobody plays")
	path, assignments := h.onRoutine(practice.Routine{Name: "Silence", Items: []practice.Item{takesOf(a.Drill.Name, 3)}}, a)
	p := h.withPlayer("{}")
	p.enterAt(student, path)
	p.see("judged:here")
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "1 of 3")
	p.see("told:silent")
	p.see("unheard")
	p.see("go:waiting")
	now, err := h.kept.Stand(h.ctx, assignments[0])
	require.NoError(t, err)
	assert.Zero(t, now.Takes)
}

// There is no room on the device: it is said, the routine goes on, and every take is handed
// in from memory, once there is a line too.
func TestARoutineOnADeviceWithoutRoom(t *testing.T) {
	h := newHouse(t)
	a := shortDrill("No room in a routine")
	path, assignments := h.onRoutine(practice.Routine{Name: "Without room", Items: []practice.Item{takesOf(a.Drill.Name, 2)}}, a)
	p := h.withPlayer(soundsOf(t, []drillfile.File{a}, 120, 130))
	p.enterAt(student, path)
	p.see("judged:here")
	none := 1.0
	_, err := chromedp.Call(p.ctx, storage.OverrideQuotaForOrigin, storage.OverrideQuotaForOriginParams{Origin: h.base, QuotaSize: &none})
	require.NoError(t, err)
	p.cut(true)
	p.do(chromedp.KeyEvent(" "))
	p.until("both are judged", `said.length === 2`)
	p.see("over")
	p.see("unsent:2")
	p.see("unsent-state:in-memory")
	p.reads("There is no room on this device")
	p.cut(false)
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	require.Eventually(t, func() bool {
		now, err := h.kept.Stand(h.ctx, assignments[0])
		return err == nil && now.Takes == 2
	}, patience, 100*time.Millisecond)
}

// Two windows of one browser play the same drill without a line. Each says so, also the one that
// finds the other at handing in. Once the line is back each take is handed in once, whichever
// window does it, and both show the studio's word.
func TestTwoWindowsHandInOnce(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Played in two windows")
	stand := h.onTheStand(file)
	first := h.withPlayer(soundsOf(t, []drillfile.File{file}, 120))
	tab, stop := chromedp.NewContext(first.ctx)
	t.Cleanup(stop)
	second := page{t, h, tab}
	second.hearsPlayer(soundsOf(t, []drillfile.File{file}, 120))
	first.sitDown(stand)
	second.do(chromedp.Navigate(h.base + stand))
	second.see("notes-a-pass", "8")
	first.cut(true)
	second.cut(true)
	first.press("play")
	first.see("verdict")
	first.see("kept-here")
	evaluate[any](first, `(() => {
		const until = new Promise((resolve) => (window.handedIn = resolve))
		void navigator.locks.request('manudrill outbox', () => until)
	})()`)
	second.press("play")
	second.see("verdict")
	second.until("the second waits for its turn", `(navigator.locks.query().then((all) => (window.queue = all.pending.length)), window.queue > 0)`)
	evaluate[any](first, `handedIn()`)
	second.see("unsent:2")
	second.see("kept-here")
	for _, p := range []page{first, second} {
		p.cut(false)
	}
	evaluate[any](first, `window.dispatchEvent(new Event('online'))`)
	for _, p := range []page{first, second} {
		p.until("all is handed in", `!document.body.innerText.includes('not handed in')`)
		p.see("all-figures")
	}
	require.Eventually(t, func() bool { return h.standing(stand).Takes == 2 }, patience, 100*time.Millisecond)
}

// The microphone hears something else, another tab's music perhaps: it is handed in, for
// whoever wants to hear it, but counts for nothing, and after two such takes the routine waits.
func TestARoutineHearsSomethingElse(t *testing.T) {
	h := newHouse(t)
	a := shortDrill("Something else sounds")
	path, assignments := h.onRoutine(practice.Routine{Name: "Another sound", Items: []practice.Item{takesOf(a.Drill.Name, 3)}}, a)
	other := shortDrill(a.Drill.Name)
	other.Drill.Pattern = drill.FingerPerFret{Orders: [][]int{{4, 1, 3, 2}}}
	other.Drill.Attacks.Rule, other.Drill.Path.Position = drill.AllPicked, 10
	p := h.withPlayer(soundsOf(t, []drillfile.File{other}, 120))
	p.enterAt(student, path)
	p.see("judged:here")
	p.do(chromedp.KeyEvent(" "))
	p.see("told:foreign")
	p.see("unheard")
	require.Eventually(t, func() bool {
		now, err := h.kept.Stand(h.ctx, assignments[0])
		return err == nil && now.Takes == 2 && now.Rung.BPM == 120
	}, patience, 100*time.Millisecond)
}

// The clock of the device jumps three hours ahead while a take is played: it is measured by the
// clock of its sound, and stands in the record when the studio had it.
func TestTheClockOfTheDeviceJumps(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("The clock jumps")
	stand := h.onTheStand(file)
	p := h.withPlayer(soundsOf(t, []drillfile.File{file}, 120))
	p.enterAt(student, stand)
	p.see("judged:here")
	evaluate[any](p, `(() => {
		const Real = Date, ahead = 3 * 3600e3
		window.Date = class extends Real {
			constructor(...given) { given.length ? super(...given) : super(Real.now() + ahead) }
			static now() { return Real.now() + ahead }
		}
	})()`)
	p.press("play")
	p.see("verdict")
	p.see("all-figures")
	take := h.lastTake(stand)
	assert.WithinDuration(t, time.Now(), take.RecordedAt, time.Hour)
}
