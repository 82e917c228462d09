package musicxml

import (
	"encoding/xml"
	"fmt"
	"math"

	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
)

const doctype = `<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">` + "\n"

// The two staves and the voices in them.
const (
	noteStaff = 1
	tabStaff  = 2
)

// value is how a division of the beat is written: a note type, and for tuplets
// how many stand for how many.
type value struct {
	kind           string
	actual, normal int
}

var values = map[int]value{
	1: {"quarter", 0, 0}, 2: {"eighth", 0, 0}, 3: {"eighth", 3, 2}, 4: {"16th", 0, 0}, 6: {"16th", 6, 4}, 8: {"32nd", 0, 0},
}

// Write writes a chart. The last bar is as long as its notes, so that a pass that is repeated
// goes on without a break.
func Write(c chart.Chart) ([]byte, error) {
	doc := document{
		Version: "4.0", Title: c.Name, Software: "Manudrill",
		PartList: []partListItem{{ID: "P1", Name: "Guitar"}},
		Parts:    []part{{ID: "P1"}},
	}
	perBar := c.NotesPerBeat * c.BarBeats()
	for from := 0; from < len(c.Notes); from += perBar {
		doc.Parts[0].Measures = append(doc.Parts[0].Measures, writeMeasure(c, from, min(perBar, len(c.Notes)-from)))
	}
	if n := len(c.Notes) % perBar; n > 0 {
		doc.Parts[0].Measures[len(doc.Parts[0].Measures)-1].Implicit = true
	}
	body, err := xml.MarshalIndent(doc, "", " ")
	if err != nil {
		return nil, err
	}
	return append([]byte(xml.Header+doctype), append(body, '\n')...), nil
}

// swingOf is how the notes are swung, where the format can say so: of eighths and sixteenths.
func swingOf(c chart.Chart) *swing {
	kind := map[int]string{2: "eighth", 4: "16th"}[c.NotesPerBeat]
	if !c.Swings() || kind == "" {
		return nil
	}
	first := int(math.Round(100 * c.Swing))
	return &swing{first, 100 - first, kind}
}

// writeMeasure writes so many notes from one on.
func writeMeasure(c chart.Chart, from, notes int) measure {
	perBar := c.NotesPerBeat * c.BarBeats()
	m := measure{Number: fmt.Sprint(from/perBar + 1)}
	add := func(content ...any) { m.Content = append(m.Content, content...) }
	if from == 0 {
		if c.Passes > 1 {
			add(barline{Location: "left", Style: "heavy-light", Repeat: &repeat{Direction: "forward"}})
		}
		add(firstAttributes(c), direction{
			Placement: "above", Unit: "quarter", PerMinute: fmt.Sprint(c.BPM), Staff: noteStaff, Sound: &tempo{decimal(c.BPM), swingOf(c)},
		})
	}
	for _, staff := range []int{noteStaff, tabStaff} {
		if staff == tabStaff {
			add(backup{Duration: decimal(notes)})
		}
		signs := signsOf(c.Fifths)
		for i := range notes {
			n := writeNote(c, from+i, i, notes, staff)
			n.Beams = beamsOf(c.NotesPerBeat, i, notes)
			if staff == noteStaff {
				n.Sign = signs.before(*n.Pitch)
			}
			add(n)
		}
	}
	if from+notes == len(c.Notes) {
		end := barline{Location: "right", Style: "light-heavy"}
		if c.Passes > 1 {
			end.Repeat = &repeat{Direction: "backward", Times: c.Passes}
		}
		add(end)
	}
	return m
}

func firstAttributes(c chart.Chart) attributes {
	details := staffDetails{Number: tabStaff, Lines: len(c.Tuning)}
	for str := len(c.Tuning); str >= 1; str-- { // line 1 is the lowest
		s := guitar.NewSpeller(nil).Spell(c.Tuning[str-1])
		details.Tunings = append(details.Tunings, staffTuning{Line: len(c.Tuning) - str + 1, Step: s.Step, Alter: decimal(s.Alter), Octave: s.Octave})
	}
	return attributes{
		Divisions: decimal(c.NotesPerBeat), Key: &key{c.Fifths}, Time: &meter{fmt.Sprint(c.BarBeats()), "4"}, Staves: 2,
		Clefs:        []clef{{Number: noteStaff, Sign: "G", Line: 2, Octave: -1}, {Number: tabStaff, Sign: "TAB", Line: 5}},
		StaffDetails: []staffDetails{details},
	}
}

