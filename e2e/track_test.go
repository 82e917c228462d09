//touches: web/src/views/glance web/src/views/plan web/src/views/review
//touches: web/src/components/roving.ts server/plans.go store/glance.go store/plans.go

package e2e_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/plan"
	"manudrill/core/simulate"
	"manudrill/e2e/browser"
	"manudrill/server"
	"manudrill/store"
)

// pupilOf adds a student of one's own with a drill of their own, and returns who it is
// and the assignment.
func (h *house) pupilOf(name, drill string) (store.Person, uuid.UUID) {
	t, ctx := h.t, h.ctx
	t.Helper()
	p := store.Person{ID: uuid.New(), Name: name, Role: store.Student, Demo: true}
	require.NoError(t, h.kept.AddPerson(ctx, p))
	h.people[name] = p
	id := uuid.New()
	require.NoError(t, h.kept.AddDrill(ctx, id, shortDrill(drill), store.Shelf{}))
	assignment, err := h.kept.Assign(ctx, id, p.ID)
	require.NoError(t, err)
	return p, assignment
}

func (h *house) playsTake(assignment uuid.UUID, at time.Time) uuid.UUID {
	t := h.t
	t.Helper()
	take := server.SimulatedTake{ID: uuid.New(), Assignment: assignment, Player: simulate.Player{Seed: 4, MotorMs: 3, SlurDropDB: 2, NoiseDB: -66}, RecordedAt: at}
	require.NoError(t, take.Make(h.ctx, h.kept))
	return take.ID
}

// From the glance to the take that shows it in two moves, by the keyboard alone; a chart
// says its numbers as a table too.
func TestTheGlanceByKeyboard(t *testing.T) {
	h := newHouse(t)
	mira, assignment := h.pupilOf("Mira Ostrand", "Glanced at")
	take := h.playsTake(assignment, time.Now().Add(-time.Hour))
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.press("goto:/students")
	p.see("glance", "Mira Ostrand")
	p.reads("Too early to tell")
	p.do(chromedp.KeyEvent("/"))
	p.until("the search has the focus", `document.activeElement.type === 'search'`)
	evaluate[any](p, `document.activeElement.value = ''`) // the driver's key arrives as text too
	p.do(chromedp.KeyEvent("ostrand glanced"))
	p.until("only she is left", `document.querySelectorAll('tbody').length >= 1 && document.querySelectorAll('tr.first').length === 1`)
	evaluate[any](p, `document.activeElement.blur()`)
	p.do(chromedp.KeyEvent(kb.ArrowDown))
	p.until("her row has the focus", `document.activeElement.getAttribute('aria-label') === 'Mira Ostrand'`)
	p.accessible()
	p.do(chromedp.KeyEvent("t"))
	p.until("it is the take that shows it", fmt.Sprintf(`location.pathname === '/takes/%s'`, take))
	p.do(chromedp.Navigate(h.base + "/students/" + mira.ID.String()))
	p.see("as-table")
	p.press("as-table")
	p.see("chart-table")
	p.accessible()
}

