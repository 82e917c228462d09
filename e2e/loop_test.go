//touches: web/src/views/door web/src/views/drills web/src/session.ts web/src/router.ts
//touches: web/src/App.vue web/src/main.ts web/src/api server store core formats api device

package e2e_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"

	"manudrill/e2e/browser"
)

// The whole loop by hand: make a drill, assign it, play it, see what was
// measured, find all of it again.
func TestFromADrillToAMeasuredTake(t *testing.T) {
	h := newHouse(t)
	p := h.open(browser.Window{})
	p.enterByTheDoor(instructor)
	p.see("no-drills")
	p.see("new-drill")
	p.press("new-drill")
	p.see("notes-a-pass", "20")
	p.see("drill-state:new")

	p.fill("drill-name", "Pairs and triples")
	p.press("leave-out:12")
	p.press("add-fingers:234")
	p.pick("slur", "both")
	p.fill("position", "5")
	p.see("notes-a-pass", "50")
	p.see("reach-mm")
	assert.Equal(t, 50, p.count(".tab text.fret"), "the tablature shows every note")
	assert.Equal(t, 18, p.count(".neck .place"), "three places on each string")
	p.pick("notes-per-beat", "3")
	p.see("remark:cycle", "3", "150")
	p.see("mend:cycle", "1")
	p.see("mend:cycle", "2")
	p.press("save")
	p.see("version", "1")
	p.see("assign")

	p.press("assign")
	p.press("assign-to:" + student)
	p.press("assign-now")
	p.see("withdraw")
	p.escape()

	p.enterByTheDoor(student)
	p.see("drill:Pairs and triples", "60")
	p.press("put-on-stand")
	p.see("notes-a-pass", "50")
	// The page below moves until the staff has its type: the summary itself is told.
	p.press("try-out")
	p.reads("Unevenness: 8 ms")
	p.press("let-it-play")
	p.see("verdict")
	p.see("right-notes", "100", "of 100")
	p.see("verdict:up", "64", "2")
	assert.Equal(t, 100, p.count(".verdict .mark"), "every note is on the time line")

	p.press("all-figures")
	p.see("every-note")
	p.see("transitions")
	p.see("passes")
	assert.Positive(t, p.count("table tbody tr"))
	p.see("sound-at") // the sound has been loaded
	p.press("explain:Timing spread")
	p.reads("standard deviation of their distance")
	p.click(`.mark[aria-label]`)
	p.press("sound:playing") // it plays from the note

	p.press("all-takes")
	p.see("where-it-stands", "1", "64")
	p.reads("simulated, demo")
	p.do(chromedp.WaitVisible(chromedp.CSS(`.chart canvas`)))
	p.do(chromedp.Reload())
	p.see("where-it-stands", "1", "64")

	p.enterByTheDoor(instructor)
	p.reads("Pairs and triples", student)
	p.press("goto:/students")
	p.see("latest-takes")
	p.reads("64 bpm")
}

func TestDrillsAreOpenedChangedCopiedAndDeleted(t *testing.T) {
	h := newHouse(t)
	h.onTheStand(shortDrill("To be changed"))
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.press("drill:To be changed")
	p.see("notes-a-pass", "8")
	p.fill("position", "9")
	p.see("drill-state:changed")
	p.press("save")
	p.see("version", "2")
	p.see("assign") // the first one lies on a stand
	p.press("goto:/drills")
	p.reads("Position 9, strings 4 to 1")
	p.more("To be changed", "copy")
	p.until("the copy is on the list", `[...document.querySelectorAll('article')].some(a => a.innerText.includes('(copy)'))`)
	p.more("To be changed (copy)", "delete")
	const listed = `[...document.querySelectorAll('article')].some(a => a.innerText.includes('(copy)'))`
	p.until("the copy is off the list", "!"+listed)

	// What is deleted can be had back at once, and later from the bin.
	p.press("undo-it")
	p.until("the copy is back", listed)
	p.more("To be changed (copy)", "delete")
	p.until("the copy is off the list again", "!"+listed)
	p.press("shelf:bin")
	p.see("undo-it")
	p.press("bring-back:To be changed (copy)")
	p.see("nothing-deleted")
	p.press("shelf:all")
	p.until("the copy is back from the bin", listed)
}
