package e2e_test

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/network"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"manudrill/e2e/browser"
	"manudrill/store"
)

// patience is how long a page may take to show what is waited for: a machine may
// be slow, and a test that passes does not wait.
const patience = 90 * time.Second

// A page is a browser tab in the hands of one person.
type page struct {
	t   testing.TB
	h   *house
	ctx context.Context
}

// open opens a window on the house that shares nothing with any other.
func (h *house) open(w browser.Window) page {
	h.t.Helper()
	b, err := chromium()
	require.NoError(h.t, err)
	return h.openIn(b, w)
}

func (h *house) openIn(b *browser.Browser, w browser.Window) page {
	h.t.Helper()
	p := openIn(h.t, b, w)
	p.h = h
	return p
}

// openIn opens a window of a browser.
func openIn(t testing.TB, b *browser.Browser, w browser.Window) page {
	t.Helper()
	if w.Width == 0 {
		w.Width, w.Height = 1280, 800
	}
	tab, closeTab, err := b.Open(w)
	require.NoError(t, err)
	t.Cleanup(closeTab)
	return page{t: t, ctx: tab}
}

// begins has each page that is opened from now on begin with a script.
func (p page) begins(script string) {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: script})
	require.NoError(p.t, err)
}

// do runs steps and fails the test, with what the page shows, when they do not
// come through in time.
func (p page) do(steps ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	if err := chromedp.Do(ctx, steps...); err != nil {
		p.t.Fatalf("%v\nThe page shows:\n%s", err, p.shows())
	}
}

// text is what an element shows.
func (p page) text(css string) string {
	p.t.Helper()
	return evaluate[string](p, fmt.Sprintf(`document.querySelector(%q)?.innerText ?? ''`, css))
}

// shows is all that the page shows, for whoever reads why a test has failed.
func (p page) shows() string {
	ctx, cancel := context.WithTimeout(p.ctx, 5*time.Second)
	defer cancel()
	text, err := chromedp.Run(ctx, chromedp.Evaluate[string](`location.pathname + "\n" + document.body.innerText`))
	if err != nil {
		return err.Error()
	}
	return text
}

// reads waits until the page shows every text, however its lines are broken.
func (p page) reads(texts ...string) {
	p.t.Helper()
	for _, text := range texts {
		p.until(fmt.Sprintf("%q appears", text), fmt.Sprintf(`document.body?.innerText.replace(/\s+/g, ' ').includes(%s)`, inScript(flat(text))))
	}
}

func flat(text string) string { return strings.Join(strings.Fields(text), " ") }

// inScript is a value as a script has it.
func inScript(value any) string {
	raw, err := json.Marshal(value)
	if err != nil {
		panic(err) // texts and lists of them can be written
	}
	return string(raw)
}

// pressing presses what a selector finds, once it lies open: it is shown, can
// be pressed, and nothing lies over it. That is looked at and done in one go, so that it
// cannot move away in between.
const pressing = `((selector) => {
	const middle = (e) => {
		const box = e.getClientRects()[0]
		return box?.width && box.height ? [box.x + box.width / 2, box.y + box.height / 2] : undefined
	}
	for (let e of document.querySelectorAll(selector)) {
		if (e.matches('input') && !middle(e)) e = e.parentElement // which is drawn in its place
		const open = () => {
			const at = middle(e), over = at && document.elementFromPoint(...at)
			return e.contains(over) ? { at, over } : undefined
		}
		if (e.disabled || !middle(e)) continue
		if (!open()) e.scrollIntoView({ block: 'center', inline: 'center', behavior: 'instant' })
		const found = open()
		if (!found) continue
		const { at, over } = found
		const is = { bubbles: true, cancelable: true, composed: true, view: window, clientX: at[0], clientY: at[1], button: 0, detail: 1 }
		over.dispatchEvent(new PointerEvent('pointerdown', { ...is, isPrimary: true, buttons: 1 }))
		if (over.dispatchEvent(new MouseEvent('mousedown', { ...is, buttons: 1 }))) over.closest('a, button, input, select, textarea, summary, [tabindex]')?.focus()
		over.dispatchEvent(new PointerEvent('pointerup', { ...is, isPrimary: true }))
		over.dispatchEvent(new MouseEvent('mouseup', is))
		over.dispatchEvent(new MouseEvent('click', is))
		return true
	}
	return false
})`

// click presses what a selector finds.
func (p page) click(selector string) {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	press := chromedp.Evaluate[bool](pressing+"("+inScript(selector)+")", func(e *runtime.EvaluateParams) { e.UserGesture = new(true) })
	for {
		pressed, err := chromedp.Run(ctx, press)
		if pressed && err == nil {
			return
		}
		if ctx.Err() != nil {
			p.t.Fatalf("%s cannot be pressed (%v). The page shows:\n%s", selector, err, p.shows())
		}
		time.Sleep(40 * time.Millisecond)
	}
}

// named selects what is called so for tests: "name", or "name:which" where it is one of
// several. Words can change without a test.
func named(what string) string {
	name, which, one := strings.Cut(what, ":")
	if !one {
		return fmt.Sprintf(`[data-test=%q]`, name)
	}
	return fmt.Sprintf(`[data-test=%q][data-of=%q]`, name, which)
}

// press presses what is called so.
func (p page) press(what string) {
	p.t.Helper()
	p.click(named(what))
}