// plain is a note of one division, one of so many in a bar, with its tuplet.
func plain(c chart.Chart, inBar, notes, staff int) note {
	v := values[c.NotesPerBeat]
	n := note{Duration: 1, Voice: fmt.Sprint(1 + 4*(staff-1)), Type: v.kind, Staff: staff}
	if v.actual > 0 {
		n.Time = &timeModification{v.actual, v.normal}
		first := inBar%c.NotesPerBeat == 0
		last := inBar%c.NotesPerBeat == c.NotesPerBeat-1 || inBar == notes-1
		switch {
		case first && !last:
			n.Notation = &notations{Tuplets: []typed{{Type: "start", Number: 1}}}
		case last && !first:
			n.Notation = &notations{Tuplets: []typed{{Type: "stop", Number: 1}}}
		}
	}
	return n
}

func writeNote(c chart.Chart, i, inBar, notes, staff int) note {
	from := c.Notes[i]
	n := plain(c, inBar, notes, staff)
	n.Pitch = pitchOf(from)
	if n.Notation == nil {
		n.Notation = &notations{}
	}
	slurred := func(k int) bool {
		return k < len(c.Notes) && (c.Notes[k].Attack == chart.Hammer || c.Notes[k].Attack == chart.Pull)
	}
	slides := func(k int) bool { return k < len(c.Notes) && c.Notes[k].Attack == chart.Slide }
	if slurred(i) {
		n.Notation.Slurs = append(n.Notation.Slurs, typed{Type: "stop", Number: staff})
	}
	if slurred(i + 1) {
		n.Notation.Slurs = append(n.Notation.Slurs, typed{Type: "start", Number: staff})
	}
	if slides(i) {
		n.Notation.Slides = append(n.Notation.Slides, typed{Type: "stop", Number: staff})
	}
	if slides(i + 1) {
		n.Notation.Slides = append(n.Notation.Slides, typed{Type: "start", Number: staff})
	}
	n.Notation.Technical = &technical{}
	writeStroke(from, n.Notation.Technical)
	if staff == tabStaff {
		writePlace(c, i, n.Notation.Technical)
	}
	return n
}

func pitchOf(n chart.Note) *pitch {
	midi := n.MIDI - n.Bend
	s := guitar.NewSpeller(nil).Spell(midi)
	if written, ok := guitar.ReadSpelling(n.Written); ok && written.MIDI() == midi {
		s = written
	}
	return &pitch{s.Step, decimal(s.Alter), s.Octave}
}

func writeStroke(n chart.Note, t *technical) {
	switch n.Stroke {
	case chart.DownStroke:
		t.DownBow = &empty{}
	case chart.UpStroke:
		t.UpBow = &empty{}
	case chart.Index, chart.Middle:
		t.Pluck = string(n.Stroke)
	}
}

// writePlace writes string, fret, finger and the attack.
func writePlace(c chart.Chart, i int, t *technical) {
	n := c.Notes[i]
	t.String, t.Fret = n.String, &n.Fret
	if n.Finger > 0 {
		t.Fingering = fmt.Sprint(n.Finger)
	}
	if n.Bend > 0 {
		t.Bend = &bend{Alter: decimal(n.Bend), PreBend: &empty{}}
	}
	mark := func(attack chart.Attack, text string) (marks []typed) {
		if n.Attack == attack {
			marks = append(marks, typed{Type: "stop", Number: 1})
		}
		if i+1 < len(c.Notes) && c.Notes[i+1].Attack == attack {
			marks = append(marks, typed{Type: "start", Number: 1, Text: text})
		}
		return marks
	}
	t.Hammers, t.Pulls = mark(chart.Hammer, "H"), mark(chart.Pull, "P")
	switch n.Attack {
	case chart.Tap:
		t.Tap = &handedTap{Hand: "right"}
	case chart.Nowhere:
		t.Tap = &handedTap{Hand: "left"}
	case chart.Bend:
		t.Other = []othersOwn{{"bend"}}
	}
	if n.Hand == chart.TappingHand && n.Attack != chart.Tap {
		t.Other = append(t.Other, othersOwn{"tapping hand"})
	}
}
