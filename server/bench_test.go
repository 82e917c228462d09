package server_test

import (
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"net/http/cookiejar"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/drill/library"
	"manudrill/core/guitar"
	"manudrill/core/setup"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
)

func fileOf(d drill.Drill) drillfile.File { return drillfile.File{Drill: d, Ladder: tempo.Usual()} }

// Every family comes through the contract both ways and can be saved.
func TestEveryFamilyOfTheBenchCanBeSaved(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	var bench api.Bench
	c.ok(http.MethodGet, "/bench", nil, &bench)
	require.Len(t, bench.Families, len(library.Families()))
	assert.Len(t, bench.FingerOrders, 24)
	assert.NotEmpty(t, bench.ReadySets)
	for _, f := range bench.Families {
		var p api.Preview
		c.ok(http.MethodPost, "/preview", fileOf(f.Drill), &p)
		require.Empty(t, p.Faults, f.ID)
		assert.Positive(t, p.Difficulty.Total, f.ID)
		assert.NotEmpty(t, *p.Damping, f.ID)
		var saved api.SavedDrill
		c.ok(http.MethodPost, newly("/drills"), fileOf(f.Drill), &saved)
		assert.Equal(t, f.Drill, saved.File.Drill, f.ID)
	}
}

func TestAPreviewBringsRemarksWithTheirMending(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	d := drill.New("stretch", drill.SlurCombinations{Combinations: [][]int{{1, 2, 3}}, Slur: drill.BothSlurs})
	d.Path.Strings, d.Rhythm.NotesPerBeat = []int{3}, 4
	var p, mended api.Preview
	c.ok(http.MethodPost, "/preview", fileOf(d), &p)
	require.NotEmpty(t, *p.Remarks)
	cycle := (*p.Remarks)[len(*p.Remarks)-1]
	assert.Equal(t, "cycle", cycle.Check)
	c.ok(http.MethodPost, "/preview", fileOf(cycle.Mends[1].Drill), &mended)
	assert.Len(t, mended.Chart.Notes, 4, "one note left out closes five notes in fours")
	assert.NotContains(t, (*mended.Remarks)[len(*mended.Remarks)-1].Text, "starts on the click again after")
}

func TestReworkAndVariations(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	d := drill.New("orders", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}})
	d.Path.Strings = []int{3, 2}
	var up, over, free struct{ Drill drill.Drill }
	c.ok(http.MethodPost, "/rework", map[string]any{"drill": d, "transpose": 2}, &up)
	assert.Equal(t, 7, up.Drill.Path.Position)
	c.ok(http.MethodPost, "/rework", map[string]any{"drill": d, "thicker": 1}, &over)
	assert.Equal(t, []int{4, 3}, over.Drill.Path.Strings)
	c.ok(http.MethodPost, "/rework", map[string]any{"drill": d, "free": true}, &free)
	assert.Len(t, free.Drill.Pattern.(*drill.Free).Notes, 8)
	var twice struct{ Drill drill.Drill }
	slurred := drill.New("slurs", drill.SlurCombinations{Combinations: [][]int{{1, 2}}, Slur: drill.HammerOns})
	c.ok(http.MethodPost, "/rework", map[string]any{"drill": slurred, "pickedFirst": true}, &twice)
	assert.Len(t, twice.Drill.Parts(), 2)

	var all []drillfile.File
	c.ok(http.MethodPost, "/variations?by=fingerOrders", fileOf(d), &all)
	require.Len(t, all, 24)
	p := c.fails(http.StatusUnprocessableEntity, http.MethodPost, "/variations?by=slurs", fileOf(d))
	assert.Contains(t, p.Detail, "cannot be varied")

	block := drillfile.Block{Name: "All orders"}
	for _, f := range all {
		block.Items = append(block.Items, drillfile.BlockItem{File: f, Seconds: 15})
	}
	var saved, got api.SavedBlock
	c.ok(http.MethodPost, newly("/blocks"), block, &saved)
	c.ok(http.MethodGet, "/blocks/"+saved.Id.String(), nil, &got)
	assert.Len(t, got.Block.Items, 24)
	var joined drillfile.File
	c.ok(http.MethodPost, "/join", block, &joined)
	chart, err := joined.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	assert.Len(t, chart.Parts, 24)
	assert.InDelta(t, 24*15, chart.TakeSeconds(), 1e-9)
	var blocks api.BlockPage
	c.ok(http.MethodGet, "/blocks", nil, &blocks)
	assert.NotEmpty(t, blocks.Items)
	c.ok(http.MethodDelete, "/blocks/"+saved.Id.String(), nil, nil)
	c.fails(http.StatusNotFound, http.MethodGet, "/blocks/"+saved.Id.String(), nil)
	block.Items[0].Seconds = 0
	p = c.fails(http.StatusUnprocessableEntity, http.MethodPost, newly("/blocks"), block)
	assert.Contains(t, p.Detail, "5 to 3600")
	p = c.fails(http.StatusUnprocessableEntity, http.MethodPost, "/join", block)
	assert.Contains(t, p.Detail, "5 to 3600")
	block.Items[0].Seconds = 3600
	p = c.fails(http.StatusUnprocessableEntity, http.MethodPost, "/join", block)
	assert.Contains(t, p.Detail, "1 to 240")
}