// A day is changed by keys, h.kept, undone; the student has it on the practice page, in one
// press on the stand.
func TestAPlanByKeyboard(t *testing.T) {
	h := newHouse(t)
	mira, assignment := h.pupilOf("Mira Planck", "Planned")
	ctx := h.ctx
	today, err := h.kept.Today(ctx)
	require.NoError(t, err)
	stand, err := h.kept.Stand(ctx, assignment)
	require.NoError(t, err)
	settings := plan.Usual(today)
	settings.Days, settings.Drills = []int{1, 2, 3, 4, 5, 6, 7}, []string{stand.DrillID.String()}
	settings.Rules = map[plan.RuleID]plan.Setting{plan.RestDays: {Off: true}}
	facts := plan.Facts{Today: today, Exercises: []plan.Exercise{{Drill: stand.DrillID.String(), Name: "Planned", Position: 7, Lowest: 5, Highest: 9}}}
	require.NoError(t, h.kept.PutPlan(ctx, mira.ID, 0, settings, plan.Make(settings, facts), today, nil))

	p := h.open(browser.Window{})
	p.enterAt(instructor, "/students/"+mira.ID.String()+"/plan")
	p.see("minutes-a-day")
	p.reads("warm-up: Planned")
	p.accessible()
	lines := func(of string) string { return fmt.Sprintf(`document.querySelectorAll('li%s .line.drill').length`, of) }
	require.Equal(t, 1, evaluate[int](p, lines(".today")))
	evaluate[any](p, `document.querySelector('li.today .line.drill').focus()`)
	p.do(chromedp.KeyEvent(kb.ArrowRight, chromedp.KeyModifiers(chromedp.ModifierAlt)))
	p.until("the line is on the day after", lines(".today")+` === 0`)
	p.reads("by hand")
	p.press("undo")
	p.until("it is back", lines(".today")+` === 1`)
	evaluate[any](p, `document.querySelector('li.today .line.warmUp').focus()`)
	p.do(chromedp.KeyEvent(kb.Delete))
	p.until("the warm-up is out", `document.querySelectorAll('li.today .line.warmUp').length === 0`)
	p.press("keep-plan")
	p.see("plan-state:kept")
	p.fill("minutes-a-day", "30")
	p.until("what was changed by hand stays", `document.querySelectorAll('li.today .line.warmUp').length === 0`)
	p.press("rules")
	p.reads("Slurring grows gently", "Tendons recover on days without slurs")
	p.accessible()

	s := h.open(browser.Window{})
	s.enter("Mira Planck")
	s.see("plan")
	s.reads("Today: ")
	s.accessible()
	s.press("today-on-stand")
	s.until("the stand runs the day", fmt.Sprintf(`location.pathname === '/routines/%s'`, today.Format(time.DateOnly)))
	s.reads("Planned, position")
}

// A take that waits is heard, gets a word, is accepted with one key, taken back and
// accepted again; the student is told until it was read.
func TestAReviewByKeys(t *testing.T) {
	h := newHouse(t)
	mira, assignment := h.pupilOf("Mira Waiting", "Waits")
	h.playsTake(assignment, time.Now().Add(-100*24*time.Hour)) // who waits longest comes first
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.press("goto:/review")
	p.see("every-note")
	p.reads("Mira Waiting")
	p.accessible()
	evaluate[any](p, `document.querySelector('[aria-label="A word to Mira Waiting"]').focus()`)
	p.do(chromedp.KeyEvent("Even to the end."))
	evaluate[any](p, `document.activeElement.blur()`)
	p.do(chromedp.KeyEvent("a"))
	p.reads("Mira Waiting: accepted.")
	p.until("she waits no more", `!document.querySelector('.queue')?.innerText.includes('Mira Waiting')`)
	p.press("undo-it")
	p.until("she waits again", `document.querySelector('.queue')?.innerText.includes('Mira Waiting')`)
	evaluate[any](p, `document.querySelector('[aria-label="A word to Mira Waiting"]').focus()`)
	p.do(chromedp.KeyEvent("Even to the end."))
	evaluate[any](p, `document.activeElement.blur()`)
	p.do(chromedp.KeyEvent("o"))
	p.reads("Mira Waiting: once more.")

	s := h.open(browser.Window{})
	s.enter("Mira Waiting")
	s.see("unread-reviews")
	s.reads("once more.", "“Even to the end.”")
	s.accessible()
	s.click(`[data-test=unread-reviews] a`)
	s.reads(instructor + ": once more.")
	s.do(chromedp.Navigate(h.base + "/practice"))
	s.see("put-on-stand")
	assert.NotContains(t, s.text("body"), "Your takes were heard")

	p.do(chromedp.Navigate(h.base + "/students/" + mira.ID.String() + "/lesson"))
	p.reads("To look at", "To hear", "To record now")
	p.do(chromedp.SendKeys(chromedp.CSS(`textarea`), "Third finger first."))
	p.press("note-it")
	p.reads("Lessons before", "Third finger first.")
	p.accessible()
}
