//touches: web/src/audio

package e2e_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/e2e/browser"
)

// clicksHanded notes what is handed to the audio clock, so that it can be rendered.
const clicksHanded = `(() => {
	window.handed = []
	window.noted = true
	const start = AudioBufferSourceNode.prototype.start
	AudioBufferSourceNode.prototype.start = function (at, ...rest) {
		if (noted && this.buffer?.duration < 0.1) handed.push({ at, samples: this.buffer.getChannelData(0), rate: this.buffer.sampleRate })
		return start.call(this, at, ...rest)
	}
})()`

// rendered renders what was handed over, as this browser's audio does, and tells when each
// click begins, in s: where the sound leaves silence. It is rendered some clicks at a time,
// each with so much silence before it as it had.
const rendered = `(async () => {
	noted = false
	const { rate } = handed[0]
	const begins = []
	for (let first = 0; first < handed.length; first += 32) {
		const some = handed.slice(first, first + 32)
		const from = some[0].at - 0.1
		const ctx = new OfflineAudioContext(1, Math.ceil((some.at(-1).at - from + 1) * rate), rate)
		for (const { at, samples } of some) {
			const source = ctx.createBufferSource()
			source.buffer = ctx.createBuffer(1, samples.length, rate)
			source.buffer.copyToChannel(samples, 0)
			source.connect(ctx.destination)
			source.start(at - from)
		}
		const x = (await ctx.startRendering()).getChannelData(0)
		let silent = 1e9
		for (let i = 0; i < x.length; i++) {
			if (Math.abs(x[i]) > 1e-3) {
				if (silent > 0.05 * rate) begins.push(from + i / rate)
				silent = 0
			} else silent++
		}
	}
	return begins
})()`

// Over ten minutes no click is more than a millisecond from its place, as measured in the
// sound that the browser renders.
func TestClicksStayInPlaceForTenMinutes(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Ten minutes of clicks")
	file.Ladder.StartBPM, file.Ladder.TargetBPM = 97, 160 // no whole number of samples
	file.Drill.Pattern = drill.SlurCombinations{Combinations: [][]int{{1, 2, 3, 4}}, Slur: drill.HammerOns}
	file.Drill.Path.Strings = []int{6, 5, 4, 3, 2, 1}
	file.Drill.Path.Stay, file.Drill.Rhythm.Passes = drill.Stay{Count: 2, Unit: drill.Times}, 40 // of 24 beats: 9.9 minutes
	stand := h.onTheStand(file)
	p := h.open(browser.Window{})
	p.begins(clicksHanded)
	p.enterAt(student, stand)
	p.see("notes-a-pass", "48")
	p.press("play")
	p.see("left", "1 of 40")
	p.press("stop")
	begins := evaluate[[]float64](p, rendered)
	require.Len(t, begins, 4+40*24)
	var off []float64
	for i, at := range begins {
		off = append(off, 1000*math.Abs(at-begins[0]-float64(i)*60/97))
	}
	t.Logf("%d clicks over %.1f minutes; at most %.3f ms from their place", len(begins), begins[len(begins)-1]/60, slices.Max(off))
	assert.Less(t, slices.Max(off), 1.0)
}
