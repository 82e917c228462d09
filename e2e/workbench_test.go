//touches: web/src/views/bench web/src/views/print web/src/views/blocks web/src/views/reach
//touches: web/src/bench web/src/components/neck web/src/components/NeckView.vue
//touches: web/src/components/TabView.vue web/src/components/undo.ts server/bench.go
//touches: server/exports.go server/files.go server/blocks.go formats/drillfile formats/exchange
//touches: core/drill

package e2e_test

import (
	"bytes"
	"encoding/base64"
	"encoding/xml"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/library"
	"manudrill/core/guitar"
	"manudrill/core/setup"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
	"manudrill/formats/exchange"
	"manudrill/server"
	"manudrill/store"
)

// atTheBench opens a new drill as the instructor.
func atTheBench(t *testing.T) page {
	t.Helper()
	h := newHouse(t)
	p := h.open(browser.Window{})
	p.enterAt(instructor, "/drills/new")
	p.see("notes-a-pass", "20")
	return p
}

// latest is the drill that was saved last.
func (h *house) latest() drill.Drill {
	t := h.t
	t.Helper()
	drills, err := h.kept.Drills(h.ctx, store.Page{Limit: 1})
	require.NoError(t, err)
	return drills[0].File.Value.Drill
}

// savedAs waits until the drill that was saved last has a name.
func (p page) savedAs(name string) (saved drill.Drill) {
	p.t.Helper()
	is := func() bool {
		drills, err := p.h.kept.Drills(p.h.ctx, store.Page{Limit: 1})
		if err == nil && len(drills) > 0 {
			saved = drills[0].File.Value.Drill
		}
		return saved.Name == name
	}
	if !assert.Eventually(p.t, is, patience, 20*time.Millisecond) {
		p.t.Fatalf("it is not saved as %s but as %s. The page shows:\n%s", name, saved.Name, p.shows())
	}
	return saved
}

// A drill of each family made by mouse: chosen, moved, looked at on neck, tab
// and staff, saved.
func TestADrillOfEachFamilyByMouse(t *testing.T) {
	p := atTheBench(t)
	p.pick("shown-as", "both")
	for _, f := range library.Families() {
		p.fill("drill-name", "My "+f.Name)
		p.family(f.ID)
		p.reads(f.About)
		d := f.Drill
		d.Path.Position--
		chart, err := d.Chart(guitar.Standard(), 60)
		require.NoError(t, err)
		p.click(`button:has(+ [data-test=position])`)
		p.until(f.Name+" is on the tab", `document.querySelectorAll('.tab text.fret').length === `+strconv.Itoa(len(chart.Notes)))
		p.until(f.Name+" is on the staff", `document.querySelectorAll('.staff .vf-stavenote').length >= `+strconv.Itoa(len(chart.Notes)))
		assert.Positive(t, p.count(".neck .place"), f.Name)
		p.press("save")
		p.see("version", "1")
		p.until("it is told to be saved", `!document.body.innerText.includes('not saved')`)
		saved := p.savedAs("My " + f.Name)
		assert.Equal(t, d.Path.Position, saved.Path.Position, f.Name)
		assert.Equal(t, d.Pattern.Kind(), saved.Pattern.Kind(), f.Name)
	}
}

