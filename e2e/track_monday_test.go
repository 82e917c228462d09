//touches: web/src/views/review web/src/views/students web/src/views/plan web/src/views/report
//touches: web/src/goto.ts server/assignments.go

package e2e_test

import (
	"context"
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/practice"
	"manudrill/core/simulate"
	"manudrill/e2e/browser"
	"manudrill/server"
	"manudrill/store"
)

// A monday is a studio with what an instructor finds on one: eight takes that wait, one
// student in pain, and a new one with three drills and no plan.
type monday struct {
	h          *house
	ctx        context.Context
	instructor string
	fresh      store.Person
	stands     []uuid.UUID // assignments of which a take waits
}

func newMonday(h *house, who string) monday {
	t := h.t
	t.Helper()
	studio := uuid.New()
	require.NoError(t, h.kept.AddStudio(t.Context(), studio, "Monday of "+who))
	m := monday{h: h, ctx: store.Within(t.Context(), store.Scope{Studio: studio}), instructor: who}
	add := func(name, role string) store.Person {
		p := store.Person{ID: uuid.New(), Name: name, Role: role, Demo: true}
		require.NoError(t, h.kept.AddPerson(m.ctx, p))
		h.people[name] = p
		return p
	}
	add(who, store.Owner)
	var drills []uuid.UUID
	for i := range 3 {
		id := uuid.New()
		require.NoError(t, h.kept.AddDrill(m.ctx, id, shortDrill(fmt.Sprintf("Monday drill %d", i+1)), store.Shelf{}))
		drills = append(drills, id)
	}
	for i := range 4 {
		p := add(fmt.Sprintf("Student %d of %s", i+1, who), store.Student)
		for _, d := range drills[:2] {
			a, err := h.kept.Assign(m.ctx, d, p.ID)
			require.NoError(t, err)
			take := server.SimulatedTake{ID: uuid.New(), Assignment: a, RecordedAt: time.Now().Add(-time.Duration(len(m.stands)+2) * time.Hour),
				Player: simulate.Player{Seed: uint64(4 + i), MotorMs: 3, SlurDropDB: 2, NoiseDB: -66}}
			require.NoError(t, take.Make(m.ctx, h.kept))
			m.stands = append(m.stands, a)
		}
		if i == 2 {
			require.NoError(t, h.kept.AddHandReport(m.ctx, uuid.New(), p.ID, time.Now().Add(-time.Hour), practice.HandReport{Kind: practice.IsHurt}))
		}
	}
	m.fresh = add("Zora of "+who, store.Student)
	for _, d := range drills {
		_, err := h.kept.Assign(m.ctx, d, m.fresh.ID)
		require.NoError(t, err)
	}
	return m
}

// done asserts that all of the Monday was.
func (m monday) done(t *testing.T) {
	t.Helper()
	waiting, err := m.h.kept.TakesToReview(m.ctx)
	require.NoError(t, err)
	assert.Empty(t, waiting, "eight takes are reviewed")
	set := 0
	for _, id := range m.stands {
		s, err := m.h.kept.Stand(m.ctx, id)
		require.NoError(t, err)
		if s.Set != nil {
			set++
			assert.Contains(t, s.Set.Reason, "After your take of")
		}
	}
	assert.Equal(t, 3, set, "three ladders are adjusted")
	p, err := m.h.kept.Plan(m.ctx, m.fresh.ID)
	require.NoError(t, err)
	assert.Len(t, p.Plan.Value.Weeks, 4)
	assert.NotEqual(t, p.Plan.Value.Weeks[0].Positions, p.Plan.Value.Weeks[1].Positions, "positions go round")
}

// hands count what they do.
type hands struct {
	page
	n int
}

func (h *hands) press(what string) {
	h.t.Helper()
	h.page.press(what)
	h.n++
}

func (h *hands) key(key string, modifiers ...chromedp.KeyOption) {
	h.t.Helper()
	h.do(chromedp.KeyEvent(key, modifiers...))
	h.n++
}

