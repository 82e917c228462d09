package e2e_test

import (
	"bufio"
	"encoding/json"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
)

// A program is Manudrill itself, serving data of its own.
type program struct {
	t       *testing.T
	file    string
	data    string
	address string
	cmd     *exec.Cmd
	link    string // to begin a studio
}

func begun(t *testing.T) *program {
	t.Helper()
	data, err := os.MkdirTemp("/tmp", "manudrill-house-")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(data, 0o755))
	h := &program{t: t, file: filepath.Join(data, "manudrill"), data: data}
	out, err := exec.Command("go", "build", "-o", h.file, "../cmd/manudrill-house").CombinedOutput()
	require.NoError(t, err, "%s", out)
	l, err := net.Listen("tcp", "127.0.0.1:0") // a port that is free, to come back to
	require.NoError(t, err)
	h.address = l.Addr().String()
	require.NoError(t, l.Close())
	t.Cleanup(func() {
		if h.cmd != nil {
			_ = h.cmd.Process.Signal(syscall.SIGTERM)
			_ = h.cmd.Wait()
		}
		assert.NoError(t, os.RemoveAll(data))
	})
	h.serve()
	return h
}

// serve starts the server and waits until it says where it is.
func (h *program) serve() {
	h.t.Helper()
	h.cmd = exec.Command(h.file, "serve", "--listen", h.address)
	h.cmd.Env = append(os.Environ(), "MANUDRILL_DATA="+h.data)
	h.cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGTERM}
	out, err := h.cmd.StdoutPipe()
	require.NoError(h.t, err)
	require.NoError(h.t, h.cmd.Start())
	serves := make(chan string, 1)
	go func() {
		link := regexp.MustCompile(`http://\S+/begin#\S+`)
		found := ""
		for lines := bufio.NewScanner(out); lines.Scan(); {
			if found = link.FindString(lines.Text()); found != "" || strings.Contains(lines.Text(), "Manudrill is at") && h.link != "" {
				serves <- found
			}
		}
		close(serves)
	}()
	select {
	case link, is := <-serves:
		require.True(h.t, is, "the server does not start")
		if link != "" {
			h.link = link
		}
	case <-time.After(time.Minute):
		h.t.Fatal("the server does not say where it is")
	}
}

// kill ends the server at once, as a fault would.
func (h *program) kill() {
	h.t.Helper()
	require.NoError(h.t, h.cmd.Process.Kill())
	_ = h.cmd.Wait()
	h.cmd = nil
}

// open opens a window that shares nothing with any other.
func (h *program) open(w browser.Window) page {
	h.t.Helper()
	b, err := chromium()
	require.NoError(h.t, err)
	return openIn(h.t, b, w)
}

func (h *program) at(path string) string { return "http://" + h.address + path }