func TestADrillByKeyboardAlone(t *testing.T) {
	h := newHouse(t)
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.tabTo("New drill")
	p.do(chromedp.KeyEvent(kb.Enter))
	p.see("notes-a-pass", "20")
	p.tabTo("Name of the drill")
	p.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)), chromedp.KeyEvent("By keys"))
	p.tabTo("Family of drills")
	p.do(chromedp.KeyEvent("Diagonal"))
	time.Sleep(500 * time.Millisecond)
	p.do(chromedp.KeyEvent(kb.ArrowDown), chromedp.KeyEvent(kb.Enter))
	p.reads("the hand moving on with each cell")
	p.tabTo("Position")
	p.do(chromedp.KeyEvent(kb.ArrowUp), chromedp.KeyEvent(kb.ArrowUp))
	p.tabTo("mirrored") // the way back is chosen by arrows
	p.do(chromedp.KeyEvent(kb.ArrowLeft))
	p.do(chromedp.KeyEvent("s", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see("version", "1")
	d := p.h.latest()
	assert.Equal(t, "By keys", d.Name)
	assert.Equal(t, "diagonal", d.Pattern.Kind())
	assert.Equal(t, 7, d.Path.Position)
	assert.Equal(t, drill.Returns, d.Path.Back)
}

func TestTheBenchSaysWhatIsWrongMendsItAndLosesNothing(t *testing.T) {
	p := atTheBench(t)
	p.fill("position", "22")
	p.see("fault:path.position", "22")
	p.see("mend:path.position", "21")
	p.press("mend:path.position")
	p.see("notes-a-pass", "20")
	p.until("it is mended", `document.querySelector('[data-test=position]').value === '21'`)
	p.press("undo")
	p.see("fault:path.position", "22")
	p.press("undo")
	p.see("notes-a-pass", "20")
	p.until("all is undone", `document.querySelector('[data-test=undo]').disabled && document.querySelector('[data-test=position]').value === '7'`)
	p.press("redo")
	p.see("fault:path.position", "22")
	p.press("undo")
	p.press("leave-out:12")
	p.see("fault:pattern")
	p.press("add-fingers:24")
	p.see("notes-a-pass", "20")
	p.fill("drill-name", "Half made")
	p.do(chromedp.Reload())
	p.see("notes-a-pass", "20")
	value := func() string {
		return evaluate[string](p, `document.querySelector('[aria-label="Name of the drill"]').value`)
	}
	assert.Equal(t, "Half made", value())
	assert.Equal(t, "24", evaluate[string](p, `document.querySelector('[aria-label="Combinations"]').value`))
	p.press("undo")
	p.until("the name before is back, after a reload", `document.querySelector('[aria-label="Name of the drill"]').value === 'New drill'`)
}

func TestRemarksAreMendedByAClick(t *testing.T) {
	p := atTheBench(t)
	p.fill("combinations", "123 and so on")
	p.see("unread-text", "and so on")
	p.fill("combinations", "123")
	p.pick("slur", "both")
	p.pick("notes-per-beat", "4")
	p.see("remark:cycle", "2", "100")
	p.press("mend:cycle")
	p.see("notes-a-pass", "52")
	p.fill("position", "1")
	p.family("scaleRun")
	p.pick("begin-at", "any")
	p.fill("position", "1")
	p.see("remark:reach")
	p.press("mend:reach")
	p.until("the reach is mended", `![...document.querySelectorAll('.remarks .kind')].some(k => k.innerText === 'Reach')`)
}

// The hand is dragged along the neck and a finger set by pressing it.
func TestTheNeckIsPlayedWithTheMouse(t *testing.T) {
	p := atTheBench(t)
	p.until("the hand lies on the neck", `!!document.querySelector('.neck .hand') && document.querySelectorAll('.neck .wire').length > 4`)
	hand := p.grab(`document.querySelector('.neck .hand')`, 6, 14)
	hand.moveBy(evaluate[float64](p, `document.querySelectorAll('.neck .wire')[4].getBoundingClientRect().x`) + 8 - hand.x)
	p.until("the hand has moved", `Number(document.querySelector('[data-test=position]').value) > 7`)
	hand.letGo(0)
	p.press("undo")
	p.until("one drag is one step", `document.querySelector('[data-test=position]').value === '7'`)

	p.until("the neck has followed, and a finger is pressed", `(() => {
		const place = document.querySelector('[aria-label="String 3 fret 8, finger 2; press to change"]')
		place?.dispatchEvent(new MouseEvent('click', {bubbles: true}))
		return !!place
	})()`)
	p.press("finger:3")
	p.until("the finger is set", `!!document.querySelector('[aria-label="String 3 fret 8, finger 3; press to change"]')`)
	p.press("proposed-fingers")
	p.until("the finger is proposed again", `!!document.querySelector('[aria-label="String 3 fret 8, finger 2; press to change"]')`)
}

func TestNotesOfOnesOwnByClickKeyAndTab(t *testing.T) {
	p := atTheBench(t)
	p.family("free")
	p.press("clear")
	p.see("fault:pattern")
	p.do(chromedp.Focus(chromedp.CSS(`.neck svg`)))
	for _, key := range []string{kb.Enter, kb.ArrowRight, kb.ArrowRight, kb.Enter, kb.ArrowUp, kb.Enter} {
		p.do(chromedp.KeyEvent(key))
	}
	p.see("notes-a-pass", "3")
	var places []string
	for _, n := range []string{"1", "2", "3"} {
		places = append(places, p.text(`.notes li:nth-child(`+n+`) .place`))
	}
	assert.Equal(t, []string{"3/5", "3/7", "2/7"}, places)
	evaluate[any](p, `(() => { const t = document.querySelector('textarea'); t.value = '2:5h8p5 1:5'; t.dispatchEvent(new Event('input')) })()`)
	p.press("read-tab")
	p.see("notes-a-pass", "4")
	evaluate[any](p, `(() => { const t = document.querySelector('textarea'); t.value = 'hello'; t.dispatchEvent(new Event('input')) })()`)
	p.press("read-tab")
	p.reads("holds no tablature")
}

func TestHearingIsOneKey(t *testing.T) {
	p := atTheBench(t)
	evaluate[any](p, `document.activeElement.blur()`)
	p.do(chromedp.KeyEvent("h"))
	p.see("hear:playing")
	p.until("a note sounds on the tab", `!!document.querySelector('.tab .now')`)
	p.do(chromedp.KeyEvent("h"))
	p.see("hear:still")
	assert.Zero(t, p.count(".tab .now"))
}

func TestEveryFormatIsTakenOut(t *testing.T) {
	p := atTheBench(t)
	p.fill("drill-name", "Out of here")
	for _, out := range []struct{ format, name, told string }{
		{"musicxml", "Out-of-here.musicxml", "The pattern and the tempo ladder stay behind"},
		{"midi", "Out-of-here.mid", "written as texts"},
		{"tab", "Out-of-here.tab.txt", "The pattern and the tempo ladder stay behind"},
		{"json", "Out-of-here.drill.json", "Everything is in it"},
		{"wavClick", "Out-of-here.wav", "A recording holds what sounds"},
	} {
		p.press("export")
		p.menu("export-as", out.format)
		p.reads("Saved as "+out.name, out.told)
	}
	p.press("export")
	p.menu("export-as", "print")
	p.see("sheet-staff")
	p.reads("Out of here")
	p.press("sheet-staff")
	p.until("staff, tab and neck are on the sheet", `['.staff svg', '.tab svg', '.neck svg'].every(s => document.querySelector('.paper ' + s))`)
	p.pick("paper", "Letter")
	p.until("the paper has its size", `[...document.querySelectorAll('style')].some(s => s.textContent.includes('size: Letter'))`)
}

func TestAFileIsTakenIn(t *testing.T) {
	h := newHouse(t)
	d := drill.New("From outside", drill.Trill{Fingers: []int{1, 3}})
	d.Path.Strings, d.Attacks.Rule = []int{2}, drill.Legato
	doc, err := exchange.Export(drillfile.File{Drill: d, Ladder: tempo.Usual()}, guitar.Standard(), guitar.UsualHand(), 80, exchange.MusicXML)
	require.NoError(t, err)
	name := filepath.Join(t.TempDir(), doc.Name)
	require.NoError(t, os.WriteFile(name, doc.Content, 0o600))
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.see("import")
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{name}))
	p.see("notes-a-pass", "2")
	p.see("drill-state:new")
	assert.Equal(t, "From outside", evaluate[string](p, `document.querySelector('[aria-label="Name of the drill"]').value`))

	// Of a whole piece, the bars that are to be drilled are chosen.
	name = filepath.Join(t.TempDir(), "piece.tab.txt")
	require.NoError(t, os.WriteFile(name, []byte("A piece\n\n"+strings.Repeat("3|-5-7-8-7-|\n\n", 200)), 0o600))
	p.do(chromedp.Navigate(h.base + "/drills"))
	p.see("import")
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{name}))
	p.reads("From piece.tab.txt", "bars 1 to 128 are read")
	p.accessible()
	p.fill("to-bar", "2")
	p.press("put-on-bench")
	p.see("notes-a-pass", "8")
	p.see("drill-state:new")
}

