package e2e_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"manudrill/e2e/browser"
)

// patience is how long a page may take to show what is waited for: a machine may
// be slow, and a test that passes does not wait.
const patience = 90 * time.Second

// A page is a browser tab in the hands of one person.
type page struct {
	t   testing.TB
	ctx context.Context
}

// open starts a browser of its own for a test.
func open(t testing.TB, o browser.Options) page {
	t.Helper()
	if o.Width == 0 {
		o.Width, o.Height = 1280, 800
	}
	tab, stop, err := browser.Start(t.Context(), o)
	require.NoError(t, err)
	t.Cleanup(stop)
	return page{t, tab}
}

// do runs steps and fails the test, with what the page shows, when they do not
// come through in time.
func (p page) do(steps ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(p.ctx, patience)
	defer cancel()
	if err := chromedp.Do(ctx, steps...); err != nil {
		p.t.Fatalf("%v\nThe page shows:\n%s", err, p.text("body"))
	}
}

func (p page) text(css string) string {
	ctx, cancel := context.WithTimeout(p.ctx, 5*time.Second)
	defer cancel()
	text, err := chromedp.Run(ctx, chromedp.Text(chromedp.CSS(css)))
	if err != nil {
		return err.Error()
	}
	return text
}

// see waits until the page shows every text, however its lines are broken.
func (p page) see(texts ...string) {
	p.t.Helper()
	for _, text := range texts {
		deadline := time.Now().Add(patience)
		for !strings.Contains(flat(p.text("body")), flat(text)) {
			if time.Now().After(deadline) {
				p.t.Fatalf("%q does not appear. The page shows:\n%s", text, p.text("body"))
			}
			time.Sleep(100 * time.Millisecond)
		}
	}
}

func flat(text string) string { return strings.Join(strings.Fields(text), " ") }

// press clicks the link or button with a text.
func (p page) press(text string) {
	p.t.Helper()
	where := fmt.Sprintf(`//*[self::a or self::button][contains(normalize-space(.), %q)]`, text)
	p.do(chromedp.Click(chromedp.Search(where)))
}

// choose sets a switch to the side with a text.
func (p page) choose(side string) {
	p.t.Helper()
	where := fmt.Sprintf(`//*[contains(@class, 'el-segmented__item')][normalize-space(.) = %q]`, side)
	p.do(chromedp.Click(chromedp.Search(where)))
}

// pick chooses one of a few on the bench.
func (p page) pick(group, option string) {
	p.t.Helper()
	where := fmt.Sprintf(`//*[@role='radiogroup'][@aria-label=%q]//button[normalize-space(.) = %q]`, group, option)
	p.do(chromedp.Click(chromedp.Search(where)))
}

// more opens a drill's further commands on the list and chooses one.
func (p page) more(drill, command string) {
	p.t.Helper()
	p.clickStill(fmt.Sprintf(`[aria-label=%q]`, "More for "+drill)) // the list may be moving
	p.menu(command)
}

// menu chooses from the menu that has opened.
func (p page) menu(item string) {
	p.t.Helper()
	p.until("the menu has "+item, fmt.Sprintf(`(() => {
		const item = [...document.querySelectorAll('.el-dropdown-menu__item')].find(i => i.innerText.trim() === %q && i.closest('.el-popper').ariaHidden === 'false')
		item?.click()
		return !!item
	})()`, item))
	p.until("the menu is closed", `![...document.querySelectorAll('.el-dropdown__popper')].some(m => m.ariaHidden === 'false')`)
}

// until waits for an expression of the page to become true.
func (p page) until(what, expression string) {
	p.t.Helper()
	deadline := time.Now().Add(patience)
	for !evaluate[bool](p, expression) {
		if time.Now().After(deadline) {
			p.t.Fatalf("in vain waited until %s. The page shows:\n%s", what, p.text("body"))
		}
		time.Sleep(100 * time.Millisecond)
	}
}

// family chooses a family on the bench by mouse.
func (p page) family(name string) {
	p.t.Helper()
	p.do(chromedp.Click(chromedp.CSS(`.family .el-select__wrapper`)))
	p.until("the family "+name+" is offered", fmt.Sprintf(`(() => {
		const item = [...document.querySelectorAll('.families .el-select-dropdown__item')].find(i => i.querySelector('b').innerText === %q && i.offsetParent)
		item?.click()
		return !!item
	})()`, name))
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

// pressLabelled clicks what is labelled for those who do not see it.
func (p page) pressLabelled(label string) {
	p.t.Helper()
	p.do(chromedp.Click(chromedp.CSS(fmt.Sprintf(`[aria-label=%q]`, label))))
}

// clickStill clicks what may still be moving into its place, as dialogs do.
func (p page) clickStill(css string) {
	p.t.Helper()
	p.do(chromedp.WaitVisible(chromedp.CSS(css)))
	evaluate[any](p, fmt.Sprintf(`document.querySelector(%q).click()`, css))
}

// fill types a value into a labelled field.
func (p page) fill(label, value string) {
	p.t.Helper()
	find := fmt.Sprintf(`document.querySelector('input[aria-label=%q], [aria-label=%q] input')`, label, label)
	evaluate[any](p, find+".focus(), "+find+".select()")
	p.do(chromedp.KeyEvent(value), chromedp.KeyEvent(kb.Tab))
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

// enter goes through the door as somebody.
func (p page) enter(name string) {
	p.t.Helper()
	p.do(chromedp.Navigate(base+"/"), chromedp.WaitVisible(chromedp.CSS(`.choose li`)))
	many := fmt.Sprintf(`[...document.querySelectorAll('.choose b')].filter(b => b.innerText.trim() === %q).length`, name)
	require.Equal(p.t, 1, evaluate[int](p, many), "people called %s: of two anyone might come in", name)
	p.do(chromedp.Click(chromedp.Search(fmt.Sprintf(`//*[contains(@class, 'choose')]//button[b[normalize-space(.) = %q]]`, name))))
	p.see("Leave")
}

// sitDown goes to a stand, on which a short drill lies, as the student.
func (p page) sitDown(stand string) {
	p.t.Helper()
	p.enter(student)
	p.do(chromedp.Navigate(base + stand))
	p.see("8 notes a pass")
}

// label types into the field with a label, in place of what is there.
func (p page) label(label, value string) {
	p.t.Helper()
	find := fmt.Sprintf(`document.getElementById([...document.querySelectorAll('label')].find(l => l.innerText.trim() === %q && l.htmlFor)?.htmlFor)`, label)
	p.until("there is a field "+label, "!!"+find)
	evaluate[any](p, find+".focus(), "+find+".select()")
	p.do(chromedp.KeyEvent(value))
}

// tick ticks the box with a label.
func (p page) tick(label string) {
	p.t.Helper()
	box := fmt.Sprintf(`[...document.querySelectorAll('.el-checkbox')].find(b => b.innerText.trim() === %q)`, label)
	p.until("there is a box "+label, "!!"+box)
	evaluate[any](p, box+".querySelector('input').click()")
}
