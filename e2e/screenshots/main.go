// Command screenshots takes the pictures of docs/screenshots from a running
// demo.
package main

import (
	"context"
	"flag"
	"fmt"
	"log"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/e2e/browser"
	"manudrill/formats/sound"
)

func main() {
	base := flag.String("base", "http://127.0.0.1:8765", "address of a running demo")
	out := flag.String("out", "docs/screenshots", "folder for the pictures")
	width := flag.Int("width", 1280, "width of the window")
	height := flag.Int("height", 800, "height of the window; 0 takes the whole page")
	only := flag.String("only", "", "take only pictures whose name holds this")
	flag.BoolVar(&paper, "pdf", false, "print the page as the browser would, as a PDF file")
	look := flag.String("look", "", "take one picture of this path instead, as somebody signed in")
	as := flag.String("as", instructor, "who looks")
	press := flag.String("press", "", "what is pressed before, by its text, one after another with | between; #a is a script")
	flag.Parse()
	if *look != "" {
		views = []view{oneLook(*as, *look, *press)}
	}
	if err := shoot(*base, *out, *width, *height, *only); err != nil {
		log.Fatal(err)
	}
}

// paper is whether pages are printed instead of pictured.
var paper bool

// A view is one picture: who looks, and how they get there.
type view struct {
	name string
	who  string
	path string
	then []step
}

// A step is one thing done in the browser.
type step = chromedp.Action[chromedp.Void]

const (
	instructor = "Oda Fernwick"
	student    = "Lena Quarrow"
)

func click(text string) step {
	return chromedp.Click(chromedp.Search(fmt.Sprintf(`//*[self::a or self::button][contains(normalize-space(.), %q)]`, text)))
}

// family chooses a family on the bench.
func family(name string) step {
	return script(fmt.Sprintf(`document.querySelector('.family .el-select__wrapper').click(); setTimeout(() =>
		[...document.querySelectorAll('.families .el-select-dropdown__item')].find(i => i.innerText.startsWith(%q)).click(), 400)`, name))
}

// item chooses from an open menu.
func item(text string) step {
	return script(fmt.Sprintf(`[...document.querySelectorAll('.el-dropdown-menu__item')].find(i => i.innerText.trim() === %q).click()`, text))
}

func script(code string) step {
	return func(ctx context.Context, t *chromedp.Target) (none chromedp.Void, err error) {
		_, err = chromedp.Evaluate[any](code)(ctx, t)
		return none, err
	}
}

// oneLook is a picture of any page, for whoever changes it.
func oneLook(as, path, press string) view {
	v := view{name: "look", who: as, path: path}
	for text := range strings.SplitSeq(press, "|") {
		if code, is := strings.CutPrefix(text, "#"); is {
			v.then = append(v.then, script(code), settle)
		} else if text != "" {
			v.then = append(v.then, click(text), settle)
		}
	}
	return v
}

var views = []view{
	{"door", "", "/", nil},
	{"drills", instructor, "/drills", nil},
	{"bench", instructor, "/drills", []step{click("Up and down 1-3-4"), settle, settle}},
	{"bench-hands", instructor, "/drills/new", []step{family("Two-hand arpeggio"), settle, click("both"), settle}},
	{"print", instructor, "/drills", []step{
		click("Pull-off pairs"), settle, click("Export"), settle, item("Sheet: print, PDF, SVG"), settle, settle,
	}},
	{"students", instructor, "/students", nil},
	{"student", instructor, "/students", []step{chromedp.Click(chromedp.Search(`//td/a[. = "Pim Haskett"]`)), settle, settle}},
	{"lesson", instructor, "/students", []step{chromedp.Click(chromedp.Search(`//td/a[. = "Rufus Ombry"]`)), settle, click("Lesson"), settle}},
	{"plan", instructor, "/students", []step{chromedp.Click(chromedp.Search(`//td/a[. = "Lena Quarrow"]`)), settle, chromedp.Click(chromedp.Search(`//nav[contains(@class, "pages")]//a[. = "Plan"]`)), settle, settle, script(`document.querySelector('.board').scrollIntoView()`), settle}},
	{"review", instructor, "/review", []step{settle}},
	{"studio", instructor, "/studio", nil},
	{"practice", student, "/practice", nil},
	{"progress", student, "/practice", []step{chromedp.Click(chromedp.Search(`//section[h2[. = "Up and down 1-3-4"]]//a[. = "Progress"]`)), settle}},
	{"stand", student, "/practice", []step{click("Put on the stand"), settle}},
	{"stand-playing", student, "/practice", []step{click("Put on the stand"), settle, click("Play"), chromedp.Sleep(6500 * time.Millisecond)}},
	{"compose", instructor, "/students", []step{chromedp.Click(chromedp.Search(`//td/a[. = "Lena Quarrow"]`)), settle, chromedp.Click(chromedp.Search(`//nav[contains(@class, "pages")]//a[. = "Practice"]`)), settle, click("Even before fast"), settle}},
	{"verdict", student, "/practice", []step{
		click("Put on the stand"), settle, chromedp.Click(chromedp.Search(`//summary[contains(., "Try it out")]`)), settle, click("Let it play"),
		chromedp.WaitVisible(chromedp.CSS(`.verdict`)), settle,
	}},
	{"take", "Ishi Corvane", "/practice", []step{
		chromedp.Click(chromedp.Search(`(//tr[contains(., "Pull-off pairs")])[last()]//a`)), settle,
		chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, 2, 400), settle,
	}},
	{"beside", instructor, "/students", []step{latestTake("Sol Marrik"), settle, besideEarliest, settle, top("Another take beside it"), settle}},
}