// New drill is always new: what was begun before is offered and gone on with, not forced; saving keeps the focus where it was; save as new leaves the old one as it was.
func TestNewDrillsAreNew(t *testing.T) {
	p := atTheBench(t)
	p.fill("drill-name", "Begun on Monday")
	p.until("it is kept", `Object.keys(localStorage).some(k => k.startsWith('manudrill bench new') && localStorage[k].includes('Begun on Monday'))`)
	p.press("goto:/drills")
	p.see("new-drill")
	p.press("new-drill")
	p.see("go-on-draft")
	p.reads("Begun on Monday")
	name := `document.querySelector('[aria-label="Name of the drill"]').value`
	p.until("a new one lies there", name+` === 'New drill'`)
	p.press("go-on-draft")
	p.until("the other one lies there", name+` === 'Begun on Monday'`)
	evaluate[any](p, `document.querySelector('[data-test=position]').focus()`)
	p.do(chromedp.KeyEvent("s", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see("version", "1")
	p.until("the field has the focus still", `document.activeElement?.getAttribute('aria-label') === 'Position'`)
	p.fill("position", "9")
	p.press("save-as-new")
	p.reads("Saved as a new drill: “Begun on Monday (new)”")
	assert.Equal(t, 9, p.h.latest().Path.Position)
	all, err := p.h.kept.Drills(p.h.ctx, store.Page{Limit: 2})
	require.NoError(t, err)
	assert.Equal(t, 7, all[1].File.Value.Drill.Path.Position, "the one it was made from is as it was kept")
	evaluate[any](p, `document.activeElement?.blur()`)
	p.do(chromedp.KeyEvent("?"))
	p.reads("At the bench", "hear it, or stop", "Everywhere")
}

// slowSaving keeps each drill that is saved on its way until the page is told to letGo.
const slowSaving = `(() => {
	const through = fetch
	window.fetch = async (request) => {
		if (/POST|PUT/.test(request.method) && /\/api\/drills/.test(request.url)) await new Promise((resolve) => (window.letGo = resolve))
		return through(request)
	}
})()`

// What is set while a drill is on its way to the studio is part of it, with all steps: of a
// new one, which gets a page of its own, and of one that is saved anew, twice at once.
func TestWhatIsSetWhileItIsSavedStays(t *testing.T) {
	h := newHouse(t)
	p := h.open(browser.Window{})
	p.begins(slowSaving)
	p.enterAt(instructor, "/drills/new")
	save := func() {
		t.Helper()
		p.press("save")
		p.until("it is on its way", `!!window.letGo`)
	}
	letGo := func() {
		t.Helper()
		evaluate[any](p, `(() => { const go = window.letGo; window.letGo = undefined; go() })()`)
	}
	position := `document.querySelector('[data-test=position]').value`
	p.fill("position", "3")
	save()
	p.fill("position", "4")
	letGo()
	p.see("version", "1")
	p.see("drill-state:changed")
	p.until("what was set meanwhile lies there", position+` === '4'`)
	assert.Equal(t, 3, h.latest().Path.Position)

	save()
	p.fill("position", "6")
	p.press("save") // which waits for its turn
	letGo()
	p.until("the second is on its way", `!!window.letGo`)
	letGo()
	p.see("drill-state:saved")
	assert.Equal(t, 6, h.latest().Path.Position, "with no word of another who has changed it")
	p.press("undo")
	p.press("undo")
	p.until("there are the steps from before it was saved", position+` === '3'`)
}

// allOrders opens all variations of one finger per fret.
func allOrders(t *testing.T) page {
	t.Helper()
	p := atTheBench(t)
	p.family("fingerPerFret")
	p.see("notes-a-pass", "24")
	p.press("variations")
	p.see("block-facts", "24", "6 min")
	p.until("the dialog stands still", `document.getAnimations().every(a => a.playState !== 'running')`)
	return p
}

func TestAllVariationsAreTheParts(t *testing.T) {
	p := allOrders(t)
	p.press("as-parts")
	p.see("notes-a-pass", "1440")
	p.see("drill-state:new")
	p.until("each order is a part with its name", `[...document.querySelectorAll('[aria-label^="Name of part"]')].length === 24`)
}

func TestAllVariationsMakeABlock(t *testing.T) {
	p := allOrders(t)
	p.press("save-as-block")
	p.see("block-facts", "24", "6 min")
	p.reads("One finger per fret, 4-3-2-1")
	p.until("every drill is on its tab", `document.querySelectorAll('.tab').length === 24`)
	p.fill("block-name", "Twenty-four orders")
	p.reads("Renamed")
	p.press("leave-out-drill:2")
	p.see("block-facts", "23", "5 min 45 s")
	p.until("the later change alone can be undone", `document.querySelectorAll('.undoable').length === 1`)
	p.press("undo-it")
	p.see("block-facts", "24", "6 min")
	p.press("move-up:24")
	p.until("the last is the last but one", `document.querySelectorAll('section h2')[22].innerText.endsWith('4-3-2-1')`)
	p.press("keep-all")
	p.reads("Kept: 24 drills")
	p.press("assign")
	p.reads("Assign “Twenty-four orders”")
	p.do(chromedp.KeyEvent(kb.Escape))
	p.press("join")
	p.see("drill-state:new")
	p.see("notes-a-pass", "1440")
	p.reads("without a stop")
	p.press("goto:/drills")
	p.press("shelf:blocks")
	p.see("block-facts", "24", "6 min")
	p.reads("Twenty-four orders")
}

func TestTheLibraryFindsAndKeeps(t *testing.T) {
	h := newHouse(t)
	h.onTheStand(shortDrill("Needle in the hay"))
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.reads("Needle in the hay")
	p.more("Needle in the hay", "shelf")
	p.reads("stands")
	p.fill("folder", "Sewing")
	p.fill("tag", "sharp")
	p.press("put-there")
	p.reads("Sewing 1")
	p.press("favourite:Needle in the hay")
	p.press("shelf:Sewing")
	p.reads("Needle in the hay")
	p.press("shelf:favourites")
	p.reads("Needle in the hay")
	p.fill("search", "camel")
	p.see("none-found")
	p.fill("search", "needle sharp")
	p.reads("Needle in the hay")

	p.press("shelf:ready")
	p.reads("First slurs", "Twenty-four orders")
	p.press("ready:Hammer-ons 3-4")
	p.see("drill-state:new")
	p.see("notes-a-pass", "8")
}

// A drill that a student has a take of gets a new version; the old one stays on
// the stand until the new one is given.
func TestADrillWithTakesIsVersionedOnTheBench(t *testing.T) {
	h := newHouse(t)
	stand := h.onTheStand(shortDrill("Versioned"))
	id, err := uuid.Parse(filepath.Base(stand))
	require.NoError(t, err)
	take := server.SimulatedTake{ID: uuid.New(), Assignment: id, Player: simulate.Player{Seed: 3}, RecordedAt: time.Now()}
	require.NoError(t, take.Make(h.ctx, h.kept))

	p := h.open(browser.Window{})
	p.enter(instructor)
	p.press("drill:Versioned")
	p.see("version", "1", "1")
	p.fill("position", "9")
	p.press("save")
	p.see("version", "2", "1")
	p.press("version")
	p.see("of-version:1", student)
	p.escape()
	p.press("assign")
	p.see("version", "1")
	p.press("give-newest")
	p.until("nobody is behind", `!document.querySelector('[data-test=give-newest]')`)
	a, err := h.kept.Stand(h.ctx, id)
	require.NoError(t, err)
	assert.Equal(t, 9, a.File.Value.Drill.Path.Position)
}

// Guitar and hand of a student change what fits and how the neck lies.
func TestADrillIsFittedToAStudent(t *testing.T) {
	p := atTheBench(t)
	p.family("fingerPerFret")
	p.see("notes-a-pass", "24")
	p.press("whose-hand")
	p.press("whose-hand-option:" + student)
	p.press("keep-down")
	p.press("setup")
	p.see("setup-dialog:" + student)
	p.fill("reach-14", "70")
	p.press("tuning:7 strings, B")
	p.press("left-handed")
	p.press("save-setup")
	p.see("remark:reach", "70", "7")
	p.until("there is a seventh string to choose", `!!document.querySelector('[aria-label="String 7"]')`)
	p.until("the neck is mirrored", `(() => {
		const x = (n) => Number([...document.querySelectorAll('.neck text.fret')].find(t => t.textContent.trim() === n)?.getAttribute('x'))
		return x('5') > x('8')
	})()`)
	theirs, revision, err := p.h.kept.Setup(p.h.ctx, p.h.people[student].ID)
	require.NoError(t, err)
	assert.Len(t, theirs.Guitar.Tuning, 7)
	require.NoError(t, p.h.kept.ChangeSetup(p.h.ctx, p.h.people[student].ID, revision, setup.Usual()))
}

// A number is dragged at its name, and neck and tab follow while it is.
func TestANumberIsDragged(t *testing.T) {
	p := atTheBench(t)
	first := `document.querySelector('.tab text.fret').textContent.trim()`
	handle := p.grab(`[...document.querySelectorAll('.handle')].find(h => h.innerText.startsWith('Position'))`, 20, 0)
	handle.moveBy(28)
	p.until("the tab follows", first+` === '10'`)
	handle.moveBy(-28)
	p.until("and back", first+` === '4'`)
	handle.letGo(-28)
	p.press("undo")
	p.until("one drag is one step", first+` === '7'`)
}

func TestADrillIsReworkedByKeys(t *testing.T) {
	p := atTheBench(t)
	evaluate[any](p, `document.activeElement.blur()`)
	places := `[...document.querySelectorAll('.tab text.fret')].slice(0, 2).map(f => f.textContent.trim()).join(' ')`
	for _, step := range []struct{ key, places string }{{"]", "8 9"}, {"[", "7 8"}, {"m", "10 9"}, {"m", "7 8"}, {"r", "8 7"}} {
		p.do(chromedp.KeyEvent(step.key))
		p.until(step.key+" makes "+step.places, places+` === '`+step.places+`'`)
	}
	p.press("rework")
	p.press("own-notes")
	p.see("notes-a-pass", "20")
	p.reads("Click places on the neck")
}

// The sheet is saved as it stands on the page, as SVG and as PDF: letters are outlines, so it
// looks so where no type of it is installed. Poppler, another's reader of PDF, finds a page of
// the paper's size with something on it.
func TestTheSheetIsSavedAsADrawing(t *testing.T) {
	p := atTheBench(t)
	p.fill("drill-name", "Drawn out")
	p.press("export")
	p.menu("export-as", "print")
	p.see("sheet-staff")
	p.reads("Drawn out")
	p.press("sheet-staff")
	p.until("staff, tab and neck are on the sheet", `['.staff svg', '.tab svg', '.neck svg'].every(s => document.querySelector('.paper ' + s))`)
	evaluate[any](p, `(() => { window.kept = {}; const make = URL.createObjectURL; URL.createObjectURL = blob => {
		const reader = new FileReader(); reader.onload = () => { window.kept[blob.type] = reader.result }; reader.readAsDataURL(blob); return make(blob) } })()`)
	saved := func(button, media string) []byte {
		p.press("save-as:" + button)
		p.until(button+" is saved", `!!window.kept['`+media+`']`)
		_, content, _ := strings.Cut(evaluate[string](p, `window.kept['`+media+`']`), ",")
		raw, err := base64.StdEncoding.DecodeString(content)
		require.NoError(t, err)
		return raw
	}
	svg := saved("SVG", "image/svg+xml")
	var drawing struct {
		XMLName xml.Name `xml:"http://www.w3.org/2000/svg svg"`
		Pieces  []struct {
			Inner string `xml:",innerxml"`
		} `xml:"svg"`
	}
	require.NoError(t, xml.Unmarshal(svg, &drawing))
	assert.GreaterOrEqual(t, len(drawing.Pieces), 6, "title, care, words, neck, staff and tab")
	assert.NotContains(t, string(svg), "<text")
	assert.NotContains(t, string(svg), "class=")
	assert.NotContains(t, string(svg), "var(")

	dir := t.TempDir()
	name := filepath.Join(dir, "sheet.pdf")
	require.NoError(t, os.WriteFile(name, saved("PDF", "application/pdf"), 0o600))
	info, err := exec.Command("pdfinfo", name).CombinedOutput()
	require.NoError(t, err, "%s", info)
	assert.Regexp(t, `Pages:\s+1\n`, string(info))
	assert.Regexp(t, `Page size:\s+59\d\S* x 84\d\S* pts \(A4\)`, string(info))
	drawn, err := exec.Command("pdftoppm", "-r", "50", "-gray", name).Output()
	require.NoError(t, err)
	assert.Greater(t, bytes.Count(drawn, []byte{0}), 100, "black is on it")
}

// A student prints what lies on the stand, as it lies there.
func TestAStudentPrintsTheStand(t *testing.T) {
	h := newHouse(t)
	mira, assignment := h.pupilOf("Mira Printer", "On paper")
	p := h.open(browser.Window{})
	p.enterAt(mira.Name, "/stand/"+assignment.String())
	p.press("print-out")
	p.see("sheet-staff")
	p.until("it is drawn", `['.tab svg', '.neck svg'].every(s => document.querySelector('.paper ' + s))`)
	assert.Equal(t, mira.Name, evaluate[string](p, `document.querySelector('[aria-label="Whom the sheet is for"]').value`))
	p.accessible()
}
