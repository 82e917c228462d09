//touches: web/src/offline web/src/device web/src/bench device server/hand_in.go server/takes.go
//touches: store/hand_in.go

package e2e_test

import (
	"testing"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/storage"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/e2e/browser"
	"manudrill/store"
)

// cut takes the line to the server away where takes are handed in, or gives it
// back.
func (p page) cut(on bool) {
	p.t.Helper()
	var rules network.SetBlockedURLsParams
	if on {
		rules.URLPatterns = []*network.BlockPattern{{URLPattern: "*://*:*/*takes/*", Block: true}}
	}
	_, err := chromedp.Call(p.ctx, network.Enable, network.EnableParams{})
	require.NoError(p.t, err)
	_, err = chromedp.Call(p.ctx, network.SetBlockedURLs, rules)
	require.NoError(p.t, err)
}

// playWithoutALine plays a take while takes cannot be handed in.
func playWithoutALine(t *testing.T, drill string) page {
	t.Helper()
	h := newHouse(t)
	file := shortDrill(drill)
	stand := h.onTheStand(file)
	p := h.plays(file)
	p.sitDown(stand)
	p.see("judged:here")
	p.cut(true)
	p.press("play")
	p.see("left", "2 of 2")
	p.see("kept-here")
	return p
}

// While the server cannot be reached one plays on; what was played waits, can be
// heard and thrown away, and is handed in by itself once the line is back.
func TestTakesWaitForTheLine(t *testing.T) {
	p := playWithoutALine(t, "Without a line")
	p.see("play")
	assert.False(t, evaluate[bool](p, `document.querySelector('.play').disabled`), "one can play on")
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "2 of 2")
	p.do(chromedp.KeyEvent(" ")) // broken off

	p.do(chromedp.Navigate(p.h.base + "/practice"))
	p.see("unsent:2")
	p.see("unsent-state:broken-off")
	p.reads("Without a line")
	p.press("hear-unsent")
	p.until("it is heard", `document.querySelector('audio')?.duration > 1`)
	p.press("discard:broken-off")
	p.see("unsent:1")
	p.see("undo-it")
	p.press("undo-it")
	p.see("unsent:2")
	p.press("discard:broken-off")
	p.reads("Manudrill cannot be reached", "tried again by itself")

	p.cut(false)
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	p.until("it was handed in", `!document.body.innerText.includes('not handed in yet')`)
	p.do(chromedp.Reload())
	p.see("drill", "1")
}

// The device hears for itself: without a line the verdict is there all the same, and the
// studio's, once the take is handed in, is the same.
func TestTheDeviceJudgesWithoutALine(t *testing.T) {
	p := playWithoutALine(t, "Heard on the device")
	p.see("right-notes", "16")
	p.see("verdict")
	told := `[...document.querySelectorAll('.verdict .reason, .verdict .findings li, .verdict dd')].map(e => e.innerText.trim()).join('|')`
	device := evaluate[string](p, told)
	assert.NotContains(t, p.text("body"), "All figures", "there is no page of it yet")

	p.cut(false)
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	p.see("all-figures")
	assert.Equal(t, device, evaluate[string](p, told))
	assert.NotContains(t, p.text("body"), "a little differently")
}

// Where the core cannot run the take is judged once it is handed in.
func TestADeviceThatCannotHear(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Heard in the studio")
	stand := h.onTheStand(file)
	p := h.plays(file)
	p.begins(`delete window.Worker`)
	p.sitDown(stand)
	p.see("judged:handed in")
	p.press("play")
	p.see("left", "2 of 2")
	p.see("right-notes", "16")
	p.see("verdict")
	p.see("all-figures")
}

// A device without room says so, and the take is handed in all the same.
func TestADeviceWithoutRoom(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("No room")
	stand := h.onTheStand(file)
	p := h.plays(file)
	p.sitDown(stand)
	none := 1.0
	_, err := chromedp.Call(p.ctx, storage.OverrideQuotaForOrigin, storage.OverrideQuotaForOriginParams{Origin: h.base, QuotaSize: &none})
	require.NoError(t, err)
	p.press("play")
	p.reads("There is no room on this device", "leave this page open")
	p.see("right-notes", "16")
	p.see("verdict")
	p.see("all-figures")
	id := h.people[student].ID
	takes, err := h.kept.Takes(h.ctx, nil, &id, store.Page{Limit: 1})
	require.NoError(t, err)
	assert.Equal(t, "No room", takes[0].DrillName)
}

// Of two windows that change one drill, the second is told what the first has
// done, and chooses.
func TestTwoWindowsChangeOneDrill(t *testing.T) {
	h := newHouse(t)
	h.onTheStand(shortDrill("In two windows"))
	first, second := h.open(browser.Window{}), h.open(browser.Window{})
	for _, p := range []page{first, second} {
		p.enter(instructor)
		p.press("drill:In two windows")
		p.see("notes-a-pass", "8")
	}
	first.fill("position", "9")
	first.press("save")
	first.see("version", "2")
	second.pick("notes-per-beat", "3")
	second.press("save")
	second.see("conflict")
	second.reads("The two differ in: place and path, rhythm")
	second.press("decide-later")
	second.press("save")
	second.press("save-over")
	second.see("version", "3")

	first.fill("position", "3")
	first.press("save")
	first.see("conflict")
	first.press("take-saved")
	first.until("theirs lies on the bench", `!document.querySelector('[role=dialog]') && document.querySelector('[data-test=position]').value !== '3'`)
	first.press("undo")
	first.until("one's own can be had back", `document.querySelector('[data-test=position]').value === '3'`)
	first.press("save")
	first.see("version", "4")
}
