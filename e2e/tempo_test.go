package e2e_test

import (
	"encoding/json"
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
	"manudrill/formats/sound"
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
		strokes := p.Perform(chart.Opening(6, 16), 4*60/bpm)
		x := p.Render(strokes, simulate.Rate, strokes[len(strokes)-1].T+1)
		all[fmt.Sprintf("%s at %g", file.Drill.Name, bpm)] = sound.FromMono(simulate.Rate, x).EncodeWAV()
	}
	raw, err := json.Marshal(all)
	require.NoError(t, err)
	return string(raw)
}

// reached are the tempi at which a search may ask for one of its first takes: that of the
// search and those that so many more may lead to.
func reached(search tempo.Search, more int) []float64 {
	tempi := []float64{search.BPM}
	if more > 0 {
		tempi = append(tempi, reached(search.After(true, 0), more-1)...)
		tempi = append(tempi, reached(search.After(false, 0), more-1)...)
	}
	return tempi
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
	p := h.withPlayer(until140(t, file, reached(tempo.SearchFrom(120), 2)...))
	p.enterAt(student, stand+"/tempo")
	p.see("Find my tempo", "None of them is kept or counts.")
	evaluate[any](p, readAloud)
	p.do(chromedp.KeyEvent(" "))
	p.see("short take 1")
	search := tempo.SearchFrom(120)
	for take := 2; take <= 3; take++ {
		p.until("what is said of it", fmt.Sprintf(`readAloud.length === %d`, take-1))
		told := evaluate[string](p, `readAloud.at(-1)`)
		clean := search.BPM < 140
		assert.Equal(t, clean, strings.HasPrefix(told, "Clean"), told)
		search = search.After(clean, 0)
		assert.Contains(t, told, fmt.Sprintf("then %g bpm", search.BPM))
		p.see(fmt.Sprintf("short take %d", take))
	}
	p.do(chromedp.KeyEvent(" "))
	p.see(fmt.Sprintf("Held at %g bpm.", search.BPM))
	played := evaluate[[]string](p, `played`)
	require.Len(t, played, 3)
	assert.Equal(t, fmt.Sprintf("%s at %g", file.Drill.Name, search.BPM), played[2])
	p.press("back to the stand")
	p.see("find my tempo")
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
	p.see("A take is judged on this device as soon as it ends.")
	p.do(chromedp.KeyEvent(kb.ArrowDown))
	p.see("Slower by your own choice: measured, but it does not count.")
	p.do(chromedp.KeyEvent(" "))
	p.see("does not count")
	p.see("At a tempo of your own choice: it counts for nothing.")
	p.see("Back to 120")
	require.Eventually(t, func() bool { return h.standing(stand).Takes == 1 }, patience, 100*time.Millisecond)
	now := h.standing(stand)
	assert.InDelta(t, 120, now.Rung.BPM, 0)
	takes, err := h.kept.Takes(h.ctx, &now.ID, nil, store.Page{})
	require.NoError(t, err)
	require.Len(t, takes, 1)
	assert.InDelta(t, 110, takes[0].Rung.BPM, 0)
}