func TestExportsComeBackByImport(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	for _, format := range []string{"musicxml", "midi", "tab", "json"} {
		var out api.Export
		c.ok(http.MethodPost, "/export?bpm=90&format="+format, someDrill(), &out)
		var in struct {
			File drillfile.File
			Told []string
		}
		c.ok(http.MethodPost, "/import", out.Content, &in)
		want, err := someDrill().Drill.Chart(guitar.Standard(), 90)
		require.NoError(t, err)
		got, err := in.File.Drill.Chart(guitar.Standard(), 90)
		require.NoError(t, err)
		require.Len(t, got.Notes, len(want.Notes), format)
		assert.Equal(t, want.Notes[3].MIDI, got.Notes[3].MIDI, format)
	}
	piece := []byte(strings.Repeat("3|-5-7-8-7-|\n\n", 200))
	var in api.ImportedDrill
	c.ok(http.MethodPost, "/import", piece, &in)
	assert.Equal(t, []int{200, 1, 128}, []int{in.Bars, in.FirstBar, in.LastBar}, "as far as it fits")
	c.ok(http.MethodPost, "/import?firstBar=3&lastBar=4", piece, &in)
	assert.Equal(t, []int{200, 3, 4}, []int{in.Bars, in.FirstBar, in.LastBar})
	assert.Len(t, in.File.Drill.Pattern.(*drill.Free).Notes, 8)
	assert.Contains(t, c.fails(http.StatusUnprocessableEntity, http.MethodPost, "/import?firstBar=300", piece).Detail, "the file has 200 bars")
	var wav api.Export
	c.ok(http.MethodPost, "/export?bpm=90&format=wavClick", someDrill(), &wav)
	assert.Equal(t, "pairs.wav", wav.Name)
	p := c.fails(http.StatusUnprocessableEntity, http.MethodPost, "/import", []byte("Dear teacher"))
	assert.Contains(t, p.Detail, "no tablature")
	c.fails(http.StatusRequestEntityTooLarge, http.MethodPost, "/import", make([]byte, 9<<20))
	h.as(t, ann).fails(http.StatusForbidden, http.MethodPost, "/import", []byte("3:5"))
}

func TestTheShelf(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	var d api.SavedDrill
	c.ok(http.MethodPost, newly("/drills"), someDrill(), &d)
	shelf := api.Shelf{Folder: "Slurs", Tags: []string{"warm-up"}, Favourite: true}
	c.on(d.ShelfRevision).ok(http.MethodPut, "/drills/"+d.Id.String()+"/shelf", shelf, &d)
	assert.Equal(t, shelf, d.Shelf)
	var copied api.SavedDrill
	c.ok(http.MethodPost, newly("/drills/"+d.Id.String()+"/copy"), nil, &copied)
	assert.Equal(t, shelf, copied.Shelf, "a copy stands beside the original")
}

