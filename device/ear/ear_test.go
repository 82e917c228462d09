package ear_test

import (
	"bytes"
	"context"
	"encoding/binary"
	"encoding/json"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/device/ear"
	"manudrill/formats/hearing"
	"manudrill/formats/sound"
)

// A recorded take is samples of 24 bits and what was to be played.
type recorded struct {
	task    ear.Task
	samples []int32
}

// played lets a player with faults play a drill.
func played(t *testing.T, fault func(*simulate.Player)) recorded {
	t.Helper()
	d := drill.New("test", drill.SlurCombinations{Combinations: [][]int{{1, 3, 4}}, Slur: drill.BothSlurs})
	d.Path.Strings, d.Rhythm.NotesPerBeat, d.Rhythm.Passes = []int{5, 4, 3}, 4, 2
	chart, err := d.Chart(guitar.Standard(), 80)
	require.NoError(t, err)
	p := simulate.Player{Seed: 5, ClockMs: 4, MotorMs: 4, LevelSDDB: 1, SlurDropDB: 3, NoiseDB: -60}
	fault(&p)
	_, x, err := p.Take(chart)
	require.NoError(t, err)
	r := recorded{task: ear.Task{
		Rate: simulate.Rate, Chart: chart, Rung: tempo.Rung{BPM: 80, NotesPerBeat: 4},
		Climbing: tempo.Climbing{Ladder: tempo.Usual(), NotesPerBeat: 4},
	}}
	for _, v := range x {
		r.samples = append(r.samples, int32(math.Round(v*0x7fffff)))
	}
	return r
}

var faults = map[string]func(*simulate.Player){
	"even":     func(*simulate.Player) {},
	"weak":     func(p *simulate.Player) { p.Weak = &simulate.Weak{From: 1, To: 3, LateMs: 35} },
	"mistakes": func(p *simulate.Player) { p.Miss, p.Wrong, p.Extra = 1, 1, 1 },
	"ringing":  func(p *simulate.Player) { p.RingMs = 200 },
	"tired":    func(p *simulate.Player) { p.MotorMs, p.FatiguePercent, p.GapPercent = 5, 200, 30 },
}

// told is the verdict of an ear that hears a take in blocks.
func told(t *testing.T, r recorded) ear.Verdict {
	t.Helper()
	task, err := json.Marshal(r.task)
	require.NoError(t, err)
	e, err := ear.New(task)
	require.NoError(t, err)
	for rest := r.samples; len(rest) > 0; {
		n := min(len(rest), 8192)
		_, err := e.Hear(rest[:n])
		require.NoError(t, err)
		rest = rest[n:]
	}
	v, err := e.End()
	require.NoError(t, err)
	return v
}

// What the device says is what the studio makes of the file that is handed in.
func TestTheEarSaysWhatTheStudioSays(t *testing.T) {
	for name, fault := range faults {
		r := played(t, fault)
		file, err := sound.Sound{Rate: simulate.Rate, Bits: 24, Channels: [][]int32{r.samples}}.EncodeFLAC()
		require.NoError(t, err)
		heard, err := hearing.Hear(context.Background(), bytes.NewReader(file), nil)
		require.NoError(t, err)
		a := evenness.Judge(follow.Follow(r.task.Chart, heard.Notes, heard.Ticks...))
		assert.Equal(t, a, told(t, r).Analysis, name)
	}
}

// The core says the same where it is built for the browser: every word and status, and
// every figure to far below what is shown. The last bits may differ, where a processor has
// instructions of its own for logarithms.
func TestTheBrowsersCoreSaysTheSame(t *testing.T) {
	folder := t.TempDir()
	takes := map[string]recorded{}
	for name, fault := range faults {
		takes[name] = played(t, fault)
	}
	given(t, takes)
	for name, r := range takes {
		task, err := json.Marshal(r.task)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(folder, name+".task.json"), task, 0o600))
		var samples bytes.Buffer
		require.NoError(t, binary.Write(&samples, binary.LittleEndian, r.samples))
		require.NoError(t, os.WriteFile(filepath.Join(folder, name+".samples"), samples.Bytes(), 0o600))
	}
	wasm := filepath.Join(folder, "ear.wasm")
	build := exec.Command("go", "build", "-o", wasm, "manudrill/device")
	build.Env = append(os.Environ(), "GOOS=js", "GOARCH=wasm")
	out, err := build.CombinedOutput()
	require.NoError(t, err, string(out))
	root, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(t, err)
	out, err = exec.Command("node", "testdata/hear.mjs", filepath.Join(strings.TrimSpace(string(root)), "lib", "wasm", "wasm_exec.js"), wasm, folder).CombinedOutput()
	require.NoError(t, err, string(out))
	for name, r := range takes {
		raw, err := os.ReadFile(filepath.Join(folder, name+".verdict.json"))
		require.NoError(t, err)
		here, err := json.Marshal(told(t, r))
		require.NoError(t, err)
		var browser, native any
		require.NoError(t, json.Unmarshal(raw, &browser))
		require.NoError(t, json.Unmarshal(here, &native))
		same(t, name, native, browser)
	}
}

