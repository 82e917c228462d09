package e2e_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
	"manudrill/formats/sound"
)

// playerInTheBrowser is somebody before the microphone who plays whatever the stand asks for:
// a WAV for each drill and tempo, whose first sample falls on the first click of the count-in.
// The microphone stays what the browser gives, but what it hears is played into the page's
// own audio clock: however busy the machine is, clicks and notes are as far apart as they
// should be and none is lost. What is played is kept in played, and what the stand said of it
// in said.
const playerInTheBrowser = `(() => {
	window.played = []
	window.said = []
	// What is played is ready before there is a microphone: a busy machine would still decode
	// while the first notes are due.
	const decoder = new OfflineAudioContext(1, 1, 48000)
	const ready = Object.fromEntries(Object.entries(window.sounds ?? {}).map(([name, wav]) => [name,
		decoder.decodeAudioData(Uint8Array.from(atob(wav), (c) => c.charCodeAt(0)).buffer)]))
	const devices = navigator.mediaDevices, microphone = devices.getUserMedia
	devices.getUserMedia = async (...what) => {
		await Promise.all(Object.values(ready))
		return microphone.apply(devices, what)
	}
	const ears = new Map() // what the microphone hears, by whose clock it is heard
	AudioContext.prototype.createMediaStreamSource = function () {
		ears.set(this, this.createGain())
		return ears.get(this)
	}
	// A take begins when a metronome is set up, and ends when that is taken away.
	let due, source
	const pan = AudioContext.prototype.createStereoPanner
	AudioContext.prototype.createStereoPanner = function () {
		const made = pan.call(this), away = made.disconnect
		due = undefined
		made.disconnect = function (...to) {
			source?.stop()
			source = undefined
			return away.apply(this, to)
		}
		return made
	}
	const start = AudioBufferSourceNode.prototype.start
	AudioBufferSourceNode.prototype.start = function (at = 0, ...rest) {
		if (ears.has(this.context) && this.buffer?.duration < 0.1 && !due) void play((due = { context: this.context, at }))
		return start.call(this, at, ...rest)
	}
	async function play(take) {
		const stage = await shown('.stage')
		const name = stage.querySelector('h1').innerText + ' at ' + stage.querySelector('.bpm b').innerText
		played.push(name)
		if (!ready[name]) return
		const buffer = await hear(take.context, name)
		if (take !== due) return
		source = buffer
		const late = Math.max(0, take.context.currentTime - take.at)
		start.call(source, take.at + late, late)
	}
	async function hear(context, name) {
		const buffer = context.createBufferSource()
		buffer.buffer = await ready[name]
		buffer.connect(ears.get(context))
		return buffer
	}
	/** Plays at once, whatever the stand does. */
	window.playNow = async (name) => {
		while (ears.size === 0) await new Promise((resolve) => setTimeout(resolve, 10))
		start.call(await hear([...ears.keys()].at(-1), name))
	}
	const shown = (css) => new Promise((resolve) => {
		const look = () => {
			const found = document.querySelector(css)
			found ? resolve(found) : setTimeout(look, 5)
		}
		look()
	})
	let told = ''
	new MutationObserver(() => {
		const step = document.querySelector('.told .step')?.innerText ?? ''
		if (step && step !== told) said.push(step)
		told = step
	}).observe(document, { childList: true, subtree: true, characterData: true })
})()`

// soundsOf are the drills as a steady player plays them at some tempi, after the count-in.
func soundsOf(t testing.TB, files []drillfile.File, tempi ...float64) string {
	t.Helper()
	all := map[string][]byte{}
	for _, file := range files {
		for _, bpm := range tempi {
			chart, err := file.Drill.Chart(guitar.Standard(), bpm)
			require.NoError(t, err)
			all[soundName(file, bpm)], _ = afterCountIn(steady, chart, 1)
		}
	}
	return inPage(t, all)
}

// steady is somebody who plays a drill well.
var steady = simulate.Player{Seed: 11, ClockMs: 3, MotorMs: 2, SlurDropDB: 1, NoiseDB: -70}

// afterCountIn is a chart as somebody plays it after four beats of silence, as a WAV file
// that goes on for so many seconds after the last note, and what is struck when.
func afterCountIn(p simulate.Player, c chart.Chart, after float64) ([]byte, []simulate.Stroke) {
	strokes := p.Perform(c, 4*60/c.BPM)
	x := p.Render(strokes, simulate.Rate, strokes[len(strokes)-1].T+after)
	return sound.FromMono(simulate.Rate, x).EncodeWAV(), strokes
}

// soundName is what a player's sound of a drill is called.
func soundName(file drillfile.File, bpm float64) string {
	return fmt.Sprintf("%s at %g", file.Drill.Name, bpm)
}

// inPage are sounds as a script has them.
func inPage(t testing.TB, sounds map[string][]byte) string {
	t.Helper()
	raw, err := json.Marshal(sounds) // as base64
	require.NoError(t, err)
	return string(raw)
}

// withPlayer opens a window whose microphone hears the player.
func (h *house) withPlayer(sounds string) page {
	h.t.Helper()
	p := h.open(browser.Window{})
	p.hearsPlayer(sounds)
	return p
}

// plays opens a window before which a drill is played well at its first tempo.
func (h *house) plays(file drillfile.File) page {
	h.t.Helper()
	return h.withPlayer(soundsOf(h.t, []drillfile.File{file}, file.Ladder.StartBPM))
}

// hearsPlayer puts a player before the page's microphone.
func (p page) hearsPlayer(sounds string) {
	p.t.Helper()
	script := "localStorage.setItem('manudrill pause', '1'); window.sounds = " + sounds + ";" + playerInTheBrowser
	p.begins(script)
}
