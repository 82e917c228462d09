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
	p.see("20 notes a pass")
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
	p.pick("Shown as", "both")
	for _, f := range library.Families() {
		p.fill("Name of the drill", "My "+f.Name)
		p.family(f.Name)
		p.see(f.About)
		d := f.Drill
		d.Path.Position--
		chart, err := d.Chart(guitar.Standard(), 60)
		require.NoError(t, err)
		p.click(`//*[@aria-label='Position']/preceding-sibling::button`)
		p.until(f.Name+" is on the tab", `document.querySelectorAll('.tab text.fret').length === `+strconv.Itoa(len(chart.Notes)))
		p.until(f.Name+" is on the staff", `document.querySelectorAll('.staff .vf-stavenote').length >= `+strconv.Itoa(len(chart.Notes)))
		assert.Positive(t, p.count(".neck .place"), f.Name)
		p.press("Save")
		p.see("version 1")
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
	p.see("20 notes a pass")
	p.tabTo("Name of the drill")
	p.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)), chromedp.KeyEvent("By keys"))
	p.tabTo("Family of drills")
	p.do(chromedp.KeyEvent("Diagonal"))
	time.Sleep(500 * time.Millisecond)
	p.do(chromedp.KeyEvent(kb.ArrowDown), chromedp.KeyEvent(kb.Enter))
	p.see("the hand moving on with each cell")
	p.tabTo("Position")
	p.do(chromedp.KeyEvent(kb.ArrowUp), chromedp.KeyEvent(kb.ArrowUp))
	p.tabTo("mirrored") // the way back is chosen by arrows
	p.do(chromedp.KeyEvent(kb.ArrowLeft))
	p.do(chromedp.KeyEvent("s", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see("version 1")
	d := p.h.latest()
	assert.Equal(t, "By keys", d.Name)
	assert.Equal(t, "diagonal", d.Pattern.Kind())
	assert.Equal(t, 7, d.Path.Position)
	assert.Equal(t, drill.Returns, d.Path.Back)
}

func TestTheBenchSaysWhatIsWrongMendsItAndLosesNothing(t *testing.T) {
	p := atTheBench(t)
	p.fill("Position", "22")
	p.see("this neck ends at fret 22", "Use position 21")
	p.press("Move to position 21")
	p.see("20 notes a pass")
	p.until("it is mended", `document.querySelector('[aria-label="Position"]').value === '21'`)
	p.pressLabelled("Undo")
	p.see("this neck ends at fret 22")
	p.pressLabelled("Undo")
	p.see("20 notes a pass")
	p.until("all is undone", `document.querySelector('[aria-label="Undo"]').disabled && document.querySelector('[aria-label="Position"]').value === '7'`)
	p.pressLabelled("Redo")
	p.see("this neck ends at fret 22")
	p.pressLabelled("Undo")
	p.pressLabelled("Leave out 12, number 1")
	p.see("Choose at least one finger combination")
	p.pressLabelled("Add fingers 24")
	p.see("20 notes a pass")
	p.fill("Name of the drill", "Half made")
	p.do(chromedp.Reload())
	p.see("20 notes a pass")
	value := func() string {
		return evaluate[string](p, `document.querySelector('[aria-label="Name of the drill"]').value`)
	}
	assert.Equal(t, "Half made", value())
	assert.Equal(t, "24", evaluate[string](p, `document.querySelector('[aria-label="Combinations"]').value`))
	p.pressLabelled("Undo")
	p.until("the name before is back, after a reload", `document.querySelector('[aria-label="Name of the drill"]').value === 'New drill'`)
}

func TestRemarksAreMendedByAClick(t *testing.T) {
	p := atTheBench(t)
	p.fill("Combinations", "123 and so on")
	p.see("“and so on” is not understood")
	p.fill("Combinations", "123")
	p.pick("Slurs", "both")
	p.pick("Notes per beat", "4")
	p.see("50 notes", "starts on the click again after 2 passes, 100 notes")
	p.press("Add 2 notes to close with the beat")
	p.see("52 notes a pass")
	p.fill("Position", "1")
	p.family("Scale run")
	p.pick("Begin", "anywhere")
	p.fill("Position", "1")
	p.see("Reach", "must span", "It fits from position")
	p.click(`//li[contains(., 'Reach')]//button[contains(., 'Move to position')]`)
	p.until("the reach is mended", `![...document.querySelectorAll('.remarks .kind')].some(k => k.innerText === 'Reach')`)
}

// The hand is dragged along the neck and a finger set by pressing it.
func TestTheNeckIsPlayedWithTheMouse(t *testing.T) {
	p := atTheBench(t)
	p.until("the hand lies on the neck", `!!document.querySelector('.neck .hand') && document.querySelectorAll('.neck .wire').length > 4`)
	hand := p.grab(`document.querySelector('.neck .hand')`, 6, 14)
	hand.moveBy(evaluate[float64](p, `document.querySelectorAll('.neck .wire')[4].getBoundingClientRect().x`) + 8 - hand.x)
	p.until("the hand has moved", `Number(document.querySelector('[aria-label="Position"]').value) > 7`)
	hand.letGo(0)
	p.pressLabelled("Undo")
	p.until("one drag is one step", `document.querySelector('[aria-label="Position"]').value === '7'`)

	p.until("the neck has followed, and a finger is pressed", `(() => {
		const place = document.querySelector('[aria-label="String 3 fret 8, finger 2; press to change"]')
		place?.dispatchEvent(new MouseEvent('click', {bubbles: true}))
		return !!place
	})()`)
	p.click(`.menu button:nth-child(3)`)
	p.until("the finger is set", `!!document.querySelector('[aria-label="String 3 fret 8, finger 3; press to change"]')`)
	p.press("Use the proposed ones")
	p.until("the finger is proposed again", `!!document.querySelector('[aria-label="String 3 fret 8, finger 2; press to change"]')`)
}

func TestNotesOfOnesOwnByClickKeyAndTab(t *testing.T) {
	p := atTheBench(t)
	p.family("Your own notes")
	p.press("Clear")
	p.see("Put at least one note on the neck")
	p.do(chromedp.Focus(chromedp.CSS(`.neck svg`)))
	for _, key := range []string{kb.Enter, kb.ArrowRight, kb.ArrowRight, kb.Enter, kb.ArrowUp, kb.Enter} {
		p.do(chromedp.KeyEvent(key))
	}
	p.see("3 notes a pass")
	var places []string
	for _, n := range []string{"1", "2", "3"} {
		places = append(places, p.text(`.notes li:nth-child(`+n+`) .place`))
	}
	assert.Equal(t, []string{"3/5", "3/7", "2/7"}, places)
	evaluate[any](p, `(() => { const t = document.querySelector('textarea'); t.value = '2:5h8p5 1:5'; t.dispatchEvent(new Event('input')) })()`)
	p.press("Read this tab")
	p.see("4 notes a pass", "Fingers are proposed")
	evaluate[any](p, `(() => { const t = document.querySelector('textarea'); t.value = 'hello'; t.dispatchEvent(new Event('input')) })()`)
	p.press("Read this tab")
	p.see("holds no tablature")
}

func TestHearingIsOneKey(t *testing.T) {
	p := atTheBench(t)
	evaluate[any](p, `document.activeElement.blur()`)
	p.do(chromedp.KeyEvent("h"))
	p.see("Stop")
	p.until("a note sounds on the tab", `!!document.querySelector('.tab .now')`)
	p.do(chromedp.KeyEvent("h"))
	p.see("Hear it")
	assert.Zero(t, p.count(".tab .now"))
}

func TestEveryFormatIsTakenOut(t *testing.T) {
	p := atTheBench(t)
	p.fill("Name of the drill", "Out of here")
	for _, out := range []struct{ item, name, told string }{
		{"MusicXML", "Out-of-here.musicxml", "The pattern and the tempo ladder stay behind"},
		{"MIDI with click", "Out-of-here.mid", "written as texts"},
		{"Tab text", "Out-of-here.tab.txt", "The pattern and the tempo ladder stay behind"},
		{"Drill document", "Out-of-here.drill.json", "Everything is in it"},
		{"Sound with click", "Out-of-here.wav", "A recording holds what sounds"},
	} {
		p.press("Export")
		p.menu(out.item)
		p.see("Saved as "+out.name, out.told)
	}
	p.press("Export")
	p.menu("Sheet: print, PDF, SVG")
	p.see("Letter", "Out of here", "bpm, even", "Tempo table")
	p.click(`[aria-label="Staff"]`)
	p.until("staff, tab and neck are on the sheet", `['.staff svg', '.tab svg', '.neck svg'].every(s => document.querySelector('.paper ' + s))`)
	p.pick("Paper", "Letter")
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
	p.see("Import a file")
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{name}))
	p.see("2 notes a pass", "not saved yet")
	assert.Equal(t, "From outside", evaluate[string](p, `document.querySelector('[aria-label="Name of the drill"]').value`))

	// Of a whole piece, the bars that are to be drilled are chosen.
	name = filepath.Join(t.TempDir(), "piece.tab.txt")
	require.NoError(t, os.WriteFile(name, []byte("A piece\n\n"+strings.Repeat("3|-5-7-8-7-|\n\n", 200)), 0o600))
	p.do(chromedp.Navigate(h.base + "/drills"))
	p.see("Import a file")
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{name}))
	p.see("From piece.tab.txt", "bars 1 to 128 are read")
	p.accessible()
	p.fill("To bar", "2")
	p.press("Put it on the bench")
	p.see("8 notes a pass", "not saved yet")
}

