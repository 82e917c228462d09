package exchange_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/formats/exchange"
	"manudrill/formats/sound"
)

var g = guitar.Standard()

func fileOf(d drill.Drill) drillfile.File { return drillfile.File{Drill: d, Ladder: tempo.Usual()} }

// heard is what a format can hold of a chart.
func heard(c drill.Chart) []drill.Note {
	notes := append([]drill.Note{}, c.Notes...)
	for i := range notes {
		notes[i].Cell, notes[i].Keep, notes[i].Written = 0, false, ""
	}
	return notes
}

// smallDrill draws a drill of every family that is short enough for a free one.
func smallDrill(t *rapid.T) drill.Drill {
	families := drill.Families()
	d := families[rapid.IntRange(0, len(families)-1).Draw(t, "family")].Drill
	d.Path.Position = rapid.IntRange(1, 12).Draw(t, "position")
	d.Path.Stay = drill.Stay{Count: 1, Unit: drill.Times}
	d.Attacks = drill.Attacks{Rule: rapid.SampledFrom(drill.AttackRules).Draw(t, "attacks"), Cycle: []bool{false, true, true}}
	d.Strokes = drill.Strokes{Rule: rapid.SampledFrom(drill.StrokeRules).Draw(t, "strokes"), FromUp: rapid.Bool().Draw(t, "up")}
	d.Rhythm.NotesPerBeat = rapid.SampledFrom(drill.Divisions).Draw(t, "perBeat")
	d.Rhythm.BeatsPerBar = rapid.IntRange(2, 7).Draw(t, "bar")
	d.Rhythm.Passes = rapid.IntRange(1, 3).Draw(t, "passes")
	if len(d.Check(g)) > 0 {
		t.Skip("no drill")
	}
	c, err := d.Chart(g, 60)
	require.NoError(t, err)
	if len(c.Notes) > drill.MaxFreeNotes {
		t.Skip("too long")
	}
	return d
}

func TestWrittenAndReadBackIsTheSame(t *testing.T) {
	for _, format := range []exchange.Format{exchange.MusicXML, exchange.MIDI, exchange.Tab, exchange.JSON} {
		rapid.Check(t, func(t *rapid.T) {
			d := smallDrill(t)
			before, err := d.Chart(g, 90)
			require.NoError(t, err)
			doc, err := exchange.Export(fileOf(d), g, 90, format)
			require.NoError(t, err)
			back, _, err := exchange.Import(doc.Content, g)
			require.NoError(t, err, "%s\n%s", format, doc.Content)
			after, err := back.Drill.Chart(g, 90)
			require.NoError(t, err)
			require.Equal(t, heard(before), heard(after), "%s\n%s", format, doc.Content)
			assert.Equal(t, before.Passes, after.Passes, format)
			assert.Equal(t, before.BeatsPerBar, after.BeatsPerBar, format)
			if format != exchange.JSON {
				assert.InDelta(t, 90, back.Ladder.StartBPM, 0.001, format)
			}
		})
	}
}

// exported writes a family's drill into a file and returns its name.
func exported(t *testing.T, d drill.Drill, format exchange.Format) string {
	t.Helper()
	doc, err := exchange.Export(fileOf(d), g, 90, format)
	require.NoError(t, err)
	name := filepath.Join(t.TempDir(), doc.Name)
	require.NoError(t, os.WriteFile(name, doc.Content, 0o600))
	return name
}

// midicsv is an independent reader of Standard MIDI Files (Debian).
func TestMIDIIsReadByAnotherProgram(t *testing.T) {
	for _, f := range drill.Families() {
		c, err := f.Drill.Chart(g, 90)
		require.NoError(t, err)
		out, err := exec.Command("midicsv", exported(t, f.Drill, exchange.MIDI)).CombinedOutput()
		require.NoError(t, err, "%s: %s", f.ID, out)
		var notes, fingers []string
		for line := range strings.Lines(string(out)) {
			part := strings.Split(strings.TrimSpace(line), ", ")
			switch {
			case part[0] == "2" && part[2] == "Note_on_c":
				notes = append(notes, part[4])
			case part[0] == "2" && part[2] == "Text_t":
				fingers = append(fingers, part[3])
			}
		}
		require.Len(t, notes, c.Passes*len(c.Notes), f.ID)
		for i, n := range c.Notes {
			assert.Equal(t, notes[i], strconv.Itoa(n.MIDI), "%s note %d", f.ID, i)
			assert.Contains(t, fingers[i], "finger "+strconv.Itoa(n.Finger), "%s note %d", f.ID, i)
		}
		assert.Contains(t, string(out), "Tempo, 666667", "90 bpm")
		assert.Contains(t, string(out), "Note_on_c, 9, 76", "a click")
	}
}

// musicxml2ly, of LilyPond, is an independent reader of MusicXML (Debian).
func TestMusicXMLIsReadByAnotherProgram(t *testing.T) {
	for _, f := range drill.Families() {
		c, err := f.Drill.Chart(g, 90)
		require.NoError(t, err)
		in := exported(t, f.Drill, exchange.MusicXML)
		out, err := exec.Command("musicxml2ly", "--no-beaming", "-o", "-", in).CombinedOutput()
		require.NoError(t, err, "%s: %s", f.ID, out)
		text := string(out)
		assert.True(t, strings.Contains(text, `\clef "tab"`), f.ID)
		assert.False(t, strings.Contains(strings.ToLower(text), "error"), f.ID)
		assert.Equal(t, len(c.Notes), len(tabStrings.FindAllString(text, -1)), "%s: every string is read", f.ID)
	}
}

