//touches: web/src/audio web/src/views/stand web/src/device server/hand_in.go

package e2e_test

import (
	"context"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/e2e/browser"
	"manudrill/formats/drillfile"
	"manudrill/formats/sound"
	"manudrill/store"
)

// recorded writes the drill as a steady player plays it, after as much silence
// as the count-in takes.
func recorded(t *testing.T, file drillfile.File) string {
	t.Helper()
	chart, err := file.Drill.Chart(guitar.Standard(), file.Ladder.StartBPM)
	require.NoError(t, err)
	wav, _ := afterCountIn(steady, chart, 6)
	return fileFor(t, "take.wav", wav)
}

// What a microphone gives comes by the wall's clock, so that this one runs by itself.
func TestATakeFromTheMicrophone(t *testing.T) {
	h := houseAlone(t)
	file := shortDrill("Into the microphone")
	stand := h.onTheStand(file)
	b, err := browser.Start(context.Background(), browser.Microphone{WAV: recorded(t, file)})
	require.NoError(t, err)
	t.Cleanup(b.Stop)
	p := h.openIn(b, browser.Window{})
	p.enterAt(student, stand)
	p.see("notes-a-pass", "8")
	p.do(chromedp.KeyEvent(" "))
	p.see("left", "1 of 2")
	p.see("left", "2 of 2")
	p.see("right-notes", "16")
	p.see("verdict")
	p.see("all-figures")
	takes, err := h.kept.Takes(h.ctx, nil, nil, store.Page{Limit: 1})
	require.NoError(t, err)
	latest, err := h.kept.Take(h.ctx, takes[0].ID)
	require.NoError(t, err)
	assert.Equal(t, "microphone", latest.Source)
	// The browser's stand-in for a microphone drops buffers when the machine is
	// busy, which bends time and loses notes. How exact the listener is, is
	// tested where the sound is; here, that the sound came through and was
	// taken for this drill.
	assert.False(t, latest.Analysis.Foreign)
	assert.GreaterOrEqual(t, latest.Analysis.Counts.Played, 8)
	recording, err := h.kept.Sound(h.ctx, latest.ID)
	require.NoError(t, err)
	flac, err := io.ReadAll(recording)
	require.NoError(t, err)
	back, err := sound.Decode(flac)
	require.NoError(t, err)
	assert.Greater(t, back.Duration().Seconds(), 4.0, "most of the count-in and both passes")
}

// Before the first note is played one sees how well the input is heard, and chooses it
// from a list.
func TestTheInputIsSeenBeforeTheFirstNote(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("How loud")
	stand := h.onTheStand(file)
	p := h.plays(file)
	p.sitDown(stand)
	p.see("no-input-yet")
	p.press("check-sound")
	evaluate[any](p, "void playNow("+inScript(soundName(file, 120))+")")
	p.reads("Heard well.")
	p.until("it is drawn", `document.querySelectorAll('.check svg rect').length > 20`)
	p.until("inputs can be chosen", `document.querySelectorAll('[role=option]').length >= 2`)
	p.press("play")
	p.see("left", "1 of 2")
	assert.NotContains(t, p.text("body"), "Too soft", "who is heard well is not told of it while playing")
}

func TestTheMicrophoneIsRefused(t *testing.T) {
	h := newHouse(t)
	stand := h.onTheStand(shortDrill("Refused"))
	b, err := browser.Start(context.Background(), browser.Microphone{Refused: true})
	require.NoError(t, err)
	t.Cleanup(b.Stop)
	p := h.openIn(b, browser.Window{})
	p.sitDown(stand)
	p.press("play")
	p.reads("The microphone was refused", "Allow the microphone", "You can also drop a recorded file")
	p.see("notes-a-pass", "8")
}

// trackOfPage lets the test take the microphone away: it keeps the track that
// the page was given.
const trackOfPage = `(() => {
	const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices)
	navigator.mediaDevices.getUserMedia = async (c) => {
		const stream = await ask(c)
		window.microphone = stream.getAudioTracks()[0]
		return stream
	}
})()`

