package e2e_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/core/practice"
	"manudrill/core/simulate"
	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
	"manudrill/formats/sound"
	"manudrill/store"
	"manudrill/storetest"
)

// playerInTheBrowser is a microphone in front of somebody who plays whatever the stand
// asks for: a WAV for each drill and tempo, begun when the count-in begins. What is played
// it keeps in played, and what the stand said of it in said.
const playerInTheBrowser = `(() => {
	let ctx, out
	window.played = []
	window.said = []
	window.sounds ??= {}
	navigator.mediaDevices.getUserMedia = async () => {
		ctx ??= new AudioContext()
		await ctx.resume()
		out ??= ctx.createMediaStreamDestination()
		return out.stream.clone()
	}
	let playing = false, told = '', source
	setInterval(async () => {
		const stage = document.querySelector('.stage')
		const step = document.querySelector('.told .step')?.innerText ?? ''
		if (step && step !== told) said.push(step)
		told = step
		if (!stage) {
			source?.stop() // who is held stops playing
			source = undefined
			return (playing = false)
		}
		if (playing || !stage.querySelector('.beats .on')) return
		playing = true
		const name = stage.querySelector('h1').innerText + ' at ' + stage.querySelector('.bpm b').innerText
		const wav = sounds[name]
		played.push(name)
		if (!wav) return
		const raw = Uint8Array.from(atob(wav), (c) => c.charCodeAt(0))
		source = ctx.createBufferSource()
		source.buffer = await ctx.decodeAudioData(raw.buffer)
		source.connect(out)
		source.start()
	}, 15)
})()`

// soundsOf are the drills as a steady player plays them at some tempi, after the count-in.
func soundsOf(t *testing.T, files []drillfile.File, tempi ...float64) string {
	t.Helper()
	all := map[string][]byte{}
	for _, file := range files {
		for _, bpm := range tempi {
			chart, err := file.Drill.Chart(guitar.Standard(), bpm)
			require.NoError(t, err)
			p := simulate.Player{Seed: 11, ClockMs: 3, MotorMs: 2, SlurDropDB: 1, NoiseDB: -70}
			strokes := p.Perform(chart, 4*60/bpm)
			x := p.Render(strokes, simulate.Rate, strokes[len(strokes)-1].T+1)
			all[fmt.Sprintf("%s at %g", file.Drill.Name, bpm)] = sound.FromMono(simulate.Rate, x).EncodeWAV()
		}
	}
	raw, err := json.Marshal(all) // the sounds as base64
	require.NoError(t, err)
	return string(raw)
}

// onRoutine gives the student some drills and a routine of them, and returns its path.
func onRoutine(t testing.TB, r practice.Routine, files ...drillfile.File) (path string, assignments []uuid.UUID) {
	t.Helper()
	ctx := storetest.In(t.Context())
	var drills []uuid.UUID
	for _, file := range files {
		id := uuid.New()
		require.NoError(t, kept.AddDrill(ctx, id, file, store.Shelf{}))
		drills = append(drills, id)
		for i := range r.Items {
			if r.Items[i].Drill == file.Drill.Name {
				r.Items[i].Drill = id.String()
			}
		}
	}
	id := uuid.New()
	require.NoError(t, kept.PutRoutine(ctx, id, people[student].ID, 0, r, drills))
	stands, err := kept.StandsOf(ctx, people[student].ID, drills)
	require.NoError(t, err)
	for _, d := range drills {
		for _, s := range stands {
			if s.DrillID == d {
				assignments = append(assignments, s.ID)
			}
		}
	}
	return "/routines/" + id.String(), assignments
}

func takesOf(drill string, n int) practice.Item {
	return practice.Item{Kind: practice.Play, Drill: drill, Enough: &practice.Enough{By: practice.ByTakes, Count: n}}
}

// withPlayer opens a browser whose microphone hears the player.
func withPlayer(t *testing.T, sounds string) page {
	t.Helper()
	p := open(t, browser.Options{})
	p.hearsPlayer(sounds)
	return p
}

// hearsPlayer puts a player before the page's microphone.
func (p page) hearsPlayer(sounds string) {
	p.t.Helper()
	script := "localStorage.setItem('manudrill pause', '1'); window.sounds = " + sounds + ";" + playerInTheBrowser
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: script})
	require.NoError(p.t, err)
}

