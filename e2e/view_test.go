//touches: web/src/styles web/src/draw web/src/components web/src/views web/src/preferences.ts

package e2e_test

import (
	"os"
	"testing"

	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
)

// phone is a window of its size.
var phone = browser.Window{Width: 390, Height: 844}

// Every main view keeps to WCAG 2.1 A and AA as far as the axe-core rules can
// tell, and at 390 px nothing sticks out at the side.
func TestViewsAreAccessibleAndFitANarrowScreen(t *testing.T) {
	h := newHouse(t)
	stand := h.onTheStand(shortDrill("For everybody"))
	take := h.weakTake("Everybody's take")
	block := uuid.New()
	require.NoError(t, h.kept.AddBlock(h.ctx, block, drillfile.Block{Name: "Everybody's block", Items: []drillfile.BlockItem{{File: shortDrill("One of it"), Seconds: 30}}}))
	of := map[string]page{instructor: h.open(phone), student: h.open(phone)}
	for _, p := range of {
		p.watchPolicy()
	}
	for _, v := range []struct{ who, path, see string }{
		{instructor, "/drills", "For everybody"},
		{instructor, "/drills/new", "20 notes a pass"},
		{instructor, "/blocks/" + block.String(), "One of it"},
		{instructor, "/print", "Nothing is laid out"},
		{instructor, "/students", student},
		{instructor, "/students/" + h.people[student].ID.String(), "Minutes by technique"},
		{instructor, "/students/" + h.people[student].ID.String() + "/plan", "Minutes a day"},
		{instructor, "/students/" + h.people[student].ID.String() + "/practice", "For everybody"},
		{instructor, "/students/" + h.people[student].ID.String() + "/takes", "simulated"},
		{instructor, "/students/" + h.people[student].ID.String() + "/about", "Everything in one file"},
		{instructor, "/students/" + h.people[student].ID.String() + "/lesson", "To record now"},
		{instructor, "/review", "Review"},
		{student, "/mine", "Minutes by technique"},
		{student, "/report/" + h.people[student].ID.String(), "What was practised"},
		{student, "/reach/" + h.people[student].ID.String(), "Both on string 3"},
		{instructor, "/studio", "Who teaches here"},
		{instructor, "/cards", "Nothing to print"},
		{student, "/me", "Everything about you"},
		{student, "/privacy", "Who sees it"},
		{student, "/nowhere", "There is no page at this address"},
		{student, "/practice", "For everybody"},
		{student, stand, "8 notes a pass"},
		{student, take, "Where the time goes"},
		{instructor, take, "Where the time goes"},
	} {
		p := of[v.who]
		p.enterAt(v.who, v.path)
		p.reads(v.see)
		p.accessible()
		wide := evaluate[int](p, `document.documentElement.scrollWidth`)
		assert.LessOrEqual(t, wide, 390, "%s is wider than the screen", v.path)
		assert.Empty(t, p.refused(), "what %s loads keeps to the policy", v.path)
	}
}

// accessible fails the test where what is on the page breaks WCAG 2.1 A or AA, as
// far as the axe-core rules can tell.
func (p page) accessible() {
	p.t.Helper()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(p.t, err)
	p.until("nothing moves any more, nor begins to", `new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() =>
		resolve(document.getAnimations().every((a) => a.playState !== 'running')))))`)
	if !evaluate[bool](p, "'axe' in window") {
		evaluate[any](p, string(axe)+"; 0")
	}
	faults := evaluate[[]string](p, `axe.run({runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']})
		.then(r => r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.html.slice(0, 160)).join(' | ')))`)
	assert.Empty(p.t, faults, evaluate[string](p, `location.pathname`))
}

// watchPolicy writes down what the pages would load and the content policy refuses.
func (p page) watchPolicy() {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{
		Source: `window.refused = []; document.addEventListener('securitypolicyviolation', e => refused.push(e.violatedDirective + ' ' + e.blockedURI))`,
	})
	require.NoError(p.t, err)
}

// refused is what the policy has refused on the page that is open.
func (p page) refused() []string {
	p.t.Helper()
	return evaluate[[]string](p, `window.refused`)
}

// The staff brings its own font, which the policy must let through.
func TestTheStaffKeepsToThePolicy(t *testing.T) {
	h := newHouse(t)
	p := h.open(browser.Window{})
	p.watchPolicy()
	p.enterAt(instructor, "/drills/new")
	p.see("notes-a-pass", "20")
	p.pick("shown-as", "staff")
	p.until("the staff is drawn", `!!document.querySelector('.staff svg path, .vf-stave, svg .vf-note')`)
	assert.Empty(t, p.refused())
}

// On a phone the bench is for looking, hearing and small changes: what is pressed there is as
// high as a fingertip needs, 40 px; marks on the neck stay where their frets are.
func TestThePhonesBenchHasRoomForFingers(t *testing.T) {
	h := newHouse(t)
	p := h.open(phone)
	p.enterAt(instructor, "/drills/new")
	p.see("notes-a-pass")
	low := evaluate[[]string](p, `[...document.querySelectorAll('main :is(button, select, summary, input, a[href], [role=switch])')]
		.filter(e => !e.closest('.el-switch'))
		.map(e => [e.closest('.el-input__wrapper, .el-select__wrapper') ?? e, e.innerText || e.getAttribute('aria-label')])
		.filter(([e]) => e.getBoundingClientRect().height > 0 && e.getBoundingClientRect().height < 39.5)
		.map(([e, text]) => text + ' ' + e.getBoundingClientRect().height)`)
	assert.Empty(t, low)
	p.press("hear")
	p.see("hear:playing")
}
