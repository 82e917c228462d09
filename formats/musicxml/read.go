package musicxml

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
)

// Errors that say why a document cannot be read.
var (
	ErrNotMusicXML = errors.New("this is no MusicXML score in parts; save it as uncompressed MusicXML (.musicxml)")
	ErrNoNotes     = errors.New("the score's part holds no notes")
)

// Read reads one line of a score, which is a staff of one of its parts. Unasked
// ([score.AnyLine]) it is a staff of tablature, or else the first that has notes. Of notes
// that sound together it keeps the highest.
func Read(b []byte, line int) (score.Score, error) {
	var doc document
	if err := newDecoder(b).Decode(&doc); errors.Is(err, bounds.ErrTooManyNotes) {
		return score.Score{}, err
	} else if err != nil {
		return score.Score{}, fmt.Errorf("%w (%w)", ErrNotMusicXML, err)
	}
	if len(doc.Parts) == 0 {
		return score.Score{}, ErrNotMusicXML
	}
	staves := doc.staves()
	lines := make([]score.Line, len(staves))
	for i, s := range staves {
		lines[i] = s.Line
	}
	line, err := score.LineIn(lines, line, usual(staves))
	if err != nil {
		return score.Score{}, err
	}
	if len(staves) == 0 {
		return score.Score{}, ErrNoNotes
	}
	chosen := staves[line].part
	r := reader{divisions: 1, unit: 1, staff: staves[line].staff}
	r.score.Lines, r.score.Line = lines, line
	r.score.Name = strings.TrimSpace(cmp.Or(strings.TrimSpace(doc.Title), doc.Movement))
	for i, m := range doc.Parts[chosen].Measures {
		r.bar = i
		r.measure(m, i == 0, i == len(doc.Parts[chosen].Measures)-1)
	}
	if len(doc.Parts) > 1 {
		r.tell("The score has %d parts; “%s” is read.", len(doc.Parts), doc.nameOf(chosen))
	}
	return r.finish()
}

type reader struct {
	staff     int
	divisions float64 // of a quarter
	unit      float64 // quarters of a beat: one and a half where the bar has so
	bar       int
	at        float64 // quarters from the start of the measure
	start     float64 // of the measure, quarters
	length    float64 // of the measure so far, quarters
	transpose float64 // semitones from what is written to what sounds
	slurs     map[int]bool
	score     score.Score
	left      leftOut
}

// leftOut counts what of a score is no note of the drill, or was understood in one of
// several ways.
type leftOut struct{ chords, graces, slurs, repeats int }

func (r *reader) tell(text string, args ...any) {
	r.score.Told = append(r.score.Told, fmt.Sprintf(text, args...))
}

func (r *reader) measure(m measure, first, last bool) {
	r.at, r.length = 0, 0
	for _, content := range m.Content {
		switch c := content.(type) {
		case *attributes:
			r.attributes(c)
		case *direction:
			r.direction(c)
		case *tempo:
			r.sound(c)
		case *backup:
			r.move(-float64(c.Duration))
		case *forward:
			r.move(float64(c.Duration))
		case *barline:
			r.barline(c, first, last)
		case *note:
			r.note(c)
		}
	}
	r.start += r.length
}

// barline follows a repetition of all there is; any other is told.
func (r *reader) barline(b *barline, first, last bool) {
	switch {
	case b.Ending != nil:
		r.left.repeats++
	case b.Repeat == nil, first && b.Repeat.Direction == "forward":
	case last && b.Repeat.Direction == "backward" && r.left.repeats == 0:
		r.score.Passes = max(2, b.Repeat.Times)
	default:
		r.left.repeats++
	}
}

// units are how many quarters a beat of a metronome mark lasts.
var units = map[string]float64{"whole": 4, "half": 2, "quarter": 1, "eighth": 0.5, "16th": 0.25}

// direction reads a tempo; the words around its number are no matter.
func (r *reader) direction(d *direction) {
	r.sound(d.Sound)
	unit, known := units[d.Unit]
	number := perMinute.FindString(d.PerMinute)
	if bpm, err := strconv.ParseFloat(strings.Replace(number, ",", ".", 1), 64); err == nil && known {
		if d.Dot != nil {
			unit *= 1.5
		}
		r.tempo(bpm * unit)
	}
}

