//touches: web/src/views/routine web/src/views/practice server/routines.go server/hand.go
//touches: store/routines.go store/hand.go

package e2e_test

import (
	"testing"
	"time"

	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/practice"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// onRoutine gives the student some drills and a routine of them, and returns its path.
func (h *house) onRoutine(r practice.Routine, files ...drillfile.File) (path string, assignments []uuid.UUID) {
	t, ctx := h.t, h.ctx
	t.Helper()
	var drills []uuid.UUID
	for _, file := range files {
		id := uuid.New()
		require.NoError(t, h.kept.AddDrill(ctx, id, file, store.Shelf{}))
		drills = append(drills, id)
		for i := range r.Items {
			if r.Items[i].Drill == file.Drill.Name {
				r.Items[i].Drill = id.String()
			}
		}
	}
	id := uuid.New()
	require.NoError(t, h.kept.PutRoutine(ctx, id, h.people[student].ID, 0, r, drills))
	stands, err := h.kept.StandsOf(ctx, h.people[student].ID, drills)
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

// One key, and six items run by themselves: a note, takes, rests, another drill, each
// on the rung that the ladder says by then. In the middle the line is gone; nobody is
// stopped, and once it is back every take is handed in and judged as it was here.
func TestARoutineRunsByOneKey(t *testing.T) {
	h := newHouse(t)
	a, b := shortDrill("Routine, the first"), shortDrill("Routine, the second")
	path, assignments := h.onRoutine(practice.Routine{Name: "By one key", Note: "Slowly.", Items: []practice.Item{
		{Kind: practice.Note, Seconds: 5, Text: "Shoulders down."}, takesOf(a.Drill.Name, 2),
		{Kind: practice.Rest, Seconds: 5, Text: "Let both arms hang."}, takesOf(b.Drill.Name, 1),
		{Kind: practice.Rest, Seconds: 5}, takesOf(a.Drill.Name, 1),
	}}, a, b)
	p := h.withPlayer(soundsOf(t, []drillfile.File{a, b}, 120, 130, 140, 150))
	p.enterAt(student, path)
	p.see("judged:here")
	p.reads("By one key", "Slowly.")

	p.do(chromedp.KeyEvent(" "))
	p.reads("Shoulders down.")
	p.see("rest", "Routine, the first", "120")
	p.see("left", "1 of 2")
	p.until("the first take is judged", `said.length === 1`)
	p.cut(true)
	p.see("left", "2 of 2")
	p.reads("Let both arms hang.")
	p.see("rest", "Routine, the second", "120")
	p.until("the third take is judged", `said.length === 3`)
	p.see("rest", "Routine, the first")
	p.see("over")
	p.see("after")
	p.do(chromedp.KeyEvent("6"))
	p.see("effort-kept")

	assert.Equal(t, []string{"Up to 130", "Up to 140", "Up to 130", "Up to 150"}, evaluate[[]string](p, `said`))
	assert.Equal(t, []string{soundName(a, 120), soundName(a, 130), soundName(b, 120), soundName(a, 140)}, evaluate[[]string](p, `played`))

	p.cut(false)
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	p.press("back-to-practice")
	p.until("all is handed in", `!document.body.innerText.includes('not handed in')`)
	ctx := h.ctx
	for i, want := range []float64{150, 130} {
		require.Eventually(t, func() bool {
			stand, err := h.kept.Stand(ctx, assignments[i])
			return err == nil && stand.Rung.BPM == want && stand.Takes == []int{3, 1}[i]
		}, patience, 100*time.Millisecond, "the studio comes to the same")
	}
	require.Eventually(t, func() bool {
		reports, err := h.kept.HandReports(ctx, h.people[student].ID, store.Page{})
		return err == nil && len(reports) > 0 && reports[0].Report.Value.Effort == 6
	}, patience, 100*time.Millisecond)
}

// It hurts: everything stops, the instructor sees it before all else, and no ladder climbs
// until they say so.
func TestItHurts(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("It hurts")
	path, _ := h.onRoutine(practice.Routine{Name: "Until it hurts", Items: []practice.Item{takesOf(file.Drill.Name, 3)}}, file)
	p := h.withPlayer(soundsOf(t, []drillfile.File{file}, 120))
	p.enterAt(student, path)
	p.see("judged:here")
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "1 of 3")
	p.do(chromedp.KeyEvent("t"))
	p.see("rest")
	p.do(chromedp.KeyEvent("n"))
	p.see("left", "1 of 3")
	p.do(chromedp.KeyEvent("h"))
	p.see("stop-for-today")
	p.reads("see a doctor or hand therapist", "Your instructor is told, as soon as there is a line.")
	p.press("ache:wrist")
	p.do(chromedp.Navigate(h.base + "/practice"))
	p.see("in-pain")
	p.enterAt(instructor, "/students")
	p.reads("Reported pain")
	p.press("student:" + student)
	p.press("their-hand")
	p.see("hand:hurts", "wrist")
	p.press("clear-pain")
	p.see("hand:well")
}

// A call comes in, or the device sleeps: the routine waits, what was played is h.kept, and
// one key goes on.
func TestACallInTheMiddle(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("A call in the middle")
	path, _ := h.onRoutine(practice.Routine{Name: "Interrupted", Items: []practice.Item{takesOf(file.Drill.Name, 1)}}, file)
	p := h.withPlayer(soundsOf(t, []drillfile.File{file}, 120))
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: `(() => {
		const Real = AudioContext
		window.contexts = []
		window.AudioContext = function (...args) { const c = new Real(...args); contexts.push(c); return c }
		window.AudioContext.prototype = Real.prototype
	})()`})
	require.NoError(t, err)
	p.enterAt(student, path)
	p.see("judged:here")
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "1 of 1")
	p.until("notes are due", `document.querySelector('.stage .now') !== null`)
	evaluate[any](p, `Promise.all(contexts.map((c) => c.suspend()))`)
	p.reads("The sound was interrupted", "What was played until then is kept", "Go on")
	evaluate[any](p, `Promise.all(contexts.map((c) => c.resume()))`) // the call is over
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "1 of 1")
	p.until("it is judged", `said.length === 1`)
	p.see("over")
	p.press("back-to-practice")
	p.see("unsent-state:broken-off")
}