// A drill that students have takes on is versioned, never changed beneath them.
func TestADrillWithTakesIsVersioned(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	c, student := h.as(t, teacher), h.as(t, ann)
	change := func(position int) {
		file := someDrill()
		file.Drill.Path.Position = position
		var now api.SavedDrill
		c.ok(http.MethodGet, "/drills/"+a.DrillId.String(), nil, &now)
		c.on(now.Revision).ok(http.MethodPut, "/drills/"+a.DrillId.String(), file, nil)
	}
	versions := func() []api.Version {
		var page api.VersionPage
		c.ok(http.MethodGet, "/drills/"+a.DrillId.String()+"/versions", nil, &page)
		return page.Items
	}
	stand := func(id uuid.UUID) (s api.Stand) {
		c.ok(http.MethodGet, "/assignments/"+id.String(), nil, &s)
		return s
	}
	change(5)
	require.Len(t, versions(), 2, "she may have the first one open")
	assert.Equal(t, 5, stand(a.Id).Chart.Notes[0].Fret)

	student.ok(http.MethodPut, "/assignments/"+a.Id.String()+"/simulated/"+uuid.NewString(), steady, nil)
	var ben2 api.Assignment
	c.ok(http.MethodPost, "/assignments", map[string]any{"drillId": a.DrillId, "studentId": ben.ID}, &ben2)
	change(5)
	require.Len(t, versions(), 2, "saving the same makes no version")
	change(9)
	all := versions()
	require.Len(t, all, 3)
	assert.Equal(t, []int{3, 2}, []int{all[0].Version, all[1].Version})
	assert.Equal(t, []int{0, 1}, []int{all[0].Takes, all[1].Takes})
	assert.Equal(t, []string{"Ann"}, all[1].Students, "what she plays stays as it is")
	assert.Equal(t, 5, stand(a.Id).Chart.Notes[0].Fret)
	assert.Equal(t, 9, stand(ben2.Id).Chart.Notes[0].Fret, "who has no take yet gets the new one")

	c.ok(http.MethodPost, "/assignments/"+a.Id.String()+"/newest", nil, nil)
	assert.Equal(t, 9, stand(a.Id).Chart.Notes[0].Fret)

	// A recording of version 2 that comes late is measured against version 2.
	old := someDrill()
	old.Drill.Path.Position = 5
	late := played(t, old, 100, steady).EncodeWAV()
	var take api.Take
	student.ok(http.MethodPut, takePath(a, uuid.New(), 100)+"&version=2", late, &take)
	assert.Equal(t, 5, take.Chart.Notes[0].Fret)
	assert.Equal(t, 16, take.Analysis.Counts.Played)
	assert.Equal(t, 2, versions()[1].Takes)
	student.fails(http.StatusNotFound, http.MethodPut, takePath(a, uuid.New(), 100)+"&version=7", late)
	student.fails(http.StatusForbidden, http.MethodPost, "/assignments/"+a.Id.String()+"/newest", nil)
}

// Everybody has a guitar and a hand of their own, and drills are fitted to them.
func TestDrillsAreFittedToAGuitarAndAHand(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	path := "/people/" + ben.ID.String() + "/setup"
	var saved api.SavedSetup
	c.ok(http.MethodGet, path, nil, &saved)
	mine := saved.Setup
	assert.Equal(t, setup.Usual(), mine)
	mine.Guitar.Frets, mine.Hand["14"], mine.LeftHanded = 12, 60, true
	c.on(saved.Revision).ok(http.MethodPut, path, mine, &saved)
	c.on(saved.Revision-1).fails(http.StatusPreconditionFailed, http.MethodPut, path, setup.Usual())
	defer func() { c.on(saved.Revision).ok(http.MethodPut, path, setup.Usual(), nil) }()

	file := someDrill()
	file.Drill.Path.Position = 13
	var d api.SavedDrill
	c.ok(http.MethodPost, newly("/drills"), file, &d)
	c.fails(http.StatusUnprocessableEntity, http.MethodPost, newly("/drills")+"&for="+ben.ID.String(), file)
	p := c.fails(http.StatusUnprocessableEntity, http.MethodPost, "/assignments", map[string]any{"drillId": d.Id, "studentId": ben.ID})
	assert.Contains(t, p.Detail, "this neck ends at fret 12")

	var preview api.Preview
	file.Drill.Pattern, file.Drill.Path.Position = drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}}, 5
	file.Drill.Fingering.KeepDown = true
	c.ok(http.MethodPost, "/preview?for="+ben.ID.String(), file, &preview)
	assert.Contains(t, (*preview.Remarks)[0].Text, "60 mm is comfortable")
	assert.True(t, preview.Neck.LeftHanded)

	mine.Guitar.Tuning = []int{64}
	p = c.fails(http.StatusUnprocessableEntity, http.MethodPut, path, mine)
	assert.Contains(t, p.Detail, "4 to 9 strings")
	h.as(t, ann).fails(http.StatusNotFound, http.MethodGet, path, nil)
}

// BenchmarkPreview500 measures the answer to a preview of 504 notes, through
// HTTP and the contract, as the bench asks for it while a value is dragged.
func BenchmarkPreview500(b *testing.B) {
	h := houseAlone(b)
	jar, err := cookiejar.New(nil)
	require.NoError(b, err)
	browser := &http.Client{Jar: jar}
	send := func(method, path string, body any) {
		raw, err := json.Marshal(body)
		require.NoError(b, err)
		req, err := http.NewRequestWithContext(b.Context(), method, h.base+"/api"+path, bytes.NewReader(raw))
		require.NoError(b, err)
		req.Header.Set("Content-Type", "application/json")
		resp, err := browser.Do(req)
		require.NoError(b, err)
		_, err = io.Copy(io.Discard, resp.Body)
		require.NoError(b, err)
		require.NoError(b, resp.Body.Close())
		require.Equal(b, http.StatusOK, resp.StatusCode)
	}
	send(http.MethodPut, "/session", map[string]any{"personId": teacher.ID})
	d := drill.New("many", drill.FingerPerFret{Orders: drill.FingerOrders()[:21]})
	for b.Loop() {
		send(http.MethodPost, "/preview", fileOf(d))
	}
}