// tempo follows the first tempo that is said at a place.
func (r *reader) tempo(quarters float64) {
	at := r.start + r.at
	if last := len(r.score.Tempi) - 1; quarters > 0 && (last < 0 || r.score.Tempi[last].Beat != at) {
		r.score.Tempi = append(r.score.Tempi, score.Tempo{Beat: at, BPM: quarters})
	}
}

var perMinute = regexp.MustCompile(`\d+(?:[.,]\d+)?`)

func (r *reader) sound(t *tempo) {
	if t == nil {
		return
	}
	r.tempo(float64(t.Tempo))
	if s := t.Swing; s != nil && s.First > s.Second && s.Second > 0 {
		r.score.Swing = float64(s.First) / float64(s.First+s.Second)
	}
}

func (r *reader) attributes(a *attributes) {
	if a.Divisions > 0 {
		r.divisions = float64(a.Divisions)
	}
	if a.Time != nil && r.score.BeatsPerBar == 0 {
		r.meter(a.Time)
	}
	for _, t := range a.Transpose {
		if t.Number == 0 || t.Number == r.staff {
			r.transpose = float64(t.Chromatic) + 12*float64(t.Octaves)
		}
	}
	for _, d := range a.StaffDetails {
		if len(d.Tunings) > 0 && r.score.Tuning == nil && (d.Number == 0 || d.Number == r.staff) {
			r.score.Tuning = tuningOf(d)
		}
	}
}

// meter says how long a beat is.
func (r *reader) meter(m *meter) {
	beats, err := strconv.Atoi(strings.TrimSpace(m.Beats))
	kind, errKind := strconv.Atoi(strings.TrimSpace(m.BeatType))
	if err != nil || errKind != nil || beats < 1 || kind < 1 || kind > 64 {
		return
	}
	r.score.BeatsPerBar, r.unit = score.Meter(beats, kind)
}

func tuningOf(d staffDetails) []int {
	tuning := make([]int, len(d.Tunings))
	for _, t := range d.Tunings {
		str := len(d.Tunings) - t.Line
		if str < 0 || str >= len(tuning) {
			return nil
		}
		tuning[str] = guitar.Spelling{Step: t.Step, Alter: t.Alter.whole(), Octave: t.Octave}.MIDI() + d.Capo
	}
	return tuning
}

func (r *reader) move(divisions float64) {
	r.at = max(0, r.at+divisions/r.divisions)
	r.length = max(r.length, r.at)
}

// note reads a note in the chosen staff; rests, and notes that are tied to the one before,
// only take their time.
func (r *reader) note(n *note) {
	if n.Cue != nil {
		return
	}
	mine := n.Pitch != nil && max(1, n.Staff) == r.staff
	if n.Grace != nil {
		if mine {
			r.left.graces++
		}
		return
	}
	from := r.at
	if n.Chord == nil {
		r.move(float64(n.Duration))
	} else if last := len(r.score.Notes) - 1; last >= 0 {
		from = r.score.Notes[last].Beat - r.start
	}
	if !mine {
		return
	}
	inSlur := r.inSlur(n)
	if tied(n) {
		return
	}
	s := score.Note{Beat: r.start + from, Bar: r.bar, MIDI: guitar.Spelling{Step: n.Pitch.Step, Alter: n.Pitch.Alter.whole(), Octave: n.Pitch.Octave}.MIDI() + int(math.Round(r.transpose))}
	if n.Notation != nil {
		readNotations(n.Notation, &s)
	}
	r.place(&s)
	if inSlur && n.Chord == nil {
		r.slurred(&s)
	}
	r.score.Notes = append(r.score.Notes, s)
}

// place lets a note sound in the octave in which its place does, where the tuning is told:
// some programs write what sounds, others what is read, an octave higher.
func (r *reader) place(s *score.Note) {
	if s.String < 1 || s.String > len(r.score.Tuning) {
		return
	}
	if sounds := r.score.Tuning[s.String-1] + s.Fret + s.Bend; (sounds-s.MIDI)%12 == 0 {
		s.MIDI = sounds
	}
}

func tied(n *note) bool {
	stopsAt := func(t tie) bool { return t.Type == "stop" }
	return slices.ContainsFunc(n.Ties, stopsAt) || n.Notation != nil && stops(n.Notation.Tied)
}