// One key, and six items run by themselves: a note, takes, rests, another drill, each
// on the rung that the ladder says by then. In the middle the line is gone; nobody is
// stopped, and once it is back every take is handed in and judged as it was here.
func TestARoutineRunsByOneKey(t *testing.T) {
	a, b := shortDrill("Routine, the first"), shortDrill("Routine, the second")
	path, assignments := onRoutine(t, practice.Routine{Name: "By one key", Note: "Slowly.", Items: []practice.Item{
		{Kind: practice.Note, Seconds: 5, Text: "Shoulders down."}, takesOf(a.Drill.Name, 2),
		{Kind: practice.Rest, Seconds: 5, Text: "Let both arms hang."}, takesOf(b.Drill.Name, 1),
		{Kind: practice.Rest, Seconds: 5}, takesOf(a.Drill.Name, 1),
	}}, a, b)
	p := withPlayer(t, soundsOf(t, []drillfile.File{a, b}, 120, 130, 140, 150))
	p.enter(student)
	p.do(chromedp.Navigate(base + path))
	p.see("By one key", "Slowly.", "Takes are judged on this device as soon as they end.")

	p.do(chromedp.KeyEvent(" "))
	p.see("Shoulders down.", "Then Routine, the first, 120 bpm")
	p.see("take 1 of 2")
	p.until("the first take is judged", `said.length === 1`)
	p.cut(true)
	p.see("take 2 of 2", "Let both arms hang.", "Then Routine, the second, 120 bpm")
	p.until("the third take is judged", `said.length === 3`)
	p.see("Then Routine, the first")
	p.see("Done.", "How much effort was it?")
	p.do(chromedp.KeyEvent("6"))
	p.see("Kept. Your instructor sees it as soon as there is a line.")

	// The browser's stand-in for a microphone may lose a note where the machine is busy, so
	// which way each take led is not known; but each leads to the next, and the last ones to
	// where the studio comes to.
	said := evaluate[[]string](p, `said`)
	require.Len(t, said, 4)
	assert.Contains(t, said, "Up to 130")
	to := func(take int) string { return said[take][strings.LastIndex(said[take], " ")+1:] }
	first, second := a.Drill.Name+" at ", b.Drill.Name+" at "
	assert.Equal(t, []string{first + "120", first + to(0), second + "120", first + to(1)}, evaluate[[]string](p, `played`))

	p.cut(false)
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	p.press("Back to practice")
	p.until("all is handed in", `!document.body.innerText.includes('not handed in')`)
	ctx := storetest.In(t.Context())
	for i, want := range []string{to(3), to(2)} {
		require.Eventually(t, func() bool {
			stand, err := kept.Stand(ctx, assignments[i])
			return err == nil && fmt.Sprint(stand.Rung.BPM) == want && stand.Takes == []int{3, 1}[i]
		}, patience, 100*time.Millisecond, "the studio comes to the same")
	}
	require.Eventually(t, func() bool {
		reports, err := kept.HandReports(ctx, people[student].ID, store.Page{})
		return err == nil && len(reports) > 0 && reports[0].Report.Value.Effort == 6
	}, patience, 100*time.Millisecond)
}

// It hurts: everything stops, the instructor sees it before all else, and no ladder climbs
// until they say so.
func TestItHurts(t *testing.T) {
	file := shortDrill("It hurts")
	path, _ := onRoutine(t, practice.Routine{Name: "Until it hurts", Items: []practice.Item{takesOf(file.Drill.Name, 3)}}, file)
	p := withPlayer(t, soundsOf(t, []drillfile.File{file}, 120))
	p.enter(student)
	p.do(chromedp.Navigate(base + path))
	p.see("Takes are judged on this device")
	p.do(chromedp.KeyEvent(" "))
	p.see("take 1 of 3")
	p.do(chromedp.KeyEvent("t"))
	p.see("Rest, and shake out")
	p.do(chromedp.KeyEvent("n"))
	p.see("take 1 of 3")
	p.do(chromedp.KeyEvent("h"))
	p.see("Stop for today.", "see a doctor or hand therapist", "Your instructor is told, as soon as there is a line.")
	p.press("wrist")
	p.do(chromedp.Navigate(base + "/practice"))
	p.see("You have reported pain")
	p.enter(instructor)
	p.do(chromedp.Navigate(base + "/students"))
	p.see("Reported pain")
	p.do(chromedp.Click(chromedp.Search(`//td/a[normalize-space(.) = "` + student + `"]`)))
	p.press("What their hand says")
	p.see("has reported pain.", "it hurts: wrist")
	p.press("Let the ladders climb again")
	p.see("cleared by")
}

// A call comes in, or the device sleeps: the routine waits, what was played is kept, and
// one key goes on.
func TestACallInTheMiddle(t *testing.T) {
	file := shortDrill("A call in the middle")
	path, _ := onRoutine(t, practice.Routine{Name: "Interrupted", Items: []practice.Item{takesOf(file.Drill.Name, 1)}}, file)
	p := withPlayer(t, soundsOf(t, []drillfile.File{file}, 120))
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: `(() => {
		const Real = AudioContext
		window.contexts = []
		window.AudioContext = function (...args) { const c = new Real(...args); contexts.push(c); return c }
		window.AudioContext.prototype = Real.prototype
	})()`})
	require.NoError(t, err)
	p.enter(student)
	p.do(chromedp.Navigate(base + path))
	p.see("Takes are judged on this device")
	p.do(chromedp.KeyEvent(" "))
	p.see("take 1 of 1")
	p.until("notes are due", `document.querySelector('.stage .now') !== null`)
	evaluate[any](p, `Promise.all(contexts.map((c) => c.suspend()))`)
	p.see("The sound was interrupted", "What was played until then is kept", "Go on")
	evaluate[any](p, `Promise.all(contexts.map((c) => c.resume()))`) // the call is over
	p.do(chromedp.KeyEvent(" "))
	p.see("take 1 of 1")
	p.until("it is judged", `said.length === 1`)
	p.see("Done.")
	p.press("Back to practice")
	p.see("was broken off")
}
