package e2e_test

import (
	"testing"

	"github.com/chromedp/cdproto/network"
	cdppage "github.com/chromedp/cdproto/page"
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
	p.see("A take is judged on this device as soon as it ends.")
	p.cut(true)
	p.press("Play")
	p.see("pass 2 of 2", "Manudrill cannot be reached. The take is kept on this device")
	return p
}

// While the server cannot be reached one plays on; what was played waits, can be
// heard and thrown away, and is handed in by itself once the line is back.
func TestTakesWaitForTheLine(t *testing.T) {
	p := playWithoutALine(t, "Without a line")
	p.see("or press space")
	assert.False(t, evaluate[bool](p, `document.querySelector('.play').disabled`), "one can play on")
	p.do(chromedp.KeyEvent(" "))
	p.see("pass 2 of 2")
	p.do(chromedp.KeyEvent(" ")) // broken off

	p.do(chromedp.Navigate(p.h.base + "/practice"))
	p.see("2 recordings on this device are not handed in yet", "Without a line", "was broken off")
	p.press("Hear")
	p.until("it is heard", `document.querySelector('audio')?.duration > 1`)
	evaluate[any](p, `[...document.querySelectorAll('li')].find(l => l.innerText.includes('broken off')).querySelector('button:last-child').click()`)
	p.see("1 recording on this device is not handed in yet", "Recording discarded")
	p.click(`.undoable .undo`)
	p.see("2 recordings on this device are not handed in yet")
	evaluate[any](p, `[...document.querySelectorAll('li')].find(l => l.innerText.includes('broken off')).querySelector('button:last-child').click()`)
	p.see("Manudrill cannot be reached", "tried again by itself")

	p.cut(false)
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	p.until("it was handed in", `!document.body.innerText.includes('not handed in yet')`)
	p.do(chromedp.Reload())
	p.see("1 take, last")
}

// The device hears for itself: without a line the verdict is there all the same, and the
// studio's, once the take is handed in, is the same.
func TestTheDeviceJudgesWithoutALine(t *testing.T) {
	p := playWithoutALine(t, "Heard on the device")
	p.see("of 16", "Timing spread")
	told := `[...document.querySelectorAll('.verdict .reason, .verdict .findings li, .verdict dd')].map(e => e.innerText.trim()).join('|')`
	device := evaluate[string](p, told)
	assert.NotContains(t, p.text("body"), "All figures", "there is no page of it yet")

	p.cut(false)
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	p.see("All figures, and listen to it")
	assert.Equal(t, device, evaluate[string](p, told))
	assert.NotContains(t, p.text("body"), "a little differently")
}

// Where the core cannot run the take is judged once it is handed in.
func TestADeviceThatCannotHear(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Heard in the studio")
	stand := h.onTheStand(file)
	p := h.plays(file)
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: `delete window.Worker`})
	require.NoError(t, err)
	p.sitDown(stand)
	p.see("A take is judged once it is handed in")
	p.press("Play")
	p.see("pass 2 of 2", "of 16", "Timing spread", "All figures, and listen to it")
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
	p.press("Play")
	p.see("There is no room on this device", "leave this page open")
	p.see("of 16", "Timing spread", "All figures, and listen to it")
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
		p.press("In two windows")
		p.see("8 notes a pass")
	}
	first.fill("Position", "9")
	first.press("Save")
	first.see("version 2")
	second.pick("Notes per beat", "3")
	second.press("Save")
	second.see("This drill was changed meanwhile", "The two differ in: place and path, rhythm")
	second.press("Decide later")
	second.press("Save")
	second.press("Save mine over it")
	second.see("version 3")

	first.fill("Position", "3")
	first.press("Save")
	first.see("This drill was changed meanwhile")
	first.press("Take what is saved")
	first.until("theirs lies on the bench", `!document.querySelector('.el-dialog') && document.querySelector('input[aria-label="Position"], [aria-label="Position"] input').value !== '3'`)
	first.pressLabelled("Undo")
	first.until("one's own can be had back", `document.querySelector('input[aria-label="Position"], [aria-label="Position"] input').value === '3'`)
	first.press("Save")
	first.see("version 4")
}
