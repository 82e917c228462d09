package musicxml

import (
	"encoding/xml"
	"fmt"

	"manudrill/core/drill"
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

// Write writes a chart. The last bar is filled with rests; the pass is repeated
// as often as the chart is passed through.
func Write(c drill.Chart) ([]byte, error) {
	doc := document{
		Version: "4.0", Title: c.Name, Software: "Manudrill",
		PartList: []partListItem{{ID: "P1", Name: "Guitar"}},
		Parts:    []part{{ID: "P1"}},
	}
	perBar := c.NotesPerBeat * c.BarBeats()
	for from := 0; from < len(c.Notes); from += perBar {
		doc.Parts[0].Measures = append(doc.Parts[0].Measures, writeMeasure(c, from, perBar))
	}
	body, err := xml.MarshalIndent(doc, "", " ")
	if err != nil {
		return nil, err
	}
	return append([]byte(xml.Header+doctype), append(body, '\n')...), nil
}

func writeMeasure(c drill.Chart, from, perBar int) measure {
	m := measure{Number: fmt.Sprint(from/perBar + 1)}
	add := func(content ...any) { m.Content = append(m.Content, content...) }
	last := from+perBar >= len(c.Notes)
	if from == 0 {
		if c.Passes > 1 {
			add(barline{Location: "left", Style: "heavy-light", Repeat: &repeat{Direction: "forward"}})
		}
		add(firstAttributes(c), direction{
			Placement: "above", Unit: "quarter", PerMinute: fmt.Sprint(c.BPM), Staff: noteStaff, Sound: &tempo{decimal(c.BPM)},
		})
	}
	for _, staff := range []int{noteStaff, tabStaff} {
		if staff == tabStaff {
			add(backup{Duration: decimal(perBar)})
		}
		for i := range perBar {
			if from+i < len(c.Notes) {
				add(writeNote(c, from+i, i, staff))
			} else {
				add(rest(c, i, staff))
			}
		}
	}
	if last {
		end := barline{Location: "right", Style: "light-heavy"}
		if c.Passes > 1 {
			end.Repeat = &repeat{Direction: "backward", Times: c.Passes}
		}
		add(end)
	}
	return m
}

func firstAttributes(c drill.Chart) attributes {
	details := staffDetails{Number: tabStaff, Lines: len(c.Tuning)}
	for str := len(c.Tuning); str >= 1; str-- { // line 1 is the lowest
		s := guitar.NewSpeller(nil).Spell(c.Tuning[str-1])
		details.Tunings = append(details.Tunings, staffTuning{Line: len(c.Tuning) - str + 1, Step: s.Step, Alter: decimal(s.Alter), Octave: s.Octave})
	}
	return attributes{
		Divisions: decimal(c.NotesPerBeat), Key: &key{}, Time: &meter{fmt.Sprint(c.BarBeats()), "4"}, Staves: 2,
		Clefs:        []clef{{Number: noteStaff, Sign: "G", Line: 2, Octave: -1}, {Number: tabStaff, Sign: "TAB", Line: 5}},
		StaffDetails: []staffDetails{details},
	}
}

// plain is a note or rest of one division, with its tuplet.
func plain(c drill.Chart, inBar, staff int) note {
	v := values[c.NotesPerBeat]
	n := note{Duration: 1, Voice: fmt.Sprint(1 + 4*(staff-1)), Type: v.kind, Staff: staff}
	if v.actual > 0 {
		n.Time = &timeModification{v.actual, v.normal}
		switch inBar % c.NotesPerBeat {
		case 0:
			n.Notation = &notations{Tuplets: []typed{{Type: "start", Number: 1}}}
		case c.NotesPerBeat - 1:
			n.Notation = &notations{Tuplets: []typed{{Type: "stop", Number: 1}}}
		}
	}
	return n
}

func rest(c drill.Chart, inBar, staff int) note {
	n := plain(c, inBar, staff)
	n.Rest = &empty{}
	return n
}

func writeNote(c drill.Chart, i, inBar, staff int) note {
	from := c.Notes[i]
	n := plain(c, inBar, staff)
	n.Pitch = pitchOf(from)
	if n.Notation == nil {
		n.Notation = &notations{}
	}
	slurred := func(k int) bool {
		return k < len(c.Notes) && (c.Notes[k].Attack == drill.Hammer || c.Notes[k].Attack == drill.Pull)
	}
	slides := func(k int) bool { return k < len(c.Notes) && c.Notes[k].Attack == drill.Slide }
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

func pitchOf(n drill.Note) *pitch {
	midi := n.MIDI - n.Bend
	s := guitar.NewSpeller(nil).Spell(midi)
	if written, ok := guitar.ReadSpelling(n.Written); ok && written.MIDI() == midi {
		s = written
	}
	return &pitch{s.Step, decimal(s.Alter), s.Octave}
}

func writeStroke(n drill.Note, t *technical) {
	switch n.Stroke {
	case drill.DownStroke:
		t.DownBow = &empty{}
	case drill.UpStroke:
		t.UpBow = &empty{}
	case drill.Index, drill.Middle:
		t.Pluck = string(n.Stroke)
	}
}

// writePlace writes string, fret, finger and the attack.
func writePlace(c drill.Chart, i int, t *technical) {
	n := c.Notes[i]
	t.String, t.Fret = n.String, &n.Fret
	if n.Finger > 0 {
		t.Fingering = fmt.Sprint(n.Finger)
	}
	if n.Bend > 0 {
		t.Bend = &bend{Alter: decimal(n.Bend), PreBend: &empty{}}
	}
	mark := func(attack drill.Attack, text string) (marks []typed) {
		if n.Attack == attack {
			marks = append(marks, typed{Type: "stop", Number: 1})
		}
		if i+1 < len(c.Notes) && c.Notes[i+1].Attack == attack {
			marks = append(marks, typed{Type: "start", Number: 1, Text: text})
		}
		return marks
	}
	t.Hammers, t.Pulls = mark(drill.Hammer, "H"), mark(drill.Pull, "P")
	switch n.Attack {
	case drill.Tap:
		t.Tap = &handedTap{Hand: "right"}
	case drill.Nowhere:
		t.Tap = &handedTap{Hand: "left"}
	case drill.Bend:
		t.Other = []othersOwn{{"bend"}}
	}
	if n.Hand == drill.TappingHand && n.Attack != drill.Tap {
		t.Other = append(t.Other, othersOwn{"tapping hand"})
	}
}
