package musicxml_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/text/encoding/charmap"

	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/formats/musicxml"
	"manudrill/formats/ziptest"
)

// alone is a score of one part alone.
func alone(measures ...string) []byte {
	text := string(doc(measures...))
	return []byte(text[:strings.Index(text, `<part id="P2">`)] + "</score-partwise>")
}

func attributes(more string) string {
	return "<attributes><divisions>2</divisions>" + more + "</attributes>"
}

func meter(beats, kind string) string {
	return "<time><beats>" + beats + "</beats><beat-type>" + kind + "</beat-type></time>"
}

func mark(unit, dot, perMinute string) string {
	return "<direction><direction-type><metronome><beat-unit>" + unit + "</beat-unit>" + dot + "<per-minute>" + perMinute + "</per-minute></metronome></direction-type></direction>"
}

// Every staff that has notes can be read, by the name of its part; bars are those of the score.
func TestOneStaffOfSeveralIsRead(t *testing.T) {
	text := string(doc(attributes(`<staves>2</staves><clef number="2"><sign>TAB</sign></clef>`)+`<sound tempo="60"/>`+note("C", 4, "")+note("D", 4, "<staff>2</staff>"), `<sound tempo="90"/>`+note("E", 4, "<staff>2</staff>")))
	for asked, want := range map[int][]int{score.AnyLine: {62, 64}, 0: {60}, 1: {62, 64}, 2: {24}} {
		s, err := musicxml.Read([]byte(text), asked)
		require.NoError(t, err)
		assert.Equal(t, []score.Line{{Name: "Flute, staff 1", Notes: 1}, {Name: "Flute, staff 2 (tablature)", Notes: 2}, {Name: "Part 2", Notes: 1}}, s.Lines)
		var got []int
		for _, n := range s.Notes {
			got = append(got, n.MIDI)
		}
		assert.Equal(t, want, got, "line %d", asked)
	}
	twins := string(doc(attributes(`<staves>2</staves><clef number="2"><sign>TAB</sign></clef>`) + note("C", 4, "") + note("C", 4, "<staff>2</staff>")))
	s, err := musicxml.Read([]byte(twins), score.AnyLine)
	require.NoError(t, err)
	assert.Len(t, s.Lines, 2, "a staff that says the same as the tablature is no line of its own")
	s, err = musicxml.Read([]byte(text), 1)
	require.NoError(t, err)
	assert.InDelta(t, 60, s.BPM, 1e-9)
	require.NoError(t, s.Within(2, 2))
	assert.InDelta(t, 90, s.BPM, 1e-9)
	assert.Len(t, s.Notes, 1)
	_, err = musicxml.Read([]byte(text), 3)
	assert.ErrorContains(t, err, "choose one of its 3")
}

// Tempo and bars as they are written: a beat is what the time says (MusicXML 4.0 has
// sound's tempo in quarters a minute; that six eighths are two beats is common practice).
func TestTempoAndBars(t *testing.T) {
	for name, c := range map[string]struct {
		start string
		bpm   float64
		beats int
		gap   float64 // beats from one eighth to the next
	}{
		"three quarters":             {attributes(meter("3", "4")) + mark("quarter", "", "96"), 96, 3, 0.5},
		"six eighths, dotted":        {attributes(meter("6", "8")) + mark("quarter", "<beat-unit-dot/>", "60"), 60, 2, 1.0 / 3},
		"six eighths, by quarters":   {attributes(meter("6", "8")) + mark("quarter", "", "90"), 60, 2, 1.0 / 3},
		"two halves":                 {attributes(meter("2", "2")) + mark("half", "", "60"), 60, 2, 0.25},
		"sound alone":                {attributes(meter("4", "4")) + `<sound tempo="72.5"/>`, 72.5, 4, 0.5},
		"sound in a direction":       {attributes(meter("4", "4")) + `<direction><direction-type><words>Slowly</words></direction-type><sound tempo="50"/></direction>`, 50, 4, 0.5},
		"about so fast":              {attributes(meter("4", "4")) + mark("quarter", "", "c. 120"), 120, 4, 0.5},
		"nothing said":               {attributes(""), 0, 0, 0.5},
		"a time that is none":        {attributes(meter("3+2", "8")), 0, 0, 0.5},
		"only the first tempo":       {attributes(meter("4", "4")) + mark("quarter", "", "80") + mark("quarter", "", "160"), 80, 4, 0.5},
		"three eighths, each a beat": {attributes(meter("3", "8")) + mark("eighth", "", "100"), 100, 3, 1},
	} {
		s, err := musicxml.Read(alone(c.start+note("C", 4, "")+note("D", 4, "")), score.AnyLine)
		require.NoError(t, err, name)
		assert.InDelta(t, c.bpm, s.BPM, 1e-9, name)
		assert.Equal(t, c.beats, s.BeatsPerBar, name)
		assert.InDelta(t, c.gap, s.Notes[1].Beat, 1e-9, name)
		assert.Empty(t, s.Told, name)
	}
}

