//touches: web/src/views/students web/src/views/progress web/src/components/BringIn.vue
//touches: server/bring_in.go server/paper.go store/bring_in.go store/paper.go

package e2e_test

import (
	"encoding/base64"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"manudrill/e2e/browser"
	"manudrill/store"
)

// fileFor writes a file that is picked on a page.
func fileFor(t *testing.T, name string, raw []byte) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(path, raw, 0o600))
	return path
}

// A log from a spreadsheet in another language is brought in: its columns are said, its
// days made clear, what is wrong told by line; it is on the student's progress, and goes
// again by one press.
func TestAPaperLogIsBroughtIn(t *testing.T) {
	h := newHouse(t)
	mira, _ := h.pupilOf("Mira Papier", "Kept elsewhere")
	p := h.open(browser.Window{})
	p.enter(instructor)
	p.press("goto:/students")
	p.press("bring-in")
	p.see("paper-log")
	p.accessible()
	file := fileFor(t, "alt.csv", []byte("Tag;Wer;Was;Schl\xe4ge\r\n3/4/2024;Mira Papier;Bindungen;60\r\n9/5/2024;Mira Papier;Bindungen;72,5\r\n1/6/2024;Keiner;Bindungen;80\r\n"))
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[role=dialog] input[type=file]`), []string{file}))
	p.reads("Schläge", "could be two days")
	for i, holds := range []string{"day", "student", "drill", "tempo"} {
		evaluate[any](p, `(() => { const s = document.querySelectorAll('.columns select')[`+string(rune('0'+i))+`]; s.value = '`+holds+`'; s.dispatchEvent(new Event('change')) })()`)
		p.until("it is read anew", `document.querySelectorAll('.columns select')[`+string(rune('0'+i))+`].value === '`+holds+`'`)
	}
	p.press("dates:dayFirst")
	p.reads("3 Apr 2024", `Nobody here is called "Keiner"`, "1 line is left out")
	p.accessible()
	p.press("keep-lines")
	p.reads("2 lines are kept.")
	p.do(chromedp.Navigate(h.base + "/students/" + mira.ID.String()))
	p.reads("Kept on paper", "nothing of it was measured", "2 lines, brought in")
	p.accessible()
	p.press("remove-log")
	p.until("it is gone", `!document.body.innerText.includes('Kept on paper')`)
}

// A student is taken out, removed for good, and brought in with their takes.
func TestAStudentIsBroughtIn(t *testing.T) {
	h := newHouse(t)
	mira, assignment := h.pupilOf("Mira Umzug", "Moves along")
	h.playsTake(assignment, time.Now().Add(-time.Hour))
	p := h.open(browser.Window{})
	p.enter(instructor)
	path := "/people/" + mira.ID.String()
	file := fileFor(t, "mira.zip", p.fetched("/api"+path+"/archive.zip"))
	p.do(chromedp.Navigate(h.base + "/studio"))
	p.reads("Bring in a student")
	p.accessible()
	input := chromedp.CSS(`main input[type=file]`)
	p.do(chromedp.SetUploadFiles(input, []string{file}))
	p.reads("This student is here already")

	ctx := h.ctx
	require.NoError(t, h.kept.Remove(ctx, mira.ID))
	_, err := h.kept.Pool().Exec(store.AsHouse(t.Context()), `UPDATE people SET remove_at = now() - interval '1 day' WHERE id = $1`, mira.ID)
	require.NoError(t, err)
	_, err = h.kept.ForgetRemoved(t.Context())
	require.NoError(t, err)
	p.do(chromedp.SetUploadFiles(input, []string{file}))
	p.reads("Mira Umzug is here, with 1 take.")
	p.press("open-page")
	p.reads("Mira Umzug", "Moves along")
}

// fetched is what an address answers to whoever is here.
func (p page) fetched(path string) []byte {
	p.t.Helper()
	text := evaluate[string](p, `(async () => {
		const answer = await fetch('`+path+`')
		if (!answer.ok) throw new Error(answer.status)
		return btoa(Array.from(new Uint8Array(await answer.arrayBuffer()), (b) => String.fromCharCode(b)).join(''))
	})()`)
	raw, err := base64.StdEncoding.DecodeString(text)
	require.NoError(p.t, err)
	return raw
}
