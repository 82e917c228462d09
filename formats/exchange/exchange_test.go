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
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/drill/score"
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
func heard(c chart.Chart) []chart.Note {
	notes := append([]chart.Note{}, c.Notes...)
	for i := range notes {
		notes[i].Cell, notes[i].Keep, notes[i].Written, notes[i].Back = 0, false, "", false
	}
	return notes
}

// smallDrill draws a drill of every family that is short enough for a free one.
func smallDrill(t *rapid.T) drill.Drill {
	families := library.Families()
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

// importing is the drill that is made of a file unasked.
func importing(b []byte, g guitar.Guitar) (drillfile.File, error) {
	in, err := exchange.Import(b, g, exchange.Unasked)
	return in.File, err
}

func TestWrittenAndReadBackIsTheSame(t *testing.T) {
	for _, format := range []exchange.Format{exchange.MusicXML, exchange.MIDI, exchange.Tab, exchange.JSON} {
		rapid.Check(t, func(t *rapid.T) {
			d := smallDrill(t)
			before, err := d.Chart(g, 90)
			require.NoError(t, err)
			doc, err := exchange.Export(fileOf(d), g, guitar.UsualHand(), 90, format)
			require.NoError(t, err)
			back, err := importing(doc.Content, g)
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

// Swung notes sound swung in a MIDI file, are written straight with a word on how they are played
// in MusicXML, and both are read back as they were. MIDI has them by ticks, so its share is read
// to the hundredth.
func TestSwingIsWrittenAndReadBack(t *testing.T) {
	d := drill.New("swung", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}})
	d.Rhythm.NotesPerBeat, d.Rhythm.Swing = 2, 0.667
	for _, format := range []exchange.Format{exchange.MusicXML, exchange.MIDI} {
		doc, err := exchange.Export(fileOf(d), g, guitar.UsualHand(), 90, format)
		require.NoError(t, err)
		back, err := importing(doc.Content, g)
		require.NoError(t, err)
		assert.InDelta(t, 0.667, back.Drill.Rhythm.Swing, 0.006, format)
		assert.Equal(t, 2, back.Drill.Rhythm.NotesPerBeat)
	}
}

// exported writes a family's drill into a file and returns its name.
func exported(t *testing.T, d drill.Drill, format exchange.Format) string {
	t.Helper()
	doc, err := exchange.Export(fileOf(d), g, guitar.UsualHand(), 90, format)
	require.NoError(t, err)
	name := filepath.Join(t.TempDir(), doc.Name)
	require.NoError(t, os.WriteFile(name, doc.Content, 0o600))
	return name
}

// midicsv is an independent reader of Standard MIDI Files (Debian).
func TestMIDIIsReadByAnotherProgram(t *testing.T) {
	for _, f := range library.Families() {
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
	for _, f := range library.Families() {
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
	d := library.Families()[0].Drill
	d.Rhythm.Passes = 1
	c, err := d.Chart(g, 90)
	require.NoError(t, err)
	for _, format := range []exchange.Format{exchange.WAV, exchange.ClickWAV} {
		doc, err := exchange.Export(fileOf(d), g, guitar.UsualHand(), 90, format)
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
	_, err = exchange.Export(fileOf(d), g, guitar.UsualHand(), 60, exchange.WAV)
	assert.Error(t, err)
}

// What others write: tab by hand, a melody without places, another tuning.
func TestFilesOfOthersBecomeFreeDrills(t *testing.T) {
	tab := "my lick\n\ne|-----------------|\nB|-----------------|\nG|--5h7-5p4-----7\\5-|\nD|------------7-----|\nA|-----------------|\nE|-----------------|\n"
	f, err := importing([]byte(tab), g)
	require.NoError(t, err)
	assert.Equal(t, "my lick", f.Drill.Name)
	c, err := f.Drill.Chart(g, 60)
	require.NoError(t, err)
	var got []string
	for _, n := range c.Notes {
		got = append(got, strconv.Itoa(n.String)+"/"+strconv.Itoa(n.Fret)+string(n.Attack[0]))
	}
	assert.Equal(t, "3/5p 3/7h 3/5p 3/4p 4/7p 3/7p 3/5s", strings.Join(got, " "))

	short, err := exchange.Import([]byte("3:5h7 2:8p5"), g, exchange.Unasked)
	require.NoError(t, err)
	assert.Contains(t, strings.Join(short.Told, " "), "Fingers are proposed")
	assert.Equal(t, []int{3, 2}, short.File.Drill.Path.Strings)

	// C4 to G4 by step in a file with one track, running status and no texts.
	midi := append([]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x23"), []byte{
		0, 0x90, 60, 90, 48, 60, 0, 0, 62, 90, 48, 62, 0, 0, 64, 90, 48, 64, 0, 0, 65, 90, 48, 65, 0, 0, 67, 90, 48, 67, 0, 0, 0xff, 0x2f, 0}...)
	melody, err := exchange.Import(midi, g, exchange.Unasked)
	require.NoError(t, err)
	assert.Contains(t, strings.Join(melody.Told, " "), "Strings and frets are proposed")
	assert.Equal(t, 2, melody.File.Drill.Rhythm.NotesPerBeat, "48 of 96 ticks are half a beat")
	c, err = melody.File.Drill.Chart(g, 60)
	require.NoError(t, err)
	used := map[int]bool{}
	for i, n := range c.Notes {
		assert.Equal(t, []int{60, 62, 64, 65, 67}[i], n.MIDI)
		used[n.String] = true
	}
	assert.LessOrEqual(t, len(used), 2, "what fits on one or two strings lies there")
}

// A whole piece is read as far as it fits, and any other bars by choice; the tempi of the
// file become the ladder.
func TestBarsAreChosen(t *testing.T) {
	piece := "60 bpm, 4 notes a beat, 4 beats a bar\n\n" + strings.Repeat("3|-5-7-8-7-|-5-7-8-10-|\n\n", 100)
	in, err := exchange.Import([]byte(piece), g, exchange.Unasked)
	require.NoError(t, err)
	assert.Equal(t, []int{200, 1, 128}, []int{in.Bars, in.FirstBar, in.LastBar})
	assert.Contains(t, in.Told, "The file holds 800 notes in 200 bars, and a drill up to 512: bars 1 to 128 are read.")
	notes := func(in exchange.Imported) int { return len(in.File.Drill.Pattern.(drill.Free).Notes) }
	assert.Equal(t, 512, notes(in))
	in, err = exchange.Import([]byte(piece), g, exchange.Choice{Line: score.AnyLine, FirstBar: 199, LastBar: 500})
	require.NoError(t, err)
	assert.Equal(t, []int{200, 199, 200, 8}, []int{in.Bars, in.FirstBar, in.LastBar, notes(in)})
	for says, c := range map[string]exchange.Choice{
		"there is no bar 201; the file has 200": {Line: score.AnyLine, FirstBar: 201, LastBar: 201},
		"bar 9 comes after bar 3":               {Line: score.AnyLine, FirstBar: 9, LastBar: 3},
		"the file holds 800 notes":              {Line: score.AnyLine, FirstBar: 1, LastBar: 200},
	} {
		_, err = exchange.Import([]byte(piece), g, c)
		assert.ErrorContains(t, err, says)
	}
	climbs := `<score-partwise><part id="P1"><measure number="1"><sound tempo="60"/>` + xmlNote + xmlNote + `</measure><measure number="2"><sound tempo="80"/>` + xmlNote + xmlNote + `</measure></part></score-partwise>`
	in, err = exchange.Import([]byte(climbs), g, exchange.Unasked)
	require.NoError(t, err)
	assert.Equal(t, []float64{60, 80}, []float64{in.File.Ladder.StartBPM, in.File.Ladder.TargetBPM})
	assert.Contains(t, in.Told, "The tempo of the file changes, between 60 and 80 bpm; the ladder goes from 60 to 80.")
	held := strings.Replace(climbs, `tempo="80"`, `tempo="30"`, 1)
	in, err = exchange.Import([]byte(held), g, exchange.Unasked)
	require.NoError(t, err)
	assert.Equal(t, []float64{60, 120}, []float64{in.File.Ladder.StartBPM, in.File.Ladder.TargetBPM}, "a slow end is no rung")
	assert.Contains(t, in.Told, "The tempo of the file changes, between 30 and 60 bpm; the ladder goes from 60 to 120.")
}

// Another line than the likeliest is read where it is asked for; of very many the first are told.
func TestALineIsChosen(t *testing.T) {
	part := func(id string, notes int) string {
		return `<part id="` + id + `"><measure number="1">` + strings.Repeat(xmlNote, notes) + `</measure></part>`
	}
	duet := []byte("<score-partwise>" + part("P1", 3) + part("P2", 5) + "</score-partwise>")
	for asked, want := range map[int]int{score.AnyLine: 3, 0: 3, 1: 5} {
		in, err := exchange.Import(duet, g, exchange.Choice{Line: asked})
		require.NoError(t, err)
		assert.Len(t, in.File.Drill.Pattern.(drill.Free).Notes, want)
		assert.Equal(t, []score.Line{{Name: "Part 1", Notes: 3}, {Name: "Part 2", Notes: 5}}, in.Lines)
		assert.Equal(t, max(0, asked), in.Line)
	}
	many := "<score-partwise>"
	for range 3000 {
		many += part("P", 1)
	}
	in, err := exchange.Import([]byte(many+"</score-partwise>"), g, exchange.Unasked)
	require.NoError(t, err)
	assert.Len(t, in.Lines, 256)
}

const xmlNote = `<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note>`

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
		_, err := importing([]byte(c.content), g)
		require.Error(t, err, name)
		assert.Contains(t, err.Error(), c.says, name)
	}
}

// Nothing that comes in may break the readers.
func FuzzImport(f *testing.F) {
	for _, format := range []exchange.Format{exchange.MusicXML, exchange.MIDI, exchange.Tab, exchange.JSON} {
		d := library.Families()[0].Drill
		d.Path.Strings = []int{2, 1}
		doc, err := exchange.Export(fileOf(d), g, guitar.UsualHand(), 90, format)
		require.NoError(f, err)
		f.Add(doc.Content)
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		var file drillfile.File
		var err error
		reading(t, b, func(b []byte) { file, err = importing(b, g) })
		if err == nil && len(file.Check(g)) == 0 {
			_, err := file.Drill.Chart(g, 60)
			assert.NoError(t, err)
		}
	})
}