func TestTheMicrophoneIsUnpluggedInTheMiddle(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Unplugged")
	stand := h.onTheStand(file)
	p := h.plays(file)
	p.sitDown(stand)
	evaluate[any](p, trackOfPage)
	p.press("play")
	p.see("left", "2 of 2")
	evaluate[bool](p, `window.microphone.dispatchEvent(new Event('ended'))`)
	p.see("unsent:1")
	p.see("unsent-state:broken-off")
	p.reads("The input went away")
	// What sounds from then on is no part of it.
	frames := func() int {
		return evaluate[int](p, `new Promise((resolve) => {
			const opening = indexedDB.open('manudrill')
			opening.onsuccess = () => {
				const all = opening.result.transaction('takes').objectStore('takes').getAll()
				all.onsuccess = () => resolve(all.result[0].frames)
			}
		})`)
	}
	then := frames()
	assert.Positive(t, then)
	time.Sleep(300 * time.Millisecond)
	assert.Equal(t, then, frames())
	p.press("hand-in")
	p.until("it is handed in", `!document.body.innerText.includes('not handed in')`)
	p.press("progress")
	p.see("where-it-stands", "1")
}

func TestAReloadInTheMiddleLosesNothing(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("Reloaded")
	stand := h.onTheStand(file)
	p := h.plays(file)
	p.sitDown(stand)
	p.press("play")
	p.see("left", "2 of 2")
	p.until("something of it is kept", `new Promise((resolve) => {
		const opening = indexedDB.open('manudrill')
		opening.onsuccess = () => {
			const count = opening.result.transaction('chunks').objectStore('chunks').count()
			count.onsuccess = () => resolve(count.result > 0)
		}
	})`)
	p.do(chromedp.Reload())
	p.see("unsent:1")
	p.see("unsent:1", "120")
	p.press("hand-in")
	p.until("it is handed in", `!document.body.innerText.includes('not handed in')`)
	p.do(chromedp.Reload())
	p.see("notes-a-pass", "8")
	assert.NotContains(t, p.text("body"), "not handed in")
}

func TestFilesThatAreNoTakesAndOneThatIs(t *testing.T) {
	h := newHouse(t)
	file := shortDrill("From a file")
	stand := h.onTheStand(file)
	good := recorded(t, file)
	whole, err := os.ReadFile(good)
	require.NoError(t, err)
	dir := t.TempDir()
	write := func(name string, content []byte) string {
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, content, 0o600))
		return path
	}
	large := write("large.wav", nil)
	require.NoError(t, os.Truncate(large, 300<<20))

	p := h.open(browser.Window{})
	p.sitDown(stand)
	p.press("source:file")
	p.see("drop-here")
	for _, c := range []struct{ file, says string }{
		{write("letter.wav", []byte("dear teacher")), "neither a WAV nor a FLAC file"},
		{write("cut.wav", whole[:len(whole)/3]), "cut off before its end"},
		{write("silent.wav", sound.FromMono(44100, make([]float64, 2*44100)).EncodeWAV()), "No notes were heard"},
		{large, "It has 300 MB; a take may have 192 MB"},
	} {
		p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{c.file}))
		p.see("played-at:" + filepath.Base(c.file))
		p.press("hand-in-file")
		p.reads(c.says)
	}
	p.until("the page is scrolled down", `(scrollTo(0, document.body.scrollHeight), scrollY > 100)`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{good}))
	p.see("as-the-stand", "120")
	p.until("the question is on the screen", `document.querySelector('.played').getBoundingClientRect().top > 0`)
	p.press("leave-file")
	p.until("nothing is handed in", `!document.body.innerText.includes('At which tempo')`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{good}))
	p.press("hand-in-file")
	p.see("right-notes", "16", "of 16")
	p.see("verdict:up", "130")

	// What a telephone records the browser decodes, and it is measured like any other.
	opus := filepath.Join(dir, "from the telephone.opus")
	out, err := exec.Command("opusenc", "--quiet", "--bitrate", "64", good, opus).CombinedOutput()
	require.NoError(t, err, "%s; 'make install-test-tools' installs opusenc", out)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{opus}))
	p.see("as-the-stand", "130")
	p.press("hand-in-file")
	p.see("right-notes", "16", "of 16")
	p.see("verdict:hold", "120", "130")

	// Of a file whose tempo nobody knows it is heard, and the ladder answers at that.
	second := filepath.Join(dir, "some day.opus")
	out, err = exec.Command("opusenc", "--quiet", "--bitrate", "96", good, second).CombinedOutput()
	require.NoError(t, err, "%s", out)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{second}))
	p.see("played-at:some day.opus")
	p.see("as-heard", "120")
	p.press("played-as-heard")
	p.press("hand-in-file")
	p.see("right-notes", "16", "of 16")
	p.see("verdict", "120")
}
