package tabtext

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
)

// attacks are those of the signs before a fret.
var attacks = map[rune]chart.Attack{
	'h': chart.Hammer, '^': chart.Hammer, 'p': chart.Pull, 't': chart.Tap, 'n': chart.Nowhere, 'b': chart.Bend,
	'/': chart.Slide, '\\': chart.Slide, 's': chart.Slide,
}

// placed is a note with the column it stands in.
type placed struct {
	score.Note
	from, to int
}

// leftOut counts what is written and cannot be drilled, or was understood in one of
// several ways.
type leftOut struct{ chords, dead, harmonics, bends, brackets, ornaments, repeats int }

// told puts it in words.
func (l leftOut) told() (told []string) {
	tell := func(n int, one, many string) {
		if n == 1 {
			told = append(told, one)
		} else if n > 1 {
			told = append(told, fmt.Sprintf(many, n))
		}
	}
	tell(l.chords, "In one place several strings sound at once; the highest note is kept.", "In %d places several strings sound at once; the highest note of each is kept.")
	tell(l.dead, "A dead note (x) is left out.", "%d dead notes (x) are left out.")
	tell(l.harmonics, "A harmonic is left out.", "%d harmonics are left out.")
	tell(l.bends, "A bend is left out: its note lies on the fret it begins on.", "%d bends are left out: their notes lie on the frets they begin on.")
	tell(l.brackets, "A note in brackets is read as one that is played.", "%d notes in brackets are read as notes that are played.")
	tell(l.ornaments, "A sign for vibrato or the like is left out.", "%d signs for vibrato and the like are left out.")
	tell(l.repeats, "Signs of repetition at bar lines are not followed.", "Signs of repetition at bar lines are not followed.")
	return told
}

// A scan goes along a string.
type scan struct {
	r       *reader
	str     int
	text    []rune
	at      int
	mark    rune // before the fret that comes; 0 for none
	marked  int  // its column
	bracket bool
	notes   []placed
}

// row reads the notes of a string.
func (r *reader) row(body string, str int) ([]placed, error) {
	s := scan{r: r, str: str, text: []rune(body)}
	for s.at < len(s.text) {
		if err := s.step(); err != nil {
			return nil, err
		}
	}
	return s.notes, nil
}

// step reads what stands next.
func (s *scan) step() error {
	c := unicode.ToLower(s.text[s.at])
	switch {
	case unicode.IsDigit(c):
		return s.fret()
	case c == '<' || c == '[' || c == '{':
		s.harmonic()
		return nil
	case c == '(':
		s.bracket = true
	case c == ')':
		s.bracket = false
	case c == 'x':
		s.r.left.dead++
		s.mark = 0
	case c == '*':
		s.star()
	case c == '~' || c == 'v' || c == '=':
		s.ornament(c)
	case c == 'r', c == 'b' && !s.r.own:
		s.bend()
		return nil
	case attacks[c] != "":
		s.mark, s.marked = c, s.at
	case c == '|':
		s.bracket = false
	}
	s.at++
	return nil
}

// digits are those that stand here, which are passed.
func (s *scan) digits() string {
	from := s.at
	for s.at < len(s.text) && unicode.IsDigit(s.text[s.at]) {
		s.at++
	}
	return string(s.text[from:s.at])
}

// fret reads a note.
func (s *scan) fret() error {
	from := s.at
	n, err := s.r.note(s.str, s.mark, s.digits())
	if err != nil {
		return err
	}
	if s.bracket {
		s.r.left.brackets++
	}
	if s.mark != 0 && s.marked == from-1 { // marks of strokes and fingers stand from there on
		from--
	}
	s.notes = append(s.notes, placed{n, from, s.at})
	s.mark = 0
	return nil
}

// harmonic passes over a fret in angular or other brackets.
func (s *scan) harmonic() {
	s.at++
	if s.digits() != "" {
		s.r.left.harmonics++
	}
	s.mark = 0
}

// star reads a star: beside a bar line it is a sign of repetition.
func (s *scan) star() {
	beside := func(at int) bool { return at >= 0 && at < len(s.text) && s.text[at] == '|' }
	if beside(s.at-1) || beside(s.at+1) || s.at == 0 {
		s.r.left.repeats = 1
		return
	}
	s.ornament('*')
}

// ornament counts a sign, however often it is repeated.
func (s *scan) ornament(c rune) {
	s.r.left.ornaments++
	for s.at+1 < len(s.text) && unicode.ToLower(s.text[s.at+1]) == c {
		s.at++
	}
}

// bend passes over where a bend goes, or is let back to.
func (s *scan) bend() {
	if unicode.ToLower(s.text[s.at]) == 'b' {
		s.r.left.bends++
	}
	s.at++
	if s.at < len(s.text) && s.text[s.at] == '(' {
		s.at++
	}
	s.digits()
	s.mark = 0
}

func (r *reader) note(str int, mark rune, digits string) (score.Note, error) {
	fret, err := strconv.Atoi(digits)
	if err != nil || fret > guitar.MaxFrets {
		return score.Note{}, fmt.Errorf("%s on string %d is no fret; put a dash between two frets", digits, str)
	}
	if r.notes++; r.notes > bounds.TakeNotes {
		return score.Note{}, bounds.ErrTooManyNotes
	}
	n := score.Note{String: str, Fret: fret, Attack: chart.Pick, Hand: chart.FrettingHand}
	if mark != 0 {
		r.marked, n.Attack = true, attacks[mark]
	}
	if n.Attack == chart.Tap {
		n.Hand = chart.TappingHand
	}
	return n, nil
}

// inOrder puts the notes of a system one after the other; of several at once it keeps
// the highest.
func (r *reader) inOrder(notes []placed) []placed {
	sound := func(n placed) int { return r.tuning[n.String-1] + n.Fret }
	slices.SortStableFunc(notes, func(a, b placed) int {
		if a.from != b.from {
			return a.from - b.from
		}
		return sound(b) - sound(a)
	})
	var kept []placed
	for i, n := range notes {
		switch {
		case i == 0 || notes[i-1].from != n.from:
			kept = append(kept, n)
		case i == 1 || notes[i-2].from != n.from:
			r.left.chords++
		}
	}
	return kept
}

// under is what stands in a line of marks in the note's column.
func (n placed) under(line string) string {
	if n.from >= len(line) {
		return ""
	}
	return strings.TrimSpace(line[n.from:min(len(line), n.to)])
}
