package e2e_test

import (
	"encoding/json"
	"fmt"
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
	let playing = false, told = ''
	setInterval(async () => {
		const stage = document.querySelector('.stage')
		const step = document.querySelector('.told .step')?.innerText ?? ''
		if (step && step !== told) said.push(step)
		told = step
		if (!stage) return (playing = false)
		if (playing || !stage.querySelector('.beats .on')) return
		playing = true
		const name = stage.querySelector('h1').innerText + ' at ' + stage.querySelector('.bpm b').innerText
		const wav = sounds[name]
		played.push(name)
		if (!wav) return
		const raw = Uint8Array.from(atob(wav), (c) => c.charCodeAt(0))
		const source = ctx.createBufferSource()
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
func onRoutine(t *testing.T, r practice.Routine, files ...drillfile.File) (path string, assignments []uuid.UUID) {
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
	script := "localStorage.setItem('manudrill pause', '1'); window.sounds = " + sounds + ";" + playerInTheBrowser
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: script})
	require.NoError(t, err)
	return p
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
	p.see("Up to 130")
	p.cut(true)
	p.see("take 2 of 2", "Up to 140", "Let both arms hang.", "Then Routine, the second, 120 bpm")
	p.see("Then Routine, the first, 140 bpm")
	p.see("Done.")
	assert.Equal(t, []string{a.Drill.Name + " at 120", a.Drill.Name + " at 130", b.Drill.Name + " at 120", a.Drill.Name + " at 140"}, evaluate[[]string](p, `played`))
	said := evaluate[[]string](p, `said`)
	assert.Equal(t, []string{"Up to 130", "Up to 140", "Up to 130", "Up to 150"}, said)

	p.cut(false)
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	p.press("Back to practice")
	p.until("all is handed in", `!document.body.innerText.includes('not handed in')`)
	ctx := storetest.In(t.Context())
	for i, want := range []float64{150, 130} {
		require.Eventually(t, func() bool {
			stand, err := kept.Stand(ctx, assignments[i])
			return err == nil && stand.Rung.BPM == want && stand.Takes == []int{3, 1}[i]
		}, patience, 100*time.Millisecond, "the studio comes to the same")
	}
}
