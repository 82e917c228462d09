//touches: web/src/views/account web/src/views/studio web/src/views/door server/accounts.go
//touches: server/people.go server/letters store/accounts.go cmd/house

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
	owner.see("not-signed-in")
	owner.see("not-begun")
	owner.accessible()
	owner.do(chromedp.Navigate(h.link))
	owner.see("begin-studio")
	owner.accessible()
	owner.fill("studio-name", "Fret House")
	owner.fill("own-name", "Oda Fernwick")
	owner.fill("sign-in", "oda")
	owner.fill("password", "four frets up")
	owner.press("begin")
	owner.see("no-drills")

	// Two students, of whom one stands in the list twice at first.
	owner.press("goto:/students")
	owner.see("no-students")
	owner.press("add-students")
	owner.fill("list", "Mira Tamsin"+kb.Enter+"Jon Akkert; ; Mondays"+kb.Enter+"Mira Tamsin")
	owner.see("lines-wrong", "1")
	owner.accessible()
	owner.fill("list", "Mira Tamsin"+kb.Enter+"Jon Akkert; ; Mondays")
	owner.press("add-now")
	owner.press("make-cards")
	owner.see("cards", "2")
	owner.accessible()
	codes := evaluate[map[string]string](owner, `Object.fromEntries([...document.querySelectorAll('.cards li')].map(c => [c.querySelector('h2').innerText, c.querySelector('.code').innerText]))`)
	require.Len(t, codes, 2)

	// One comes by the link and chooses a password, the other stays with the card.
	mira := h.open(phone)
	mira.do(chromedp.Navigate(h.at("/join#" + codes["Mira Tamsin"])))
	mira.see("joined", "Fret House")
	mira.reads("Mira Tamsin")
	mira.accessible()
	mira.fill("sign-in", "mira")
	mira.fill("password", "mira tamsin")
	mira.press("choose-these")
	mira.reads("hardly more than a name that others know")
	mira.fill("password", "third finger first")
	mira.press("choose-these")
	mira.see("no-drills")
	jon := h.open(phone)
	jon.do(chromedp.Navigate(h.at("/")))
	jon.see("way:card")
	jon.press("way:card")
	jon.fill("code", strings.ToLower(codes["Jon Akkert"]))
	jon.do(chromedp.KeyEvent(kb.Enter))
	jon.press("go-on-with-card")
	jon.see("no-drills")

	// A drill, and both have it.
	owner.do(chromedp.Navigate(h.at("/drills/new")))
	owner.see("notes-a-pass", "20")
	owner.press("ladder")
	owner.fill("targetBpm", "180")
	owner.fill("startBpm", "140")
	owner.press("save")
	owner.see("version", "1")
	owner.press("assign")
	owner.press("group:Mondays")
	owner.press("assign-to:Mira Tamsin")
	owner.accessible()
	owner.press("assign-now")
	owner.see("has-it", "140")

	// She plays at home, signed in by name and password; the server dies meanwhile.
	home := h.open(browser.Window{})
	home.hearsPlayer(soundsOf(t, []drillfile.File{onlyDrill(t, owner)}, 140))
	home.do(chromedp.Navigate(h.at("/practice")))
	home.see("not-signed-in")
	home.fill("sign-in", "mira")
	home.fill("password", "third finger first")
	home.do(chromedp.KeyEvent(kb.Enter))
	home.see("drill", "140")
	home.press("put-on-stand")
	home.see("notes-a-pass", "20")
	home.press("play")
	home.see("left", "1 of 2")
	h.kill()
	home.see("kept-here")
	h.serve()
	evaluate[any](home, `window.dispatchEvent(new Event('online'))`)
	home.see("right-notes", "40")
	home.see("verdict")
	home.see("all-figures")

	// The instructor hears it, comments, is answered, and sets the rung by hand.
	owner.do(chromedp.Navigate(h.at("/students")))
	owner.see("latest-takes")
	p := owner
	p.press("take")
	p.see("every-note")
	p.click(`.mark[aria-label]`)
	p.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="Comment on this note"]`), "Lift this one sooner."))
	p.press("pin")
	p.see("comment:Oda Fernwick", "Lift this one sooner.")

	home.do(chromedp.Navigate(h.at("/practice")))
	home.see("unread:1", "Lift this one sooner.")
	home.click(`[data-test=unread] a`)
	home.see("comment:Oda Fernwick", "Lift this one sooner.")
	home.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="Comment on this note"]`), "It hurts to lift."))
	home.press("pin")
	home.see("comment:Mira Tamsin", "It hurts to lift.")
	home.do(chromedp.Navigate(h.at("/practice")))
	home.see("put-on-stand")
	assert.NotContains(t, home.text("body"), "not read yet")

	owner.do(chromedp.Navigate(h.at("/students")))
	owner.see("unread:1", "It hurts to lift.")
	owner.press("student:Mira Tamsin")
	owner.see("about-them", "mira")
	owner.press("page:/about")
	owner.see("audit")
	owner.accessible()
	owner.press("page:/practice")
	owner.click(`article a`)
	owner.press("set-rung")
	owner.fill("bpm", "100")
	owner.fill("reason", "Until it no longer hurts.")
	owner.accessible()
	owner.press("set-rung-now")
	owner.see("moves", "100", "Oda Fernwick", "Until it no longer hurts.")
	home.do(chromedp.Reload())
	home.see("drill", "100")
	home.see("set-by", "Oda Fernwick", "Until it no longer hurts.")
	jon.do(chromedp.Reload())
	jon.see("drill", "140") // nobody else is moved

	// What was done to others' things is written down; other places say so.
	owner.press("goto:/studio")
	owner.see("teachers")
	owner.see("audit-lines", "Oda Fernwick")
	owner.accessible()
	jon.do(chromedp.Navigate(h.at("/studio")))
	jon.see("not-for-you:instructor")
	jon.see("here-as", "Jon Akkert")
	jon.do(chromedp.Navigate(h.at("/nowhere/at/all")))
	jon.see("nowhere")
	jon.accessible()
	jon.do(chromedp.Navigate(h.at("/me")))
	jon.see("comes-by-card")
	jon.accessible()
	jon.press("leave-everywhere")
	jon.see("come-in")
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