// New drill is always new: what was begun before is offered and gone on with, not forced; saving keeps the focus where it was; save as new leaves the old one as it was.
func TestNewDrillsAreNew(t *testing.T) {
	p := atTheBench(t)
	p.fill("Name of the drill", "Begun on Monday")
	p.until("it is kept", `Object.keys(localStorage).some(k => k.startsWith('manudrill bench new') && localStorage[k].includes('Begun on Monday'))`)
	p.press("Drills")
	p.see("New drill")
	p.press("New drill")
	p.see("Begun and not saved", "Begun on Monday")
	name := `document.querySelector('[aria-label="Name of the drill"]').value`
	p.until("a new one lies there", name+` === 'New drill'`)
	p.press("Go on with it")
	p.until("the other one lies there", name+` === 'Begun on Monday'`)
	evaluate[any](p, `document.querySelector('[aria-label="Position"]').focus()`)
	p.do(chromedp.KeyEvent("s", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	p.see("version 1")
	p.until("the field has the focus still", `document.activeElement?.getAttribute('aria-label') === 'Position'`)
	p.fill("Position", "9")
	p.press("Save as new")
	p.see("Saved as a new drill: “Begun on Monday (new)”")
	assert.Equal(t, 9, p.h.latest().Path.Position)
	all, err := p.h.kept.Drills(p.h.ctx, store.Page{Limit: 2})
	require.NoError(t, err)
	assert.Equal(t, 7, all[1].File.Value.Drill.Path.Position, "the one it was made from is as it was kept")
	evaluate[any](p, `document.activeElement?.blur()`)
	p.do(chromedp.KeyEvent("?"))
	p.see("At the bench", "hear it, or stop", "Everywhere")
}

// allOrders opens all variations of one finger per fret.
func allOrders(t *testing.T) page {
	t.Helper()
	p := atTheBench(t)
	p.family("One finger per fret")
	p.see("24 notes a pass")
	p.press("All variations")
	p.see("24 drills, 6 min")
	p.until("the dialog stands still", `document.getAnimations().every(a => a.playState !== 'running')`)
	return p
}

func TestAllVariationsAreTheParts(t *testing.T) {
	p := allOrders(t)
	p.press("One drill of parts")
	p.see("1440 notes a pass", "not saved yet")
	p.until("each order is a part with its name", `[...document.querySelectorAll('[aria-label^="Name of part"]')].length === 24`)
}

func TestAllVariationsMakeABlock(t *testing.T) {
	p := allOrders(t)
	p.press("Save as a block")
	p.see("24 drills, 6 min", "One finger per fret, 4-3-2-1")
	p.until("every drill is on its tab", `document.querySelectorAll('.tab').length === 24`)
	p.fill("Name of the block", "Twenty-four orders")
	p.see("Renamed")
	p.pressLabelled("Leave out drill 2")
	p.see("23 drills, 5 min 45 s")
	p.until("the later change alone can be undone", `document.querySelectorAll('.undoable').length === 1`)
	p.press("Undo")
	p.see("24 drills, 6 min")
	p.pressLabelled("Move drill 24 up")
	p.until("the last is the last but one", `document.querySelectorAll('section h2')[22].innerText.endsWith('4-3-2-1')`)
	p.press("Keep all as drills")
	p.see("Kept: 24 drills")
	p.press("Assign")
	p.see("Assign “Twenty-four orders”")
	p.do(chromedp.KeyEvent(kb.Escape))
	p.press("One drill without a stop")
	p.see("without a stop", "not saved yet", "1440 notes a pass")
	p.press("Drills")
	p.press("Blocks")
	p.see("Twenty-four orders", "24 drills, 6 min")
}

func TestTheLibraryFindsAndKeeps(t *testing.T) {
	h := newHouse(t)
	h.onTheStand(shortDrill("Needle in the hay"))
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.see("Needle in the hay")
	p.more("Needle in the hay", "Folder and tags")
	p.see("stands")
	p.fill("Folder", "Sewing")
	p.fill("Tag", "sharp")
	p.click(`.el-dialog__footer .el-button--primary`)
	p.see("Sewing 1")
	p.pressLabelled("Favourite Needle in the hay")
	p.press("Sewing")
	p.see("Needle in the hay")
	p.press("Favourites")
	p.see("Needle in the hay")
	p.fill("Search the drills", "camel")
	p.see("No drill has all of this")
	p.fill("Search the drills", "needle sharp")
	p.see("Needle in the hay")

	p.press("Ready-made")
	p.see("First slurs", "Twenty-four orders")
	p.press("Hammer-ons 3-4")
	p.see("not saved yet", "8 notes a pass")
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
	p.press("Versioned")
	p.see("version 1, 1 take")
	p.fill("Position", "9")
	p.press("Save")
	p.see("version 2, 1 take")
	p.press("version 2")
	p.see("Version 1", "on the stand of "+student)
	p.click(`.el-dialog__headerbtn`)
	p.press("Assign")
	p.see("version 1")
	p.press("Give version 2")
	p.until("nobody is behind", `![...document.querySelectorAll('.el-dialog button')].some(b => b.innerText.includes('Give version'))`)
	a, err := h.kept.Stand(h.ctx, id)
	require.NoError(t, err)
	assert.Equal(t, 9, a.File.Value.Drill.Path.Position)
}

// Guitar and hand of a student change what fits and how the neck lies.
func TestADrillIsFittedToAStudent(t *testing.T) {
	p := atTheBench(t)
	p.family("One finger per fret")
	p.see("24 notes a pass")
	p.click(`.fit .el-select__wrapper`)
	p.until("the student is offered", `(() => {
		const item = [...document.querySelectorAll('.el-select-dropdown__item')].find(i => i.innerText === "`+student+`" && i.offsetParent)
		item?.click()
		return !!item
	})()`)
	p.click(`[aria-label="Fingers stay down going up"]`)
	p.press("Guitar and hand")
	p.see("Guitar and hand of "+student, "Comfortable reach, mm")
	p.fill("Fingers 1 and 4", "70")
	p.press("7 strings, B")
	p.click(`[aria-label="Left-handed: the neck is mirrored"]`)
	p.click(`.el-dialog__footer .el-button--primary`)
	p.see("Reach", "70 mm is comfortable for this hand", "It fits from position 7")
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
	p.pressLabelled("Undo")
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
	p.press("Rework")
	p.press("Make it your own notes")
	p.see("Click places on the neck", "20 notes a pass")
}

// The sheet is saved as it stands on the page, as SVG and as PDF: letters are outlines, so it
// looks so where no type of it is installed. Poppler, another's reader of PDF, finds a page of
// the paper's size with something on it.
func TestTheSheetIsSavedAsADrawing(t *testing.T) {
	p := atTheBench(t)
	p.fill("Name of the drill", "Drawn out")
	p.press("Export")
	p.menu("Sheet: print, PDF, SVG")
	p.see("Drawn out", "Tempo table")
	p.click(`[aria-label="Staff"]`)
	p.until("staff, tab and neck are on the sheet", `['.staff svg', '.tab svg', '.neck svg'].every(s => document.querySelector('.paper ' + s))`)
	evaluate[any](p, `(() => { window.kept = {}; const make = URL.createObjectURL; URL.createObjectURL = blob => {
		const reader = new FileReader(); reader.onload = () => { window.kept[blob.type] = reader.result }; reader.readAsDataURL(blob); return make(blob) } })()`)
	saved := func(button, media string) []byte {
		p.press(button)
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
	p.press("Print, PDF or SVG")
	p.see("On paper", "Tempo table")
	p.until("it is drawn", `['.tab svg', '.neck svg'].every(s => document.querySelector('.paper ' + s))`)
	assert.Equal(t, mira.Name, evaluate[string](p, `document.querySelector('[aria-label="Whom the sheet is for"]').value`))
	p.accessible()
}
