//touches: web/src/views/stand web/src/views/progress server/progress.go store/rungs.go

package e2e_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// until140 are the sounds of somebody who plays a drill cleanly below 140 bpm, and not at
// all evenly from there on.
func until140(t *testing.T, file drillfile.File, tempi ...float64) string {
	t.Helper()
	all := map[string][]byte{}
	for _, bpm := range tempi {
		chart, err := file.Drill.Chart(guitar.Standard(), bpm)
		require.NoError(t, err)
		p := simulate.Player{Seed: 3, MotorMs: 2, SlurDropDB: 1, NoiseDB: -70}
		if bpm >= 140 {
			p.MotorMs = 45
		}
		all[soundName(file, bpm)], _ = afterCountIn(p, chart.Opening(6, 16), 1)
	}
	return inPage(t, all)
}

// searched is a search by somebody who plays cleanly below 140 bpm, as it stands before each
// of its first takes.
func searched(from float64, takes int) (all []tempo.Search) {
	s := tempo.SearchFrom(from)
	for range takes {
		all = append(all, s)
		s = s.After(s.BPM < 140, 0)
	}
	return all
}

// readAloud keeps what is told between two takes: it stands too short for who looks now and
// then.
const readAloud = `void (() => {
	window.readAloud = []
	let shown = false
	new MutationObserver(() => {
		const told = document.querySelector('.told')
		if (told && !shown) window.readAloud.push(told.innerText)
		shown = !!told
	}).observe(document.body, { childList: true, subtree: true, characterData: true })
})()`

// standing is where the student stands by the path of a stand.
func (h *house) standing(path string) store.Stand {
	t := h.t
	t.Helper()
	s, err := h.kept.Stand(h.ctx, uuid.MustParse(strings.TrimPrefix(path, "/stand/")))
	require.NoError(t, err)
	return s
}

// Short takes get faster while they are clean and slower when one is not, by themselves
// after one key; nothing is kept of them, and the ladder stays where it was.
func TestASearchForATempoRunsByOneKey(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("How fast is clean")
	stand := h.onTheStand(file)
	search := searched(120, 3)
	p := h.withPlayer(until140(t, file, search[0].BPM, search[1].BPM, search[2].BPM))
	p.enterAt(student, stand+"/tempo")
	p.see("find-tempo")
	evaluate[any](p, readAloud)
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "1")
	for i, now := range search[1:] {
		p.until("what is said of it", fmt.Sprintf(`readAloud.length === %d`, i+1))
		told := evaluate[string](p, `readAloud.at(-1)`)
		assert.Equal(t, search[i].BPM < 140, strings.HasPrefix(told, "Clean"), told)
		assert.Contains(t, told, fmt.Sprintf("then %g bpm", now.BPM))
		p.see("left", fmt.Sprint(i+2))
	}
	p.do(chromedp.KeyEvent(" "))
	p.see("held", fmt.Sprint(search[2].BPM))
	var names []string
	for _, s := range search {
		names = append(names, soundName(file, s.BPM))
	}
	assert.Equal(t, names, evaluate[[]string](p, `played`))
	p.press("back-to-stand")
	p.see("play")
	assert.NotContains(t, p.text("body"), "not handed in")
	now := h.standing(stand)
	assert.InDelta(t, 120, now.Rung.BPM, 0)
	assert.Zero(t, now.Takes)
}

// A slower tempo is one key away; what is played at it is measured and moves nothing.
func TestATempoOfOnesOwnCountsForNothing(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Slower for once")
	stand := h.onTheStand(file)
	p := h.withPlayer(soundsOf(t, []drillfile.File{file}, 110))
	p.enterAt(student, stand)
	p.see("judged:here")
	p.do(chromedp.KeyEvent(kb.ArrowDown))
	p.see("own-tempo")
	p.do(chromedp.KeyEvent(" "))
	p.reads("does not count")
	p.reads("At a tempo of your own choice: it counts for nothing.")
	p.see("own-tempo", "120")
	require.Eventually(t, func() bool { return h.standing(stand).Takes == 1 }, patience, 100*time.Millisecond)
	now := h.standing(stand)
	assert.InDelta(t, 120, now.Rung.BPM, 0)
	takes, err := h.kept.Takes(h.ctx, &now.ID, nil, store.Page{})
	require.NoError(t, err)
	require.Len(t, takes, 1)
	assert.InDelta(t, 110, takes[0].Rung.BPM, 0)
}
