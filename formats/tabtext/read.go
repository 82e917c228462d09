package tabtext

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"manudrill/core/bounds"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
)

// longestLine is the most bytes of a line. A page is some hundred wide; lines that
// hold a whole piece are some thousands.
const longestLine = 20_000

var errLongLine = fmt.Errorf("a line of the text has more than %d characters; break the rows of tablature into lines of a page's width", longestLine)

// ErrNotTab is returned for text without any tablature.
var ErrNotTab = errors.New("this text holds no tablature; write a line for each string, such as 3|--5h7--, or places such as 3:5h7 2:8")

var (
	tempoHead  = regexp.MustCompile(`([\d.]+) bpm`)
	perBeat    = regexp.MustCompile(`(\d+) notes? a beat`)
	perBar     = regexp.MustCompile(`(\d+) beats? a bar`)
	passesHead = regexp.MustCompile(`(\d+) pass`)
	tuningHead = regexp.MustCompile(`^tuning ((?:[A-G]#?\d ?)+)$`)
	bendHead   = regexp.MustCompile(`^held bend (\d)$`)
)

// Read reads tablature for a guitar with so many strings. Pitches are left to
// the tuning: they are set where the text names one, and for g otherwise.
func Read(text string, g guitar.Guitar) (score.Score, error) {
	r := reader{}
	for str := range g.Tuning {
		r.tuning = append(r.tuning, g.Sound(str+1, 0))
	}
	lines := strings.Split(plainer.Replace(text), "\n")
	for i := range lines {
		if len(lines[i]) > longestLine {
			return score.Score{}, errLongLine
		}
	}
	for _, text := range append(lines, "") { // an empty line ends the last system
		if err := r.line(text); err != nil {
			return score.Score{}, err
		}
	}
	if len(r.score.Notes) == 0 {
		return score.Score{}, ErrNotTab
	}
	return r.finish()
}

type reader struct {
	tuning []int
	score  score.Score
	own    bool // it was written here: b before a fret is a bend to it
	marked bool // some note has an attack written at it
	placed bool // rows without a name were told by their places
	bend   int
	notes  int // read so far
	bars   int // likewise
	str    int // on which places in short are, where none is named
	left   leftOut

	rows             []row // of the system that is being read
	fingers, strokes string
}

// line reads the next: a row or marks of a system, or what ends it, as places in short or
// what stands above rows.
func (r *reader) line(text string) error {
	if t := strings.TrimLeft(text, " "); strings.HasPrefix(t, "f|") {
		r.fingers = t[2:]
		return nil
	} else if strings.HasPrefix(t, "s|") {
		r.strokes = t[2:]
		return nil
	}
	if row, is := rowOf(text); is {
		r.rows = append(r.rows, row)
		return nil
	}
	if err := r.system(); err != nil {
		return err
	}
	if inShort.MatchString(text) {
		return r.short(text)
	}
	r.head(text)
	return nil
}

// head reads a line above the rows.
func (r *reader) head(line string) {
	line = strings.TrimSpace(line)
	number := func(re *regexp.Regexp) float64 {
		if m := re.FindStringSubmatch(line); m != nil {
			v, err := strconv.ParseFloat(m[1], 64)
			if err == nil {
				return v
			}
		}
		return 0
	}
	if bpm := number(tempoHead); bpm > 0 {
		r.score.BPM, r.score.NotesPerBeat = bpm, int(number(perBeat))
		r.score.BeatsPerBar, r.score.Passes = int(number(perBar)), int(number(passesHead))
		return
	}
	if m := tuningHead.FindStringSubmatch(line); m != nil {
		r.score.Tuning = nil
		for _, name := range strings.Fields(m[1]) {
			r.score.Tuning = append(r.score.Tuning, guitar.NoteNumber(name))
		}
		r.tuning, r.own = r.score.Tuning, true
		return
	}
	if bend := number(bendHead); bend > 0 {
		r.bend = int(bend)
		return
	}
	if r.score.Name == "" && len(r.score.Notes) == 0 && line != "" {
		r.score.Name = line
	}
}

// system reads the rows that stood under one another, with their marks.
func (r *reader) system() error {
	for _, rows := range parted(r.rows, len(r.tuning)) {
		if err := r.together(rows); err != nil {
			return err
		}
	}
	r.rows, r.fingers, r.strokes = r.rows[:0], "", ""
	return nil
}

// together reads rows that belong together: one for a string.
func (r *reader) together(rows []row) error {
	l, err := layoutOf(rows, r.tuning)
	if err != nil {
		return err
	}
	r.tune(l)
	r.placed = r.placed || rows[0].label == ""
	var notes []placed
	repeated := 1
	for i, row := range rows {
		found, err := r.row(row.body, l.strings[i])
		if err != nil {
			return err
		}
		notes = append(notes, found...)
		repeated = max(repeated, row.repeated)
	}
	r.inBars(notes, rows)
	return r.add(r.inOrder(notes), repeated)
}

// inBars says in which bars notes are: what bar lines part, and where there are none a
// whole row.
func (r *reader) inBars(notes []placed, rows []row) {
	ends := barLines(rows[0].body)
	for i := range notes {
		before, _ := slices.BinarySearch(ends, notes[i].from)
		notes[i].Bar = r.bars + before
	}
	last, _ := slices.BinarySearch(ends, len(strings.TrimRight(rows[0].body, "- ")))
	r.bars += max(1, last)
}

// barLines are the columns of the bar lines in a row that stand behind something else; those
// that stand together are one.
func barLines(body string) (at []int) {
	for i, c := range []rune(body) {
		if c == '|' && i > 0 && body[i-1] != '|' && strings.Trim(body[:i], "|*: ") != "" {
			at = append(at, i)
		}
	}
	return at
}

// tune takes over how the rows say that the strings are tuned.
func (r *reader) tune(l layout) {
	if slices.Equal(l.tuning, r.tuning) {
		return
	}
	r.tuning, r.score.Tuning = l.tuning, l.tuning
}

// add adds the notes of a system, as often as it says.
func (r *reader) add(notes []placed, repeated int) error {
	for range repeated {
		for _, n := range notes {
			if mark := n.under(r.fingers); mark >= "1" && mark <= "4" {
				n.Finger = int(mark[0] - '0')
			}
			for stroke, written := range strokeMarks {
				if n.under(r.strokes) == written {
					n.Stroke, r.marked = stroke, true
				}
			}
			r.score.Notes = append(r.score.Notes, n.Note)
		}
		if len(r.score.Notes) > bounds.TakeNotes {
			return bounds.ErrTooManyNotes
		}
	}
	return nil
}

// finish gives the notes their times and pitches, and tells what is left out. Where no
// attack is written at any note, they are left open.
func (r *reader) finish() (score.Score, error) {
	if r.score.NotesPerBeat == 0 {
		r.score.NotesPerBeat = 2
	}
	for i := range r.score.Notes {
		n := &r.score.Notes[i]
		n.Beat = float64(i) / float64(r.score.NotesPerBeat)
		if n.Fret > 0 {
			n.Bend = r.bend
		}
		n.MIDI = r.tuning[n.String-1] + n.Fret + n.Bend
		if !r.marked {
			n.Attack = ""
		}
	}
	r.score.Told = r.left.told()
	if r.placed && !r.own {
		r.score.Told = append(r.score.Told, "The rows have no names: the one on top is taken for the thinnest string.")
	}
	return r.score, nil
}