// inSlur reports whether a slur goes on to a note, and follows those that start and stop.
func (r *reader) inSlur(n *note) bool {
	in := len(r.slurs) > 0
	if n.Notation == nil {
		return in
	}
	for _, s := range n.Notation.Slurs {
		switch s.Type {
		case "stop":
			delete(r.slurs, s.Number)
		case "start":
			if r.slurs == nil {
				r.slurs = map[int]bool{}
			}
			r.slurs[s.Number] = true
		}
	}
	return in
}

// slurred reads a slur to a note without a sign of its own as a hammer-on or a pull-off.
func (r *reader) slurred(s *score.Note) {
	last := len(r.score.Notes) - 1
	if last < 0 || s.Attack != "" || r.score.Notes[last].String != s.String || r.score.Notes[last].MIDI == s.MIDI {
		return
	}
	s.Attack = chart.Hammer
	if r.score.Notes[last].MIDI > s.MIDI {
		s.Attack = chart.Pull
	}
	r.left.slurs++
}

func readNotations(n *notations, s *score.Note) {
	if t := n.Technical; t != nil {
		readTechnical(t, s)
	}
	if stops(n.Slides) && s.Attack != chart.Hammer && s.Attack != chart.Pull {
		s.Attack = chart.Slide
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

func readTechnical(t *technical, s *score.Note) {
	if t.Fret != nil && t.String > 0 {
		s.String, s.Fret = t.String, *t.Fret
	}
	if f, err := strconv.Atoi(strings.TrimSpace(t.Fingering)); err == nil && f >= 1 && f <= 4 {
		s.Finger = f
	}
	if t.Bend != nil {
		s.Bend = max(0, t.Bend.Alter.whole())
		s.MIDI += s.Bend
	}
	switch {
	case stops(t.Hammers):
		s.Attack = chart.Hammer
	case stops(t.Pulls):
		s.Attack = chart.Pull
	case t.Tap != nil && t.Tap.Hand == "left":
		s.Attack = chart.Nowhere
	case t.Tap != nil:
		s.Attack, s.Hand = chart.Tap, chart.TappingHand
	}
	for _, o := range t.Other {
		switch o.Text {
		case "bend":
			s.Attack = chart.Bend
		case "tapping hand":
			s.Hand = chart.TappingHand
		}
	}
	switch {
	case t.DownBow != nil:
		s.Stroke = chart.DownStroke
	case t.UpBow != nil:
		s.Stroke = chart.UpStroke
	case t.Pluck == string(chart.Index), t.Pluck == string(chart.Middle):
		s.Stroke = chart.Stroke(t.Pluck)
	}
	if s.Attack == "" && s.Stroke != "" {
		s.Attack = chart.Pick
	}
}

// finish puts the notes of all voices in order, lets the first begin on beat 0, and tells
// what is left out.
func (r *reader) finish() (score.Score, error) {
	if len(r.score.Notes) == 0 {
		return score.Score{}, ErrNoNotes
	}
	r.inOrder()
	for i := range r.score.Notes {
		r.score.Notes[i].Beat /= r.unit
	}
	for i := range r.score.Tempi {
		r.score.Tempi[i].Beat /= r.unit
		r.score.Tempi[i].BPM /= r.unit
	}
	r.score.Begin()
	count := func(n int, text string) {
		if n > 0 {
			r.tell(text, n)
		}
	}
	count(r.left.chords, "Where several notes sound together the highest is kept: in %d of the places.")
	count(r.left.graces, "Grace notes are left out: %d.")
	count(r.left.slurs, "Slurs are read as hammer-ons and pull-offs: %d.")
	if r.left.repeats > 0 {
		r.tell("Repetitions within the piece, and their endings, are not followed: its bars are read once, in order.")
	}
	return r.score, nil
}

// inOrder sorts the notes by their beats, and keeps the highest of those that begin together.
func (r *reader) inOrder() {
	slices.SortStableFunc(r.score.Notes, func(a, b score.Note) int {
		return cmp.Or(cmp.Compare(a.Beat, b.Beat), cmp.Compare(b.MIDI, a.MIDI))
	})
	kept := r.score.Notes[:0]
	together := false
	for _, n := range r.score.Notes {
		if len(kept) > 0 && n.Beat-kept[len(kept)-1].Beat < 1e-6 {
			if !together {
				r.left.chords++
			}
			together = true
			continue
		}
		kept, together = append(kept, n), false
	}
	r.score.Notes = kept
}