// goTo presses G and the letter of a page, as quickly as both must be.
func (h *hands) goTo(letter string) {
	h.t.Helper()
	evaluate[any](h.page, fmt.Sprintf(`for (const key of ['g', %q]) document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))`, letter))
	h.n += 2
}

// at says what was counted since the last time it was asked.
func (h *hands) at(what string, most int) {
	h.t.Helper()
	h.t.Logf("%s: %d", what, h.n)
	assert.LessOrEqual(h.t, h.n, most, what)
	h.n = 0
}

func (h *hands) inReview(n int) {
	h.t.Helper()
	h.until(fmt.Sprintf("%d takes wait", n), fmt.Sprintf(`(document.querySelectorAll('.queue li').length || (document.body.innerText.includes('No take waits') ? 0 : -1)) === %d && (%d === 0 || document.body.innerText.includes('Every note'))`, n, n))
}

// An instructor's Monday by the mouse: what it takes is counted, and may not grow.
func TestAMondayByMouse(t *testing.T) {
	m := newMonday(newHouse(t), "Mona Mouse")
	h := &hands{page: m.h.open(browser.Window{})}
	h.enter(m.instructor)

	h.press("goto:/students")
	h.until("who needs help first stands first", `document.querySelector('tr.first')?.innerText.includes('Student 3 of') ?? false`)
	h.at("who needs help first", 1)

	h.press("goto:/review")
	for i := range 8 {
		h.inReview(8 - i)
		if i < 3 {
			h.press("set-rung")
			h.see("set-rung-dialog")
			h.press("rung-step:1")
			h.press("set-rung-now")
			h.until("it is set", `!document.querySelector('[role=dialog]')`)
		}
		h.press("accept")
	}
	h.inReview(0)
	h.at("eight takes and three ladders", 1+8+3*3)

	h.press("goto:/students")
	h.press("student:" + m.fresh.Name)
	h.press("page:/plan")
	h.see("plan-state:new")
	h.see("week")
	h.press("keep-plan")
	h.see("plan-state:kept")
	h.at("a plan over four weeks", 4)

	h.press("page:")
	h.press("report")
	h.reads("13 weeks")
	h.prints()
	h.press("print")
	h.until("it is printed", `window.printed === 1`)
	h.at("a report", 3)
	m.done(t)
}

// prints counts what is printed, where no printer is.
func (h *hands) prints() {
	evaluate[any](h.page, `window.printed = 0; window.print = () => { window.printed++ }`)
}

// The same by the keyboard alone.
func TestAMondayByKeyboard(t *testing.T) {
	m := newMonday(newHouse(t), "Kea Keyboard")
	h := &hands{page: m.h.open(browser.Window{})}
	h.enter(m.instructor)

	h.goTo("s")
	h.until("who needs help first stands first", `document.querySelector('tr.first')?.innerText.includes('Student 3 of') ?? false`)
	h.at("who needs help first", 2)

	h.goTo("r")
	for i := range 8 {
		h.inReview(8 - i)
		if i < 3 {
			h.key("r")
			h.until("the tempo has the focus", `document.activeElement.getAttribute('aria-label') === 'Tempo, bpm'`)
			h.key(kb.ArrowUp)
			h.key(kb.Enter)
			h.until("it is set", `!document.querySelector('[role=dialog]')`)
		}
		h.key("a")
	}
	h.inReview(0)
	h.at("eight takes and three ladders", 2+8+3*3)

	h.goTo("s")
	h.until("the students are there", `document.querySelectorAll('tr.first').length === 5`)
	for evaluate[string](h.page, `document.activeElement.getAttribute('aria-label') ?? ''`) != m.fresh.Name {
		h.key(kb.ArrowDown)
	}
	h.key("p")
	h.see("plan-state:new")
	h.see("week")
	h.key("s", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	h.see("plan-state:kept")
	h.at("a plan over four weeks", 2+5+2)

	h.goTo("s")
	h.until("the students are there", `document.querySelectorAll('tr.first').length === 5`)
	h.key(kb.ArrowDown)
	h.key("r")
	h.reads("13 weeks")
	h.at("a report, which the browser prints by Ctrl P", 4)
	m.done(t)
}