// given adds the takes of a folder that TAKES names: NAME.flac with NAME.chart.json.
func given(t *testing.T, takes map[string]recorded) {
	charts, err := filepath.Glob(filepath.Join(os.Getenv("TAKES"), "*.chart.json"))
	require.NoError(t, err)
	for _, file := range charts {
		base := strings.TrimSuffix(file, ".chart.json")
		raw, err := os.ReadFile(base + ".flac")
		require.NoError(t, err)
		s, err := sound.Decode(raw)
		require.NoError(t, err)
		r := recorded{task: ear.Task{Rate: float64(s.Rate), Climbing: tempo.Climbing{Ladder: tempo.Usual(), NotesPerBeat: 4}}}
		chart, err := os.ReadFile(file)
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(chart, &r.task.Chart))
		r.task.Rung = tempo.Rung{BPM: r.task.Chart.BPM, NotesPerBeat: 4}
		for _, v := range s.Channels[0] {
			r.samples = append(r.samples, v<<(24-s.Bits))
		}
		takes[filepath.Base(base)] = r
	}
}

// same holds two answers to be one, but for the last bits of numbers.
func same(t *testing.T, at string, a, b any) {
	switch a := a.(type) {
	case map[string]any:
		other, ok := b.(map[string]any)
		require.True(t, ok, at)
		assert.Len(t, other, len(a), at)
		for key, v := range a {
			same(t, at+"."+key, v, other[key])
		}
	case []any:
		other, ok := b.([]any)
		require.True(t, ok, at)
		require.Len(t, other, len(a), at)
		for i, v := range a {
			same(t, at, v, other[i])
		}
	case float64:
		assert.InDelta(t, a, b, 1e-6+1e-6*math.Abs(a), at)
	default:
		assert.Equal(t, a, b, at)
	}
}

// What cannot be heard is refused in words, and what never ends has an end.
func TestWhatCannotBeHeardIsRefused(t *testing.T) {
	r := played(t, func(*simulate.Player) {})
	for name, spoil := range map[string]func(*ear.Task){
		"no rate":  func(task *ear.Task) { task.Rate = 0 },
		"too fast": func(task *ear.Task) { task.Rate = 1e6 },
		"no notes": func(task *ear.Task) { task.Chart.Notes = nil },
	} {
		task := r.task
		spoil(&task)
		raw, err := json.Marshal(task)
		require.NoError(t, err)
		_, err = ear.New(raw)
		assert.Error(t, err, name)
	}
	_, err := ear.New([]byte("{"))
	assert.Error(t, err)

	task := r.task
	task.Rate = 8000
	raw, err := json.Marshal(task)
	require.NoError(t, err)
	e, err := ear.New(raw)
	require.NoError(t, err)
	_, err = e.End()
	assert.ErrorIs(t, err, ear.ErrNothing)

	e, err = ear.New(raw)
	require.NoError(t, err)
	silence := make([]int32, 8000*60)
	for minute := 0; err == nil && minute < 100; minute++ {
		_, err = e.Hear(silence)
	}
	assert.ErrorIs(t, err, ear.ErrTooLong)
}

// What an instrument tells is judged as the studio judges the MIDI file of it; on a key any
// note is right, and only its time is told.
func TestWhatAnInstrumentTellsIsJudged(t *testing.T) {
	d := drill.New("slurs", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.HammerOns})
	chart, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	rng := rand.New(rand.NewPCG(4, 4))
	var struck []listen.Struck
	for i, n := range chart.Unroll() {
		on := math.Round(1e4*(2+n.Beat*60/chart.BPM+0.012*rng.NormFloat64())) / 1e4
		s := listen.Struck{On: on, Off: on + 0.2, MIDI: n.MIDI, Velocity: 70 + i%9}
		if i == 5 {
			s.MIDI++ // one wrong note
		}
		struck = append(struck, s)
	}
	rung := tempo.Rung{BPM: 90, NotesPerBeat: 2}
	first := 2.0
	task := ear.Task{Rate: 48000, Chart: chart, Rung: rung, Climbing: tempo.Climbing{Ladder: tempo.Usual(), NotesPerBeat: 2}, First: &first, Marks: true}
	judge := func(task ear.Task) ear.Verdict {
		e, err := ear.New(raw(t, task))
		require.NoError(t, err)
		marks := 0
		for _, s := range struck {
			marks += len(e.Strike(s))
		}
		assert.Equal(t, task.Aside == tempo.NoAside, marks > 0)
		require.NoError(t, e.Struck(struck))
		v, err := e.End()
		require.NoError(t, err)
		return v
	}
	told := judge(task)
	studio := evenness.Judge(follow.Follow(chart, listen.FromStruck(struck)))
	assert.Equal(t, raw(t, studio), raw(t, told.Analysis))
	assert.Equal(t, 1, told.Analysis.Counts.Wrong)

	task.Aside = tempo.Tapped
	tapped := judge(task)
	assert.Equal(t, evenness.Counts{Expected: len(struck), Played: len(struck)}, tapped.Analysis.Counts)
	assert.InDelta(t, told.Analysis.Timing.SpreadMs, tapped.Analysis.Timing.SpreadMs, 1.5, "the wrong note has a time too")
	assert.False(t, tapped.Measured.Decision.Counts)

	e, err := ear.New(raw(t, task))
	require.NoError(t, err)
	assert.ErrorIs(t, e.Struck([]listen.Struck{{On: 1e9}}), ear.ErrTooLong)
	assert.ErrorIs(t, e.Struck(make([]listen.Struck, 60_000)), ear.ErrTooLong)
}

func raw(t *testing.T, v any) []byte {
	t.Helper()
	b, err := json.Marshal(v)
	require.NoError(t, err)
	return b
}