// latestTake opens the latest take of a student.
func latestTake(of string) step {
	return chromedp.Click(chromedp.Search(fmt.Sprintf(`(//tr[contains(., %q)]//a[contains(@href, "/takes/")])[1]`, of)))
}

// besideEarliest sets the student's first take of the drill beside the one shown.
var besideEarliest = script(`(() => {
	const choice = [...document.querySelectorAll('select')].at(-1), drill = document.querySelector('h1').innerText
	const own = [...choice.options].filter(o => o.innerText.trim().startsWith(drill))
	choice.value = (own.at(-1) ?? choice.options[choice.options.length - 1]).value
	choice.dispatchEvent(new Event('change'))
})()`)

// top brings a heading to the top of the window.
func top(heading string) step {
	return script(fmt.Sprintf(`[...document.querySelectorAll('h2')].find(h => h.innerText === %q).closest('section').scrollIntoView()`, heading))
}

var settle = chromedp.Sleep(900 * time.Millisecond)

func shoot(base, out string, width, height int, only string) error {
	if err := os.MkdirAll(out, 0o755); err != nil {
		return err
	}
	viewHeight := height
	if height == 0 {
		viewHeight = 800
	}
	guitar, err := somebodyPlays()
	if err != nil {
		return err
	}
	defer os.Remove(guitar)
	b, err := browser.Start(context.Background(), browser.Microphone{WAV: guitar})
	if err != nil {
		return err
	}
	defer b.Stop()
	tab, closeTab, err := b.Open(browser.Window{Width: width, Height: viewHeight})
	if err != nil {
		return err
	}
	defer closeTab()
	for _, v := range views {
		if !strings.Contains(v.name, only) {
			continue
		}
		if err := v.shoot(tab, base, out, height == 0); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
	}
	return nil
}

// somebodyPlays writes a recording that the browser takes for its microphone.
func somebodyPlays() (name string, err error) {
	d := drill.New("somebody", drill.SlurCombinations{Combinations: [][]int{{1, 3, 4}}, Slur: drill.BothSlurs})
	d.Rhythm.Passes = 10
	chart, err := d.Chart(guitar.Standard(), 90)
	if err != nil {
		return "", err
	}
	_, x, err := simulate.Player{Seed: 3, MotorMs: 5, NoiseDB: -66}.Take(chart)
	if err != nil {
		return "", err
	}
	name = filepath.Join(os.TempDir(), "manudrill-somebody.wav")
	return name, os.WriteFile(name, sound.FromMono(simulate.Rate, x).EncodeWAV(), 0o644)
}

func (v view) shoot(tab context.Context, base, out string, whole bool) error {
	steps := []step{chromedp.Navigate(base + "/"), chromedp.WaitVisible(chromedp.CSS(`.choose li`))}
	if v.who != "" {
		steps = append(steps, click(v.who), settle, chromedp.Navigate(base+v.path))
	}
	steps = append(steps, settle)
	steps = append(steps, v.then...)
	ctx, cancel := context.WithTimeout(tab, 40*time.Second)
	defer cancel()
	if err := chromedp.Do(ctx, steps...); err != nil {
		return err
	}
	if paper {
		printed, err := chromedp.Call(ctx, page.PrintToPDF, page.PrintToPDFParams{PreferCSSPageSize: new(true), PrintBackground: new(true)})
		if err != nil {
			return err
		}
		return os.WriteFile(filepath.Join(out, v.name+".pdf"), printed.Data, 0o644)
	}
	take := chromedp.CaptureScreenshot()
	if whole {
		take = chromedp.FullScreenshot(100)
	}
	picture, err := chromedp.Run(ctx, take)
	if err != nil {
		return err
	}
	return os.WriteFile(filepath.Join(out, v.name+".png"), picture, 0o644)
}