// What sounds is what is written, moved by what the part says.
func TestATransposedPart(t *testing.T) {
	s, err := musicxml.Read(alone(attributes("<transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose>")+note("C", 4, "")), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, 58, s.Notes[0].MIDI)
	s, err = musicxml.Read(alone(attributes("<transpose><chromatic>0</chromatic><octave-change>-1</octave-change></transpose>")+note("C", 5, "")), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, 60, s.Notes[0].MIDI)
	tab := attributes(`<clef><sign>TAB</sign></clef><staff-details><staff-lines>1</staff-lines><staff-tuning line="1"><tuning-step>G</tuning-step><tuning-octave>3</tuning-octave></staff-tuning></staff-details>
		<transpose><chromatic>0</chromatic><octave-change>-1</octave-change></transpose>`)
	for _, octave := range []int{4, 5} { // what is read, or what sounds
		s, err = musicxml.Read(alone(tab+note("C", octave, "<notations><technical><string>1</string><fret>5</fret></technical></notations>")), score.AnyLine)
		require.NoError(t, err)
		assert.Equal(t, 60, s.Notes[0].MIDI, "a place sounds as it does, whatever is written")
	}
}

// Of several parts that with tablature is read, wherever it stands.
func TestThePartWithTablature(t *testing.T) {
	text := string(doc(start + note("C", 4, "")))
	tab := `<part id="P3"><measure number="1">` + attributes("<clef><sign>TAB</sign></clef>") + note("E", 4, "<notations><technical><string>1</string><fret>0</fret></technical></notations>") + "</measure></part></score-partwise>"
	s, err := musicxml.Read([]byte(strings.Replace(text, "</score-partwise>", tab, 1)), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, 64, s.Notes[0].MIDI)
	assert.Equal(t, []string{"The score has 3 parts; “Part 3” is read."}, s.Told)
	silent := `<part id="P0"><measure number="1"><note><rest/><duration>1</duration></note></measure></part><part id="P1">`
	s, err = musicxml.Read([]byte(strings.Replace(text, `<part id="P1">`, silent, 1)), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, 60, s.Notes[0].MIDI, "a part without notes is passed over")
}

// Voices that are written one after the other sound at their times.
func TestVoicesInOrderOfTime(t *testing.T) {
	s, err := musicxml.Read(alone(start+note("C", 5, "<voice>1</voice>")+`<forward><duration>1</duration></forward>`+note("E", 5, "<voice>1</voice>")+
		`<backup><duration>3</duration></backup>`+note("C", 4, "<voice>2</voice>")+note("D", 4, "<voice>2</voice>")), score.AnyLine)
	require.NoError(t, err)
	var midi []int
	for _, n := range s.Notes {
		midi = append(midi, n.MIDI)
	}
	assert.Equal(t, []int{72, 62, 76}, midi)
	assert.Contains(t, s.Told[0], "the highest is kept: in 1 of the places")
}