// see waits until something that is called so is shown and says some values: numbers, names,
// or what somebody has written.
func (p page) see(what string, values ...string) {
	p.t.Helper()
	p.until(fmt.Sprintf("%s says %q", what, values), fmt.Sprintf(`[...document.querySelectorAll(%s)].some((e) => {
		const says = e.innerText.replace(/\s+/g, ' ')
		const has = (value) => new RegExp('(?<![\\w.])' + value.replace(/[^\w\s]/g, '\\$&') + '(?![\\w.]*\\w)').test(says)
		return e.checkVisibility() && %s.every(has)
	})`, inScript(named(what)), inScript(append([]string{}, values...))))
}

// escape closes the dialog that is open.
func (p page) escape() {
	p.t.Helper()
	p.do(chromedp.KeyEvent(kb.Escape))
	p.until("the dialog is closed", `![...document.querySelectorAll('[role=dialog]')].some(d => d.checkVisibility())`)
}

// pick chooses one of a few.
func (p page) pick(group, value string) {
	p.t.Helper()
	p.click(named(group) + " " + fmt.Sprintf(`[data-of=%q]`, value))
}

// more opens a drill's further commands on the list and chooses one.
func (p page) more(drill, command string) {
	p.t.Helper()
	p.press("more:" + drill)
	p.menu("command", command)
}

// menu chooses from the menu that has opened.
func (p page) menu(name, item string) {
	p.t.Helper()
	p.press(name + ":" + item)
	p.until("the menu is closed", `![...document.querySelectorAll('[role=menu]')].some(m => m.checkVisibility())`)
}

// until waits for an expression of the page to become true, or a promise of that. It is
// looked at by the page itself; a page that is left meanwhile is looked at anew.
func (p page) until(what, expression string) {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	look := chromedp.Evaluate[bool](fmt.Sprintf(`new Promise((resolve) => {
		const end = performance.now() + 1000
		const look = async () => {
			const is = await (%s)
			is || performance.now() > end ? resolve(!!is) : setTimeout(look, 40)
		}
		void look().catch(() => resolve(false))
	})`, expression), chromedp.EvalAwaitPromise)
	for {
		is, err := chromedp.Run(ctx, look)
		if is && err == nil {
			return
		}
		if ctx.Err() != nil {
			p.t.Fatalf("in vain waited until %s (%v). The page shows:\n%s", what, err, p.shows())
		}
		time.Sleep(20 * time.Millisecond)
	}
}

// family chooses a family on the bench by mouse.
func (p page) family(id string) {
	p.t.Helper()
	p.press("family")
	p.press("family-option:" + id)
}

// tabTo goes on from element to element by the tab key until one with a label
// has the focus.
func (p page) tabTo(label string) {
	p.t.Helper()
	for range 90 {
		p.do(chromedp.KeyEvent(kb.Tab))
		if evaluate[string](p, `document.activeElement.getAttribute('aria-label') ?? document.activeElement.innerText`) == label {
			return
		}
	}
	p.t.Fatalf("%q is not reached by the tab key", label)
}

// fill types a value into a field, in place of what is there.
func (p page) fill(name, value string) {
	p.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll(%s)].map(e => e.matches('input, textarea') ? e : e.querySelector('input, textarea')).find(e => e?.checkVisibility())`, inScript(named(name)))
	p.until("there is a field "+name, "!!"+find)
	evaluate[any](p, find+".focus()")
	p.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)), chromedp.KeyEvent(value), chromedp.KeyEvent(kb.Tab))
}

// count returns how many elements match.
func (p page) count(css string) int {
	p.t.Helper()
	return evaluate[int](p, fmt.Sprintf(`document.querySelectorAll(%q).length`, css))
}

func evaluate[T any](p page, expression string) T {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	v, err := chromedp.Run(ctx, chromedp.Evaluate[T](expression, chromedp.EvalAwaitPromise))
	require.NoError(p.t, err)
	return v
}

// enter comes in as somebody, without the door, and goes where they begin.
func (p page) enter(name string) {
	p.t.Helper()
	home := "/drills"
	if p.h.people[name].Role == store.Student {
		home = "/practice"
	}
	p.enterAt(name, home)
}

// enterAt comes in as somebody, without the door, and goes to a page.
func (p page) enterAt(name, path string) {
	p.t.Helper()
	who, known := p.h.people[name]
	require.True(p.t, known, "there is nobody called %s", name)
	req, err := http.NewRequestWithContext(p.ctx, http.MethodPut, p.h.base+"/api/session", strings.NewReader(fmt.Sprintf(`{"personId": "%s"}`, who.ID)))
	require.NoError(p.t, err)
	req.Header.Set("Content-Type", "application/json")
	answer, err := http.DefaultClient.Do(req)
	require.NoError(p.t, err)
	require.NoError(p.t, answer.Body.Close())
	require.Equal(p.t, http.StatusOK, answer.StatusCode)
	for _, c := range answer.Cookies() {
		_, err := chromedp.Call(p.ctx, network.SetCookie, network.SetCookieParams{Name: c.Name, Value: c.Value, URL: p.h.base, HTTPOnly: &c.HttpOnly})
		require.NoError(p.t, err)
	}
	p.do(chromedp.Navigate(p.h.base + path))
	p.until("the page is there", `!!document.querySelector('#app main')?.firstElementChild`) // and hears keys
}

// enterByTheDoor chooses oneself at the door.
func (p page) enterByTheDoor(name string) {
	p.t.Helper()
	p.do(chromedp.Navigate(p.h.base + "/"))
	p.press("person:" + name)
	p.see("leave")
}

// sitDown goes to a stand, on which a short drill lies, as the student.
func (p page) sitDown(stand string) {
	p.t.Helper()
	p.enterAt(student, stand)
	p.see("notes-a-pass", "8")
}
