package e2e_test

import (
	"slices"
	"testing"

	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/core/practice"
	"manudrill/core/simulate"
	"manudrill/e2e/browser"
)

// markWatch notes when each note sounded, and when the screen first showed what became of
// it.
const markWatch = `(() => {
	window.shown = {}
	const watch = new MutationObserver(() => {
		for (const g of document.querySelectorAll('.stage g[data-note]'))
			if (!(g.dataset.note in shown) && /inTime|early|late|wrong|missed/.test(g.getAttribute('class') ?? '')) {
				const note = g.dataset.note
				shown[note] = 0
				requestAnimationFrame(() => (shown[note] = performance.now()))
			}
	})
	addEventListener('DOMContentLoaded', () => watch.observe(document.body, { subtree: true, childList: true, attributes: true, attributeFilter: ['class'] }))
	const start = AudioBufferSourceNode.prototype.start
	AudioBufferSourceNode.prototype.start = function (at, from = 0) {
		if (this.buffer?.duration > 1) window.begun = performance.now() + 1000 * (at - from - this.context.currentTime)
		return start.call(this, at, from)
	}
})();`

// BenchmarkFromSoundToMark plays a drill into a stand of the real browser and measures
// how long after each note's sound the screen marks it.
func BenchmarkFromSoundToMark(b *testing.B) {
	h := houseAlone(b)
	file := shortDrill("From sound to mark")
	file.Drill.Rhythm.Passes = 6
	chart, err := file.Drill.Chart(guitar.Standard(), 120)
	require.NoError(b, err)
	p := simulate.Player{Seed: 11, ClockMs: 2, MotorMs: 2, SlurDropDB: 1, NoiseDB: -70}
	wav, strokes := afterCountIn(p, chart, 1)
	sounds := inPage(b, map[string][]byte{soundName(file, 120): wav})
	var delays []float64
	for b.Loop() {
		path, _ := h.onRoutine(practice.Routine{Name: "Bench", Items: []practice.Item{takesOf(file.Drill.Name, 1)}}, file)
		tab := h.open(browser.Window{})
		_, err = chromedp.Call(tab.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{
			Source: "window.sounds = " + sounds + ";" + markWatch + playerInTheBrowser,
		})
		require.NoError(b, err)
		tab.enterAt(student, path)
		tab.see("judged:here")
		tab.do(chromedp.KeyEvent(" "))
		tab.see("over")
		begun := evaluate[float64](tab, `begun`)
		shown := evaluate[map[int]float64](tab, `shown`)
		for _, s := range strokes {
			// The first notes are marked once it is known where the player is.
			if at := shown[s.Index]; at > 0 && s.Index >= 8 {
				delays = append(delays, at-begun-1000*s.T)
			}
		}
	}
	require.NotEmpty(b, delays)
	slices.Sort(delays)
	b.ReportMetric(float64(len(delays)), "marks")
	b.ReportMetric(delays[len(delays)/2], "ms-median")
	b.ReportMetric(delays[len(delays)*95/100], "ms-95th")
	b.ReportMetric(delays[len(delays)-1], "ms-most")
}
