package main

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/formats/sound"
)

// run runs a command line and returns what it prints.
func run(args ...string) (string, error) {
	var out bytes.Buffer
	root := program()
	root.SetArgs(args)
	root.SetOut(&out)
	root.SetErr(&out)
	err := root.Execute()
	return out.String(), err
}

func write(t *testing.T, name, content string) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(path, []byte(content), 0o600))
	return path
}

// From a drill to a chart, a simulated take, its onsets and its analysis.
func TestTheCommandsInARow(t *testing.T) {
	printed, err := run("chart", "../../docs/example.drill.json", "--bpm", "80")
	require.NoError(t, err)
	var c chart.Chart
	require.NoError(t, json.Unmarshal([]byte(printed), &c))
	assert.Len(t, c.Notes, 30)
	assert.InDelta(t, 80, c.BPM, 0)

	chartFile := write(t, "chart.json", printed)
	player := write(t, "player.json", `{"seed": 4, "clockMs": 4, "motorMs": 3, "slurDropDb": 2, "miss": 2,
		"weak": {"from": 2, "to": 4, "lateMs": 30, "dropDb": 2}, "noiseDb": -66}`)
	wav := filepath.Join(t.TempDir(), "take.wav")
	_, err = run("simulate", "--chart", chartFile, "--player", player, "--out", wav)
	require.NoError(t, err)

	printed, err = run("onsets", wav)
	require.NoError(t, err)
	lines := strings.Fields(printed)
	assert.Len(t, lines, 58, "30 notes twice, two missed")
	first, err := strconv.ParseFloat(lines[0], 64)
	require.NoError(t, err)
	assert.InDelta(t, 2, first, 0.03)

	printed, err = run("analyze", "--chart", chartFile, wav)
	require.NoError(t, err)
	var a evenness.Analysis
	require.NoError(t, json.Unmarshal([]byte(printed), &a))
	assert.Equal(t, evenness.Counts{Expected: 60, Played: 58, Missed: 2}, a.Counts)
	assert.InDelta(t, 80, a.Tempo.BPM, 0.5)
	assert.Equal(t, evenness.FingerPair{From: 2, To: 4, Attack: chart.Hammer}, *a.Weakest)
}

func example(t *testing.T) string {
	t.Helper()
	raw, err := os.ReadFile("../../docs/example.drill.json")
	require.NoError(t, err)
	return string(raw)
}

func TestDrillsGoOutAndComeIn(t *testing.T) {
	dir := t.TempDir()
	for _, name := range []string{"a.musicxml", "a.mid", "a.txt", "a.json"} {
		out, back := filepath.Join(dir, name), filepath.Join(dir, name+".drill.json")
		_, err := run("export", "../../docs/example.drill.json", out)
		require.NoError(t, err)
		_, err = run("import", out, back)
		require.NoError(t, err)
		printed, err := run("chart", back)
		require.NoError(t, err)
		var c chart.Chart
		require.NoError(t, json.Unmarshal([]byte(printed), &c))
		assert.Len(t, c.Notes, 30, name)
	}
	_, err := run("export", "--format", "wavClick", "../../docs/example.drill.json", filepath.Join(dir, "a.wav"))
	assert.NoError(t, err)
}

func TestBadInputIsOneClearLine(t *testing.T) {
	c := write(t, "chart.json", `{"bpm": 60, "notesPerBeat": 1, "notes": [{"beat": 0, "midi": 60, "string": 3, "fret": 5, "attack": "pick"}]}`)
	silent := write(t, "silent.wav", string(sound.FromMono(44100, make([]float64, 44100)).EncodeWAV()))
	for says, args := range map[string][]string{
		"there is no file":           {"onsets", "nowhere.wav"},
		"neither a WAV nor a FLAC":   {"onsets", c},
		"holds no sound":             {"onsets", write(t, "empty.wav", "")},
		"cut off":                    {"onsets", write(t, "cut.wav", string(sound.FromMono(44100, make([]float64, 44100)).EncodeWAV()[:999]))},
		"no notes can be heard":      {"analyze", "--chart", c, silent},
		"is no chart":                {"analyze", "--chart", silent, silent},
		"the chart has no notes":     {"analyze", "--chart", write(t, "none.json", "{}"), silent},
		"is no player":               {"simulate", "--chart", c, "--player", silent, "--out", "x"},
		"note 0 is on string 0":      {"analyze", "--chart", write(t, "nowhere.json", `{"bpm": 60, "notesPerBeat": 1, "notes": [{"beat": 0, "midi": 60, "attack": "pick"}]}`), silent},
		"note 0 is at fret 40":       {"analyze", "--chart", write(t, "high.json", `{"bpm": 60, "notesPerBeat": 1, "notes": [{"beat": 0, "midi": 60, "string": 1, "fret": 40, "attack": "pick"}]}`), silent},
		"clockMs is -1":              {"simulate", "--chart", c, "--player", write(t, "p.json", `{"clockMs": -1}`), "--out", "x"},
		"cannot be read":             {"chart", c},
		"Use position 19":            {"chart", write(t, "far.json", strings.Replace(example(t), `"position": 7`, `"position": 22`, 1))},
		"tells no format":            {"export", "../../docs/example.drill.json", "x.odt"},
		"no tablature":               {"import", write(t, "letter.txt", "Dear teacher"), "x.json"},
		"required flag(s) \"chart\"": {"analyze", silent},
	} {
		printed, err := run(args...)
		require.Error(t, err, says)
		assert.Contains(t, err.Error(), says)
		assert.NotContains(t, strings.TrimSpace(err.Error()), "\n", "one line")
		assert.Empty(t, printed, "nothing on standard output")
	}
}