// tabStrings is how LilyPond names the string of a note.
var tabStrings = regexp.MustCompile(`\\[1-9]`)

func TestSoundIsTheChart(t *testing.T) {
	d := drill.Families()[0].Drill
	d.Rhythm.Passes = 1
	c, err := d.Chart(g, 90)
	require.NoError(t, err)
	for _, format := range []exchange.Format{exchange.WAV, exchange.ClickWAV} {
		doc, err := exchange.Export(fileOf(d), g, 90, format)
		require.NoError(t, err)
		s, err := sound.Decode(doc.Content)
		require.NoError(t, err)
		lead := make([]float64, s.Rate/5) // the listener wants to hear a beginning
		notes := listen.Listen(float64(s.Rate), append(lead, s.Mono()...))
		if format == exchange.WAV {
			require.Len(t, notes, len(c.Notes))
			for i, n := range notes {
				assert.InDelta(t, 0.2+c.Notes[i].Beat*60/90, n.Onset, 0.01)
			}
		}
		assert.GreaterOrEqual(t, len(notes), len(c.Notes))
	}
	d.Path.Stay, d.Rhythm.Passes = drill.Stay{Count: 120, Unit: drill.Seconds}, 2
	_, err = exchange.Export(fileOf(d), g, 60, exchange.WAV)
	assert.Error(t, err)
}

// What others write: tab by hand, a melody without places, another tuning.
func TestFilesOfOthersBecomeFreeDrills(t *testing.T) {
	tab := "my lick\n\ne|-----------------|\nB|-----------------|\nG|--5h7-5p4-----7\\5-|\nD|------------7-----|\nA|-----------------|\nE|-----------------|\n"
	f, _, err := exchange.Import([]byte(tab), g)
	require.NoError(t, err)
	assert.Equal(t, "my lick", f.Drill.Name)
	c, err := f.Drill.Chart(g, 60)
	require.NoError(t, err)
	var got []string
	for _, n := range c.Notes {
		got = append(got, strconv.Itoa(n.String)+"/"+strconv.Itoa(n.Fret)+string(n.Attack[0]))
	}
	assert.Equal(t, "3/5p 3/7h 3/5p 3/4p 4/7p 3/7p 3/5s", strings.Join(got, " "))

	short, told, err := exchange.Import([]byte("3:5h7 2:8p5"), g)
	require.NoError(t, err)
	assert.Contains(t, strings.Join(told, " "), "Fingers are proposed")
	assert.Equal(t, []int{3, 2}, short.Drill.Path.Strings)

	// C4 to G4 by step in a file with one track, running status and no texts.
	midi := append([]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x23"), []byte{
		0, 0x90, 60, 90, 48, 60, 0, 0, 62, 90, 48, 62, 0, 0, 64, 90, 48, 64, 0, 0, 65, 90, 48, 65, 0, 0, 67, 90, 48, 67, 0, 0, 0xff, 0x2f, 0}...)
	melody, told, err := exchange.Import(midi, g)
	require.NoError(t, err)
	assert.Contains(t, strings.Join(told, " "), "Strings and frets are proposed")
	assert.Equal(t, 2, melody.Drill.Rhythm.NotesPerBeat, "48 of 96 ticks are half a beat")
	c, err = melody.Drill.Chart(g, 60)
	require.NoError(t, err)
	used := map[int]bool{}
	for i, n := range c.Notes {
		assert.Equal(t, []int{60, 62, 64, 65, 67}[i], n.MIDI)
		used[n.String] = true
	}
	assert.LessOrEqual(t, len(used), 2, "what fits on one or two strings lies there")
}

func TestFilesThatCannotBeTakenIn(t *testing.T) {
	for name, c := range map[string]struct{ content, says string }{
		"a letter":        {"Dear teacher", "no tablature"},
		"nothing":         {"", "no tablature"},
		"compressed":      {"PK\x03\x04", "compressed"},
		"compressed else": {"\x1f\x8b\x08", "compressed"},
		"other XML":       {"<html><body/></html>", "no MusicXML"},
		"broken XML":      {"<score-partwise><part", "no MusicXML"},
		"no notes":        {`<score-partwise><part id="P1"><measure number="1"/></part></score-partwise>`, "no notes"},
		"cut MIDI":        {"MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\xff\xff\x00", "cut off"},
		"film frames":     {"MThd\x00\x00\x00\x06\x00\x00\x00\x01\xe7\x28", "film frames"},
		"strange JSON":    {`{"notes": []}`, "cannot be read"},
		"two fret lines":  {"--5--\n--7--", "2 lines"},
		"fret 57":         {"3|--57--", "57 on string 3 is no fret"},
		"string 9":        {"9|--5--", "no string 9"},
		"binary":          {"\x89PNG\r\n\x1a\n\x00\x00", "no MusicXML, MIDI"},
	} {
		_, _, err := exchange.Import([]byte(c.content), g)
		require.Error(t, err, name)
		assert.Contains(t, err.Error(), c.says, name)
	}
}

// Nothing that comes in may break the readers.
func FuzzImport(f *testing.F) {
	for _, format := range []exchange.Format{exchange.MusicXML, exchange.MIDI, exchange.Tab, exchange.JSON} {
		d := drill.Families()[0].Drill
		d.Path.Strings = []int{2, 1}
		doc, err := exchange.Export(fileOf(d), g, 90, format)
		require.NoError(f, err)
		f.Add(doc.Content)
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		var file drillfile.File
		var err error
		reading(t, b, func(b []byte) { file, _, err = exchange.Import(b, g) })
		if err == nil && len(file.Check(g)) == 0 {
			_, err := file.Drill.Chart(g, 60)
			assert.NoError(t, err)
		}
	})
}
