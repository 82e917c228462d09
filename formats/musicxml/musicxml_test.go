package musicxml_test

import (
	"encoding/xml"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/formats/musicxml"
)

// doc is a score of one part with some measures, as another program writes it.
func doc(measures ...string) []byte {
	var all strings.Builder
	for _, m := range measures {
		all.WriteString("<measure number=\"1\">" + m + "</measure>")
	}
	return []byte(`<?xml version="1.0" encoding="UTF-8"?><!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 3.1 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">
		<score-partwise version="3.1"><movement-title> Air </movement-title><part-list><score-part id="P1"><part-name>Flute</part-name></score-part></part-list>
		<part id="P1">` + all.String() + `</part><part id="P2"><measure number="1"><note><pitch><step>C</step><octave>1</octave></pitch><duration>1</duration></note></measure></part></score-partwise>`)
}

const start = `<attributes><divisions>2</divisions><time><beats>3</beats><beat-type>4</beat-type></time><clef><sign>G</sign><line>2</line></clef></attributes>
	<direction><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>96</per-minute></metronome></direction-type></direction>`

func note(step string, octave int, more string) string {
	return `<note><pitch><step>` + step + `</step><octave>` + string(rune('0'+octave)) + `</octave></pitch><duration>1</duration>` + more + `</note>`
}

func TestAMelodyWithoutPlaces(t *testing.T) {
	s, err := musicxml.Read(doc(start+note("C", 4, "")+note("E", 4, ""), note("G", 4, "")), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, "Air", s.Name)
	assert.InDelta(t, 96, s.BPM, 0)
	assert.Equal(t, 3, s.BeatsPerBar)
	require.Len(t, s.Notes, 3, "of the first part alone")
	for i, midi := range []int{60, 64, 67} {
		assert.Equal(t, midi, s.Notes[i].MIDI)
		assert.InDelta(t, float64(i)/2, s.Notes[i].Beat, 1e-9)
		assert.Zero(t, s.Notes[i].String)
		assert.Empty(t, s.Notes[i].Attack)
	}
}

func TestWhatIsNoNoteOfItsOwn(t *testing.T) {
	s, err := musicxml.Read(doc(start+
		`<note><grace/><pitch><step>B</step><octave>3</octave></pitch></note>`+
		note("C", 4, `<tie type="start"/>`)+note("C", 4, `<tie type="stop"/>`)+
		`<note><rest/><duration>1</duration></note>`+
		note("E", 4, "")+`<note><chord/><pitch><step>G</step><octave>4</octave></pitch><duration>1</duration></note>`+
		`<harmony/><print/><forward><duration>2</duration></forward>`+note("F", 4, "")), score.AnyLine)
	require.NoError(t, err)
	require.Len(t, s.Notes, 3, "grace notes, tied notes and lower notes of a chord are none")
	assert.Equal(t, []int{60, 67, 65}, []int{s.Notes[0].MIDI, s.Notes[1].MIDI, s.Notes[2].MIDI})
	assert.InDelta(t, 1.5, s.Notes[1].Beat, 1e-9, "a tied half beat and a rest later")
	assert.InDelta(t, 3, s.Notes[2].Beat, 1e-9)
	assert.Equal(t, []string{"The score has 2 parts; “Flute” is read.", "Where several notes sound together the highest is kept: in 1 of the places.", "Grace notes are left out: 1."}, s.Told)
}

func TestTheStaffOfTablatureIsPreferred(t *testing.T) {
	tab := strings.Replace(start, "<clef><sign>G</sign><line>2</line></clef>",
		`<staves>2</staves><clef number="1"><sign>G</sign></clef><clef number="2"><sign>TAB</sign></clef>
		<staff-details number="2"><staff-lines>6</staff-lines><staff-tuning line="1"><tuning-step>D</tuning-step><tuning-octave>2</tuning-octave></staff-tuning>
		<staff-tuning line="2"><tuning-step>A</tuning-step><tuning-octave>2</tuning-octave></staff-tuning></staff-details>`, 1)
	s, err := musicxml.Read(doc(tab+note("C", 4, "<staff>1</staff>")+`<backup><duration>1</duration></backup>`+
		note("C", 4, `<staff>2</staff><notations><technical><fingering>3</fingering><string>2</string><fret>15</fret><up-bow/></technical></notations>`)), score.AnyLine)
	require.NoError(t, err)
	require.Len(t, s.Notes, 1)
	assert.Equal(t, score.Note{MIDI: 60, String: 2, Fret: 15, Finger: 3, Attack: chart.Pick, Stroke: chart.UpStroke}, s.Notes[0])
	assert.Equal(t, []int{45, 38}, s.Tuning, "line 1 is the lowest string")
}