// A slur on one string is what a hand does there.
func TestSlursWithoutSigns(t *testing.T) {
	slur := func(kind string) string { return `<slur type="` + kind + `" number="1"/>` }
	s, err := musicxml.Read(alone(start+note("C", 4, "<notations>"+slur("start")+"</notations>")+note("D", 4, "")+note("C", 4, "<notations>"+slur("stop")+"</notations>")+note("D", 4, "")), score.AnyLine)
	require.NoError(t, err)
	var attacks []chart.Attack
	for _, n := range s.Notes {
		attacks = append(attacks, n.Attack)
	}
	assert.Equal(t, []chart.Attack{"", chart.Hammer, chart.Pull, ""}, attacks)
	assert.Equal(t, []string{"Slurs are read as hammer-ons and pull-offs: 2."}, s.Told)
}

func TestRepetitions(t *testing.T) {
	repeat := func(way string) string { return `<barline><repeat direction="` + way + `"/></barline>` }
	ending := `<barline><ending number="1" type="start"/></barline>`
	for name, c := range map[string]struct {
		measures []string
		passes   int
		told     bool
	}{
		"all of it":        {[]string{start + repeat("forward") + note("C", 4, ""), note("D", 4, "") + repeat("backward")}, 2, false},
		"a part of it":     {[]string{start + note("C", 4, "") + repeat("backward"), note("D", 4, "")}, 0, true},
		"from the second":  {[]string{start + note("C", 4, ""), repeat("forward") + note("D", 4, "") + repeat("backward")}, 0, true},
		"with two endings": {[]string{start + note("C", 4, "") + ending, note("D", 4, "") + repeat("backward")}, 0, true},
	} {
		s, err := musicxml.Read(alone(c.measures...), score.AnyLine)
		require.NoError(t, err, name)
		assert.Equal(t, c.passes, s.Passes, name)
		assert.Equal(t, c.told, len(s.Told) > 0, name)
	}
}

// Numbers may be broken (MusicXML 4.0: divisions, semitones).
func TestBrokenNumbers(t *testing.T) {
	s, err := musicxml.Read(alone(`<attributes><divisions>0.5</divisions></attributes>
		<note><pitch><step>F</step><alter>1.0</alter><octave>4</octave></pitch><duration>0.25</duration></note>
		<note><pitch><step>C</step><alter>0.5</alter><octave>4</octave></pitch><duration>1.5</duration></note>`), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, []int{66, 61}, []int{s.Notes[0].MIDI, s.Notes[1].MIDI}, "a quarter tone is the nearer whole one")
	assert.InDelta(t, 0.5, s.Notes[1].Beat, 1e-9)
}

func TestTextInLatin1(t *testing.T) {
	text := strings.Replace(string(alone(start+note("C", 4, ""))), " Air ", "Übung", 1)
	raw, err := charmap.ISO8859_1.NewEncoder().String(strings.Replace(text, "UTF-8", "ISO-8859-1", 1))
	require.NoError(t, err)
	s, err := musicxml.Read([]byte(raw), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, "Übung", s.Name)
}

func TestCompressedScores(t *testing.T) {
	score := string(alone(start + note("C", 4, "")))
	root := `<container><rootfiles><rootfile full-path="music/air.xml"/></rootfiles></container>`
	for name, files := range map[string]map[string]string{
		"as the standard says": {"META-INF/container.xml": root, "music/air.xml": score, "aaa.xml": "<other/>"},
		"without a container":  {"air.musicxml": score},
	} {
		raw, err := musicxml.Uncompressed(ziptest.Of(t, files))
		require.NoError(t, err, name)
		assert.Equal(t, score, string(raw), name)
	}
	for name, raw := range map[string][]byte{
		"no score":     ziptest.Of(t, map[string]string{"a.txt": "a"}),
		"a lost score": ziptest.Of(t, map[string]string{"META-INF/container.xml": root}),
		"half of one":  ziptest.Of(t, map[string]string{"air.xml": score})[:40],
	} {
		_, err := musicxml.Uncompressed(raw)
		assert.ErrorIs(t, err, musicxml.ErrNoScore, name)
	}
	_, err := musicxml.Uncompressed(ziptest.Of(t, map[string]string{"air.xml": strings.Repeat(" ", bounds.DocumentBytes+1)}))
	assert.ErrorIs(t, err, bounds.ErrDocumentTooLarge, "packed small, it is large")
}
