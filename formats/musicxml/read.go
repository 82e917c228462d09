package musicxml

import (
	"errors"
	"fmt"
	"strconv"
	"strings"

	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/core/guitar"
)

// ErrNotMusicXML is returned for a document that is no partwise MusicXML.
var ErrNotMusicXML = errors.New("this is no MusicXML score in parts; save it as uncompressed MusicXML (.musicxml)")

// Read reads the first part of a score: the notes of its tablature staff where
// there is one, of its first staff otherwise; of several at once the first.
func Read(b []byte) (drill.Score, error) {
	var doc document
	if err := newDecoder(b).Decode(&doc); errors.Is(err, bounds.ErrTooManyNotes) {
		return drill.Score{}, err
	} else if err != nil {
		return drill.Score{}, fmt.Errorf("%w (%w)", ErrNotMusicXML, err)
	}
	if len(doc.Parts) == 0 {
		return drill.Score{}, ErrNotMusicXML
	}
	r := reader{divisions: 1}
	r.score.Name = strings.TrimSpace(doc.Title)
	if r.score.Name == "" {
		r.score.Name = strings.TrimSpace(doc.Movement)
	}
	r.staff = tablatureStaff(doc.Parts[0])
	for _, m := range doc.Parts[0].Measures {
		r.measure(m)
	}
	return r.finish()
}

// tablatureStaff is the number of the staff with a TAB clef; 1 without one.
func tablatureStaff(p part) int {
	for _, m := range p.Measures {
		for _, c := range m.Content {
			if a, ok := c.(*attributes); ok {
				for _, clef := range a.Clefs {
					if clef.Sign == "TAB" {
						return max(1, clef.Number)
					}
				}
			}
		}
	}
	return 1
}

type reader struct {
	staff     int
	divisions int
	at        int // in divisions of the present measure's divisions, from its start
	start     float64
	length    float64 // of the measure so far, in beats
	score     drill.Score
}

func (r *reader) measure(m measure) {
	r.at, r.length = 0, 0
	for _, content := range m.Content {
		switch c := content.(type) {
		case *attributes:
			r.attributes(c)
		case *direction:
			if bpm, err := strconv.ParseFloat(strings.TrimSpace(c.PerMinute), 64); err == nil && r.score.BPM == 0 && c.Unit == "quarter" {
				r.score.BPM = bpm
			}
		case *backup:
			r.move(-c.Duration)
		case *forward:
			r.move(c.Duration)
		case *barline:
			if c.Repeat != nil && c.Repeat.Direction == "backward" {
				r.score.Passes = max(2, c.Repeat.Times)
			}
		case *note:
			r.note(c)
		}
	}
	r.start += r.length
}

func (r *reader) attributes(a *attributes) {
	if a.Divisions > 0 {
		r.divisions = a.Divisions
	}
	if a.Time != nil && r.score.BeatsPerBar == 0 {
		if beats, err := strconv.Atoi(a.Time.Beats); err == nil {
			r.score.BeatsPerBar = beats
		}
	}
	for _, d := range a.StaffDetails {
		if len(d.Tunings) > 0 && r.score.Tuning == nil {
			r.score.Tuning = tuningOf(d)
		}
	}
}

func tuningOf(d staffDetails) []int {
	tuning := make([]int, len(d.Tunings))
	for _, t := range d.Tunings {
		str := len(d.Tunings) - t.Line
		if str < 0 || str >= len(tuning) {
			return nil
		}
		tuning[str] = guitar.Spelling{Step: t.Step, Alter: t.Alter, Octave: t.Octave}.MIDI() + d.Capo
	}
	return tuning
}

func (r *reader) move(divisions int) {
	r.at = max(0, r.at+divisions)
	r.length = max(r.length, float64(r.at)/float64(r.divisions))
}

// note reads a note in the chosen staff; rests, grace notes, notes that are tied
// to the one before and further notes of a chord only take their time.
func (r *reader) note(n *note) {
	if n.Grace != nil || n.Chord != nil {
		return
	}
	beat := r.start + float64(r.at)/float64(r.divisions)
	r.move(n.Duration)
	if n.Pitch == nil || max(1, n.Staff) != r.staff {
		return
	}
	for _, t := range n.Ties {
		if t.Type == "stop" {
			return
		}
	}
	s := drill.ScoreNote{Beat: beat, MIDI: guitar.Spelling{Step: n.Pitch.Step, Alter: n.Pitch.Alter, Octave: n.Pitch.Octave}.MIDI()}
	if n.Notation != nil {
		readNotations(n.Notation, &s)
	}
	r.score.Notes = append(r.score.Notes, s)
}

func readNotations(n *notations, s *drill.ScoreNote) {
	if t := n.Technical; t != nil {
		readTechnical(t, s)
	}
	if stops(n.Slides) && s.Attack != drill.Hammer && s.Attack != drill.Pull {
		s.Attack = drill.Slide
	}
}

func stops(marks []typed) bool {
	for _, m := range marks {
		if m.Type == "stop" {
			return true
		}
	}
	return false
}

func readTechnical(t *technical, s *drill.ScoreNote) {
	if t.Fret != nil && t.String > 0 {
		s.String, s.Fret = t.String, *t.Fret
	}
	if f, err := strconv.Atoi(strings.TrimSpace(t.Fingering)); err == nil && f >= 1 && f <= 4 {
		s.Finger = f
	}
	if t.Bend != nil {
		s.Bend = max(0, t.Bend.Alter)
		s.MIDI += s.Bend
	}
	switch {
	case stops(t.Hammers):
		s.Attack = drill.Hammer
	case stops(t.Pulls):
		s.Attack = drill.Pull
	case t.Tap != nil && t.Tap.Hand == "left":
		s.Attack = drill.Nowhere
	case t.Tap != nil:
		s.Attack, s.Hand = drill.Tap, drill.TappingHand
	}
	for _, o := range t.Other {
		switch o.Text {
		case "bend":
			s.Attack = drill.Bend
		case "tapping hand":
			s.Hand = drill.TappingHand
		}
	}
	switch {
	case t.DownBow != nil:
		s.Stroke = drill.DownStroke
	case t.UpBow != nil:
		s.Stroke = drill.UpStroke
	case t.Pluck == string(drill.Index), t.Pluck == string(drill.Middle):
		s.Stroke = drill.Stroke(t.Pluck)
	}
	if s.Attack == "" && s.Stroke != "" {
		s.Attack = drill.Pick
	}
}

// finish lets the first note begin on beat 0.
func (r *reader) finish() (drill.Score, error) {
	if len(r.score.Notes) == 0 {
		return drill.Score{}, errors.New("the score's first part holds no notes")
	}
	first := r.score.Notes[0].Beat
	for i := range r.score.Notes {
		r.score.Notes[i].Beat -= first
	}
	return r.score, nil
}
