package e2e_test

import (
	"fmt"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
)

// A mouse holds an element, which follows it wherever it goes.
type mouse struct {
	p    page
	x, y float64 // where it took hold, px
}

// grab takes hold of the element that an expression finds, at a place from its left edge
// and its middle, px. The page may move until it is held.
func (p page) grab(element string, x, y float64) mouse {
	p.t.Helper()
	for end := time.Now().Add(patience); time.Now().Before(end); {
		at := evaluate[[]float64](p, fmt.Sprintf(`(() => {
			const box = (%s).getBoundingClientRect()
			return [box.x + %g, box.y + box.height / 2 + %g]
		})()`, element, x, y))
		m := mouse{p, at[0], at[1]}
		m.does(input.DispatchMouseEventTypeMousePressed, 0)
		if evaluate[bool](p, fmt.Sprintf(`(%s).hasPointerCapture(1)`, element)) { // the mouse is the first pointer
			return m
		}
		m.letGo(0)
	}
	p.t.Fatalf("%s is not to be grabbed. The page shows:\n%s", element, p.shows())
	return mouse{}
}

// moveBy moves what is held, px from where it was taken hold of.
func (m mouse) moveBy(x float64) { m.p.t.Helper(); m.does(input.DispatchMouseEventTypeMouseMoved, x) }

// letGo lets go of what is held.
func (m mouse) letGo(x float64) { m.p.t.Helper(); m.does(input.DispatchMouseEventTypeMouseReleased, x) }

func (m mouse) does(what input.DispatchMouseEventType, x float64) {
	m.p.t.Helper()
	m.p.do(chromedp.MouseEvent(what, m.x+x, m.y, chromedp.ButtonType(input.MouseButtonLeft)))
}