// withEveryAttack is a small one with every attack there is.
func withEveryAttack(t *testing.T) chart.Chart {
	t.Helper()
	d := drill.New("All attacks", drill.Free{Notes: []drill.FreeNote{
		{String: 3, Fret: 5, Finger: 1, Attack: chart.Pick}, {String: 3, Fret: 7, Finger: 3, Attack: chart.Hammer},
		{String: 3, Fret: 5, Finger: 1, Attack: chart.Pull}, {String: 3, Fret: 8, Finger: 1, Attack: chart.Slide},
		{String: 3, Fret: 12, Hand: chart.TappingHand, Attack: chart.Tap}, {String: 2, Fret: 8, Finger: 1, Attack: chart.Nowhere},
	}})
	d.Path.Position, d.Path.Strings = 5, []int{3, 2}
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes, d.Fingering.BendHeld = 3, 2, 1
	c, err := d.Chart(guitar.Standard(), 72)
	require.NoError(t, err)
	return c
}

// Element names, attributes and their order as the MusicXML 4.0 reference lists
// them.
func TestWhatIsWrittenIsMusicXML(t *testing.T) {
	raw, err := musicxml.Write(withEveryAttack(t))
	require.NoError(t, err)
	text := string(raw)
	for _, piece := range []string{
		`<score-partwise version="4.0">`, `<work-title>All attacks</work-title>`, `<clef-octave-change>-1</clef-octave-change>`,
		`<sign>TAB</sign>`, `<staff-lines>6</staff-lines>`, `<staff-tuning line="6">`, `<per-minute>72</per-minute>`, `<sound tempo="72">`,
		`<actual-notes>3</actual-notes>`, `<tuplet type="start" number="1">`, `<hammer-on type="start" number="1">H</hammer-on>`,
		`<pull-off type="stop" number="1">`, `<slide type="start" number="2">`, `<tap hand="right">`, `<tap hand="left">`,
		`<bend-alter>1</bend-alter>`, `<pre-bend>`, `<down-bow>`, `<repeat direction="backward" times="2">`,
	} {
		assert.Contains(t, text, piece)
	}
	assert.NoError(t, xml.Unmarshal(raw, new(struct {
		XMLName xml.Name `xml:"score-partwise"`
	})))
	order := []string{"<pitch>", "<duration>", "<voice>", "<type>", "<time-modification>", "<staff>", "<notations>"}
	first := text[strings.Index(text, "<note>"):strings.Index(text, "</note>")]
	at := -1
	for _, element := range order {
		next := strings.Index(first, element)
		assert.Greater(t, next, at, "%s follows what stands before it in the standard", element)
		at = next
	}
	back, err := musicxml.Read(raw, score.AnyLine)
	require.NoError(t, err)
	for i, n := range withEveryAttack(t).Notes {
		got := back.Notes[i]
		assert.Equal(t, []any{n.String, n.Fret, n.Finger, n.Attack, n.MIDI, n.Bend}, []any{got.String, got.Fret, fingerOf(got, n), got.Attack, got.MIDI, got.Bend}, "note %d", i)
	}
	assert.Equal(t, 2, back.Passes)
}

// Notes that are swung are written straight, and how they are played is said beside the tempo
// (MusicXML 4.0, element swing).
func TestSwingIsSaid(t *testing.T) {
	c := withEveryAttack(t)
	c.NotesPerBeat, c.Swing = 2, 0.667
	raw, err := musicxml.Write(c)
	require.NoError(t, err)
	assert.Regexp(t, `<swing>\s*<first>67</first>\s*<second>33</second>\s*<swing-type>eighth</swing-type>\s*</swing>`, string(raw))
	back, err := musicxml.Read(raw, score.AnyLine)
	require.NoError(t, err)
	assert.InDelta(t, 0.67, back.Swing, 1e-9)
	c.Swing = 0
	raw, err = musicxml.Write(c)
	require.NoError(t, err)
	assert.NotContains(t, string(raw), "<swing>")
}

func fingerOf(got score.Note, want chart.Note) int {
	if want.Fret == 0 {
		return 0
	}
	return got.Finger
}

func TestDocumentsThatAreNone(t *testing.T) {
	for name, text := range map[string]string{
		"empty": "", "other": "<html/>", "time-wise": "<score-timewise/>", "no part": "<score-partwise/>",
		"cut": string(doc(start))[:300], "silent": string(alone(start + `<note><rest/><duration>1</duration></note>`)),
	} {
		_, err := musicxml.Read([]byte(text), score.AnyLine)
		assert.Error(t, err, name)
	}
}