// Whoever starts Manudrill with nothing in it teaches with it: a studio is begun,
// two students come in by link and by card, a drill is made, assigned and played,
// handed in though the server is killed, commented on, answered, and the rung set by
// hand. Every page on the way keeps to WCAG 2.1 A and AA as far as axe-core tells.
func TestAStudioOfOnesOwn(t *testing.T) {
	t.Parallel()
	h := begun(t)
	owner := h.open(browser.Window{})
	owner.do(chromedp.Navigate(h.at("/drills")))
	owner.see("No studio here yet", "You are not signed in")
	owner.accessible()
	owner.do(chromedp.Navigate(h.link))
	owner.see("Begin your studio")
	owner.accessible()
	owner.label("Name of the studio", "Fret House")
	owner.label("Your name", "Oda Fernwick")
	owner.label("Name you sign in with", "oda")
	owner.label("Password", "four frets up")
	owner.press("Begin")
	owner.see("No drill yet")

	// Two students, of whom one stands in the list twice at first.
	owner.press("Students")
	owner.see("No students yet")
	owner.press("Add students")
	owner.label("One name a line, or paste from a table: name, e-mail, group", "Mira Tamsin"+kb.Enter+"Jon Akkert; ; Mondays"+kb.Enter+"Mira Tamsin")
	owner.see("The same name stands in line 1", "1 line is to mend")
	owner.accessible()
	owner.do(chromedp.KeyEvent(strings.Repeat(kb.Backspace, len("Mira Tamsin\n"))))
	owner.press("Add 2 students")
	owner.press("Make 2 cards")
	owner.see("2 cards", "the codes are told this once")
	owner.accessible()
	codes := evaluate[map[string]string](owner, `Object.fromEntries([...document.querySelectorAll('.cards li')].map(c => [c.querySelector('h2').innerText, c.querySelector('.code').innerText]))`)
	require.Len(t, codes, 2)

	// One comes by the link and chooses a password, the other stays with the card.
	mira := h.open(phone)
	mira.do(chromedp.Navigate(h.at("/join#" + codes["Mira Tamsin"])))
	mira.see("Hello Mira Tamsin", "You are in, at Fret House")
	mira.accessible()
	mira.label("Name to sign in with", "mira")
	mira.label("Password", "mira tamsin")
	mira.press("Choose these")
	mira.see("hardly more than a name that others know")
	mira.label("Password", "third finger first")
	mira.press("Choose these")
	mira.see("Nothing to practise yet")
	jon := h.open(phone)
	jon.do(chromedp.Navigate(h.at("/")))
	jon.see("I have a card")
	jon.choose("I have a card")
	jon.label("Code on the card", strings.ToLower(codes["Jon Akkert"]))
	jon.do(chromedp.KeyEvent(kb.Enter))
	jon.press("Go on with the card")
	jon.see("Nothing to practise yet")

	// A drill, and both have it.
	owner.do(chromedp.Navigate(h.at("/drills/new")))
	owner.see("20 notes a pass")
	evaluate[any](owner, `[...document.querySelectorAll('summary')].find(s => s.innerText.includes('Tempo ladder')).click()`)
	owner.fill("Target, bpm", "180")
	owner.fill("Start, bpm", "140")
	owner.press("Save")
	owner.see("version 1")
	owner.press("Assign")
	owner.press("Mondays")
	owner.tick("Mira Tamsin")
	owner.accessible()
	owner.press("Assign to 2 students")
	owner.see("has it, at 140 bpm")

	// She plays at home, signed in by name and password; the server dies meanwhile.
	home := h.open(browser.Window{})
	home.hearsPlayer(soundsOf(t, []drillfile.File{onlyDrill(t, owner)}, 140))
	home.do(chromedp.Navigate(h.at("/practice")))
	home.see("You are not signed in", "Practice")
	home.label("Name you sign in with", "mira")
	home.label("Password", "third finger first")
	home.do(chromedp.KeyEvent(kb.Enter))
	home.see("140 bpm", "Not played yet")
	home.press("Put on the stand")
	home.see("20 notes a pass")
	home.press("Play")
	home.see("pass 1 of 2")
	h.kill()
	home.see("The take is kept on this device")
	h.serve()
	evaluate[any](home, `window.dispatchEvent(new Event('online'))`)
	home.see("of 40", "Timing spread", "All figures, and listen to it")

	// The instructor hears it, comments, is answered, and sets the rung by hand.
	owner.do(chromedp.Navigate(h.at("/students")))
	owner.see("Latest takes")
	p := owner
	p.click(`//section[h2[normalize-space(.) = "Latest takes"]]//td/a`)
	p.see("Every note")
	p.click(`.mark[aria-label]`)
	p.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="Comment on this note"]`), "Lift this one sooner."))
	p.press("Pin comment")
	p.see("Oda Fernwick: Lift this one sooner.")

	home.do(chromedp.Navigate(h.at("/practice")))
	home.see("1 comment not read yet", "“Lift this one sooner.”")
	home.click(`[aria-label="Comments not read yet"] a`)
	home.see("Oda Fernwick: Lift this one sooner.")
	home.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="Comment on this note"]`), "It hurts to lift."))
	home.press("Answer")
	home.see("Mira Tamsin: It hurts to lift.")
	home.do(chromedp.Navigate(h.at("/practice")))
	home.see("Put on the stand")
	assert.NotContains(t, home.text("body"), "not read yet")

	owner.do(chromedp.Navigate(h.at("/students")))
	owner.see("1 comment not read yet", "“It hurts to lift.”")
	owner.click(`//td/a[normalize-space(.) = "Mira Tamsin"]`)
	owner.see("signs in as mira")
	owner.press("About")
	owner.see("What instructors did")
	owner.accessible()
	owner.press("Practice")
	owner.click(`article a`)
	owner.press("Set the rung")
	owner.fill("Tempo, bpm", "100")
	owner.label("Reason", "Until it no longer hurts.")
	owner.accessible()
	owner.click(`//*[@role='dialog']//button[normalize-space(.) = "Set the rung"]`)
	owner.see("set to 100 bpm", "Oda Fernwick: “Until it no longer hurts.”")
	home.do(chromedp.Reload())
	home.see("100 bpm", "Oda Fernwick has set this: “Until it no longer hurts.”")
	jon.do(chromedp.Reload())
	jon.see("140 bpm") // nobody else is moved

	// What was done to others' things is written down; other places say so.
	owner.press("Studio")
	owner.see("Oda Fernwick set the rung of", "Who teaches here")
	owner.accessible()
	jon.do(chromedp.Navigate(h.at("/studio")))
	jon.see("This page is for instructors", "You are here as Jon Akkert")
	jon.do(chromedp.Navigate(h.at("/nowhere/at/all")))
	jon.see("There is no page at this address")
	jon.accessible()
	jon.do(chromedp.Navigate(h.at("/me")))
	jon.see("You come in by the code on your card")
	jon.accessible()
	jon.press("Leave on all devices")
	jon.see("Come in")
	jon.accessible()
}

// onlyDrill is the one drill there is.
func onlyDrill(t *testing.T, p page) drillfile.File {
	t.Helper()
	raw := evaluate[string](p, `fetch('/api/drills').then(r => r.json()).then(d => JSON.stringify(d.items[0].file))`)
	var file drillfile.File
	require.NoError(t, json.Unmarshal([]byte(raw), &file))
	return file
}
