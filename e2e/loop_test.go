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
	p.see("No drill yet", "Make the first drill")
	p.press("New drill")
	p.see("20 notes a pass", "not saved yet")

	p.fill("Name of the drill", "Pairs and triples")
	p.pressLabelled("Leave out 12, number 1")
	p.pressLabelled("Add fingers 234")
	p.pick("Slurs", "both")
	p.fill("Position", "5")
	p.see("50 notes a pass", "mm, lowest to highest fret")
	assert.Equal(t, 50, p.count(".tab text.fret"), "the tablature shows every note")
	assert.Equal(t, 18, p.count(".neck .place"), "three places on each string")
	p.pick("Notes per beat", "3")
	p.see("starts on the click again after 3 passes, 150 notes", "Add 1 note to close with the beat", "Leave out 2 notes")
	p.press("Save")
	p.see("version 1", "Assign")

	p.press("Assign")
	p.tick(student)
	p.press("Assign to 1 student")
	p.see("Withdraw")
	p.click(`.el-dialog__headerbtn`)

	p.enterByTheDoor(student)
	p.see("Pairs and triples", "60 bpm", "Not played yet")
	p.press("Put on the stand")
	p.see("50 notes a pass")
	// The page below moves until the staff has its type: the summary itself is told.
	evaluate[any](p, `[...document.querySelectorAll('summary')].find(s => s.innerText.includes('Try it out')).click()`)
	p.see("Unevenness: 8 ms")
	p.press("Let it play")
	p.see("Up to 64", "2 clean passes in a row", "Timing spread", "100 of 100", "Pass 2", "heard as early or late")
	assert.Equal(t, 100, p.count(".verdict .mark"), "every note is on the time line")

	p.press("All figures, and listen to it")
	p.see("Every note", "From finger to finger", "Passes under one another", "Tempo held", "notes/s")
	assert.Positive(t, p.count("table tbody tr"))
	p.see("0:00 / 0:") // the sound has been loaded
	p.pressLabelled("What is timing spread?")
	p.see("standard deviation of their distance")
	p.click(`.mark[aria-label]`)
	p.pressLabelled("Pause") // it plays from the note

	p.press("All takes of this drill")
	p.see("1 take, now at 64 bpm", "simulated, demo")
	p.do(chromedp.WaitVisible(chromedp.CSS(`.chart canvas`)))
	p.do(chromedp.Reload())
	p.see("1 take, now at 64 bpm")

	p.enterByTheDoor(instructor)
	p.see("Pairs and triples", student)
	p.press("Students")
	p.see("64 bpm", "Latest takes", "Up to 64")
}

func TestDrillsAreOpenedChangedCopiedAndDeleted(t *testing.T) {
	h := newHouse(t)
	h.onTheStand(shortDrill("To be changed"))
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.press("To be changed")
	p.see("8 notes a pass")
	p.fill("Position", "9")
	p.see("changed, not saved")
	p.press("Save")
	p.see("version 2", "Assign") // the first one lies on a stand
	p.press("Drills")
	p.see("Position 9, strings 4 to 1")
	p.more("To be changed", "Copy")
	p.until("the copy is on the list", `[...document.querySelectorAll('article')].some(a => a.innerText.includes('(copy)'))`)
	p.more("To be changed (copy)", "Delete")
	const listed = `[...document.querySelectorAll('article')].some(a => a.innerText.includes('(copy)'))`
	p.until("the copy is off the list", "!"+listed)

	// What is deleted can be had back at once, and later from the bin.
	p.click(`.undoable .undo`)
	p.until("the copy is back", listed)
	p.more("To be changed (copy)", "Delete")
	p.until("the copy is off the list again", "!"+listed)
	p.press("Bin")
	p.see("drill deleted")
	p.pressLabelled("Bring back To be changed (copy)")
	p.see("Nothing was deleted or withdrawn lately")
	p.press("All ")
	p.until("the copy is back from the bin", listed)
}
