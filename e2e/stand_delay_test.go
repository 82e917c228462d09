//touches: web/src/audio web/src/views/stand

package e2e_test

import (
	"regexp"
	"strconv"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
)

// echo is a microphone that hears what the loudspeaker plays, 150 ms later, by the page's own
// audio clock.
const echo = `(() => {
	const connect = AudioNode.prototype.connect
	const ears = new Map()
	const earOf = (ctx) => {
		if (!ears.has(ctx)) {
			const ear = ctx.createDelay(1)
			ear.delayTime.value = 0.15
			ears.set(ctx, ear)
		}
		return ears.get(ctx)
	}
	AudioContext.prototype.createMediaStreamSource = function () { return earOf(this) }
	AudioNode.prototype.connect = function (to, ...rest) {
		if (to === this.context.destination && this.context instanceof AudioContext) connect.call(this, earOf(this.context))
		return connect.call(this, to, ...rest)
	}
})()`

// A quarter of a minute of clicks finds how late the device is, and from then on a take says
// whether it was ahead of the click. Before that it does not.
func TestTheDelayOfTheDeviceIsMeasured(t *testing.T) {
	h := newHouse(t)
	p := h.open(browser.Window{})
	p.begins(echo)
	p.enterAt(student, "/delay")
	p.see("measure")
	p.press("measure")
	p.see("delay-found")
	p.see("delay-kept")
	p.see("delay-found", "16")
	found := regexp.MustCompile(`Found: (\d+) ms`).FindStringSubmatch(p.text("main"))
	require.Len(t, found, 2)
	t.Log("found", found[1], "ms")
	ms, err := strconv.Atoi(found[1])
	require.NoError(t, err)
	assert.InDelta(t, 150, ms, 3, "to half of what the ear notices")
}

// A take is handed in with the time of its click, so that the studio says the same.
func TestATakeKnowsWhenItWasClicked(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Ahead of the click")
	stand := h.onTheStand(file)
	p := h.withPlayer(soundsOf(t, []drillfile.File{file}, 120, 130))
	p.enter(student)
	evaluate[any](p, `localStorage.setItem('manudrill delays', JSON.stringify({ '': { seconds: 7, at: '2026-01-01T00:00:00Z' } }))`)
	p.do(chromedp.Navigate(h.base + stand))
	p.see("judged:here")
	p.do(chromedp.KeyEvent(" "))
	p.until("it is judged", `document.querySelector('.verdict .step, .verdict') !== null`)
	p.see("all-figures")
	take := h.lastTake(stand)
	full, err := h.kept.Take(h.ctx, take.ID)
	require.NoError(t, err)
	require.NotNil(t, full.Chart.ClickAt, "where it was clicked is handed in")
	require.NotNil(t, full.Analysis.Pulse.ClickMs)
	// How late the player of the tests is hangs on the machine, so that a delay is said that
	// no machine has: four beats that count in, and then it.
	assert.InDelta(t, 4*60.0/120+7, *full.Chart.ClickAt, 1.5, "it is clicked in the recording when the device has clicked, and its delay later")
	p.press("all-figures")
	p.see("more-figures")
}
