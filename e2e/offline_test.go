//touches: web/src/offline web/src/device device

package e2e_test

import (
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"manudrill/core/practice"
	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
)

// A line leads to the house, until it is cut.
type line struct {
	t       testing.TB
	handler http.Handler
	address string
	srv     *httptest.Server
}

func (h *house) newLine() *line {
	l := &line{t: h.t, handler: h.handler, address: "127.0.0.1:0"}
	l.lay()
	h.t.Cleanup(func() { l.srv.Close() })
	return l
}

func (l *line) lay() {
	l.t.Helper()
	listener, err := net.Listen("tcp", l.address)
	require.NoError(l.t, err)
	l.address = listener.Addr().String()
	l.srv = httptest.NewUnstartedServer(l.handler)
	require.NoError(l.t, l.srv.Listener.Close())
	l.srv.Listener = listener
	l.srv.Start()
}

func (l *line) cut() {
	l.srv.CloseClientConnections()
	l.srv.Close()
}

// belowGround is a page that the student has opened over a line that can be cut, with what
// leads to its addresses.
func (h *house) belowGround(file drillfile.File) (l *line, p page, at func(path string) string) {
	l = h.newLine()
	at = func(path string) string { return "http://" + l.address + path }
	p = h.open(browser.Window{Keeps: true})
	p.hearsPlayer(soundsOf(h.t, []drillfile.File{file}, 120))
	p.do(chromedp.Navigate(at("/")), chromedp.WaitVisible(chromedp.CSS(`.choose li`)))
	p.press("person:" + student)
	p.see("leave")
	return l, p, at
}

// In a cellar: what was given is on the device, pages and all, and a routine begins and
// runs there without a line; what was played is handed in once there is one.
func TestAStandInACellar(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("In the cellar")
	path, assignments := h.onRoutine(practice.Routine{Name: "Down below", Items: []practice.Item{takesOf(file.Drill.Name, 1), {Kind: practice.Rest, Seconds: 5}}}, file)
	l, p, at := h.belowGround(file)
	p.reads("Down below")
	p.until("pages are seen to", `navigator.serviceWorker.ready.then(() => !!navigator.serviceWorker.controller)`)
	p.do(chromedp.Reload())
	p.reads("Down below")
	id := strings.TrimPrefix(path, "/routines/")
	answers := []string{"/", "/api/session", "/api/routines/" + id, "/api/routines/" + id + "/stands", "/api/students/" + h.people[student].ID.String() + "/hand"}
	p.until("all is on the device", `Promise.all([
		...`+inScript(answers)+`.map((a) => caches.match(a)),
		caches.open('manudrill files').then(async (c) => (await c.keys()).some((r) => r.url.includes('.wasm'))),
	]).then((all) => all.every(Boolean))`)

	l.cut()
	p.do(chromedp.Navigate(at(path)))
	p.see("judged:here")
	p.reads("Down below")
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "1 of 1")
	p.until("it is judged", `said.length === 1`)
	p.see("over")
	p.press("back-to-practice")
	p.see("unsent:1")
	p.reads("Today")

	l.lay()
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	p.until("it is handed in", `!document.body.innerText.includes('not handed in')`)
	require.Eventually(t, func() bool {
		stand, err := h.kept.Stand(h.ctx, assignments[0])
		return err == nil && stand.Takes == 1
	}, patience, 100*time.Millisecond)

	// Who leaves takes along what the studio has said.
	p.press("leave")
	p.reads("invented")
	p.until("it is forgotten", `caches.match('/api/session').then((a) => !a)`)
}

// Pain that is reported in a cellar holds there: on the stand, where a tempo is looked for and
// after the page is loaded again, until an instructor clears it; a clean take sends nobody up.
func TestPainHoldsInACellar(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("It hurts below")
	_, assignments := h.onRoutine(practice.Routine{Name: "Down below", Items: []practice.Item{takesOf(file.Drill.Name, 1)}}, file)
	stand := "/stand/" + assignments[0].String()
	l, p, at := h.belowGround(file)
	p.until("pages are seen to", `navigator.serviceWorker.ready.then(() => !!navigator.serviceWorker.controller)`)
	p.do(chromedp.Navigate(at(stand)))
	p.see("judged:here")
	answers := []string{"/", "/api/session", "/api/assignments/" + assignments[0].String(), "/api/students/" + h.people[student].ID.String() + "/hand"}
	p.until("all is on the device", `Promise.all(`+inScript(answers)+`.map((a) => caches.match(a))).then((all) => all.every(Boolean))`)

	l.cut()
	p.do(chromedp.KeyEvent("h"))
	p.see("stop-for-today")
	p.do(chromedp.Navigate(at(stand + "/tempo")))
	p.see("in-pain")
	p.do(chromedp.Navigate(at(stand)))
	p.see("in-pain")
	p.see("judged:here")
	p.do(chromedp.KeyEvent(" "))
	p.see("verdict:hold")
	p.reads("you have reported pain")

	l.lay()
	evaluate[any](p, `window.dispatchEvent(new Event('online'))`)
	require.Eventually(t, func() bool {
		hurts, err := h.kept.Hurts(h.ctx, h.people[student].ID)
		return err == nil && hurts
	}, patience, 100*time.Millisecond, "the studio is told")
	require.NoError(t, h.kept.ClearPain(h.ctx, h.people[student].ID))
	p.do(chromedp.Navigate(at(stand)))
	p.see("judged:here")
	p.until("it is over", `!document.querySelector('[data-test="in-pain"]')`)
}

// Who is tired rests on a stand as in a routine, and what was begun is no take that broke off.
func TestARestOnTheStand(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Tired")
	_, assignments := h.onRoutine(practice.Routine{Name: "Tiring", Items: []practice.Item{takesOf(file.Drill.Name, 1)}}, file)
	p := h.withPlayer(soundsOf(t, []drillfile.File{file}, 120))
	p.enterAt(student, "/stand/"+assignments[0].String())
	p.see("judged:here")
	p.do(chromedp.KeyEvent(" "))
	p.see("left")
	p.do(chromedp.KeyEvent("t"))
	p.see("rest", "Rest, and shake out")
	p.until("nothing is left over", `!document.querySelector('[data-test^="unsent"]')`)
	p.do(chromedp.KeyEvent(" "))
	p.see("left")
}
