package tabtext

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/core/guitar"
)

// longestLine is the most bytes of a line. A page is some hundred wide; lines that
// hold a whole piece are some thousands.
const longestLine = 20_000

var errLongLine = fmt.Errorf("a line of the text has more than %d characters; break the rows of tablature into lines of a page's width", longestLine)

// ErrNotTab is returned for text without any tablature.
var ErrNotTab = errors.New("this text holds no tablature; write a line for each string, such as 3|--5h7--, or places such as 3:5h7 2:8")

var (
	stringLine = regexp.MustCompile(`^\s*([A-Ga-g][#b♯♭]?\d?|\d)?\s*[|:]?([-0-9hptnsb/\\|~x^() .*]*-[-0-9hptnsb/\\|~x^() .*]*)$`)
	markLine   = regexp.MustCompile(`^\s*([fs])\|(.*)$`)
	shorthand  = regexp.MustCompile(`(\d):([-0-9hptnsb/\\]+)`)
	noteToken  = regexp.MustCompile(`([hptnsb/\\])?(\d+)`)
	tempoHead  = regexp.MustCompile(`([\d.]+) bpm`)
	perBeat    = regexp.MustCompile(`(\d+) notes? a beat`)
	perBar     = regexp.MustCompile(`(\d+) beats? a bar`)
	passesHead = regexp.MustCompile(`(\d+) pass`)
	tuningHead = regexp.MustCompile(`^tuning ((?:[A-G]#?\d ?)+)$`)
	bendHead   = regexp.MustCompile(`^held bend (\d)$`)
)

var attacks = map[string]drill.Attack{
	"": drill.Pick, "h": drill.Hammer, "p": drill.Pull, "t": drill.Tap, "n": drill.Nowhere, "b": drill.Bend,
	"/": drill.Slide, "\\": drill.Slide, "s": drill.Slide,
}

// placed is a note with the column it stands in.
type placed struct {
	drill.ScoreNote
	from, to int
}

// Read reads tablature for a guitar with so many strings. Pitches are left to
// the tuning: they are set where the text names one, and for g otherwise.
func Read(text string, g guitar.Guitar) (drill.Score, error) {
	r := reader{strings: len(g.Tuning)}
	for str := range g.Tuning {
		r.tuning = append(r.tuning, g.Sound(str+1, 0))
	}
	lines := strings.Split(strings.ReplaceAll(text, "\r", ""), "\n")
	for i := range lines {
		if len(lines[i]) > longestLine {
			return drill.Score{}, errLongLine
		}
	}
	for len(lines) > 0 {
		n, strung := systemAt(lines)
		if strung {
			if err := r.system(lines[:n]); err != nil {
				return drill.Score{}, err
			}
		} else {
			n = max(1, n)
			for _, line := range lines[:n] {
				r.head(line)
			}
		}
		lines = lines[n:]
	}
	if len(r.score.Notes) == 0 {
		if err := r.short(text); err != nil {
			return drill.Score{}, err
		}
	}
	if len(r.score.Notes) == 0 {
		return drill.Score{}, ErrNotTab
	}
	return r.finish()
}

type reader struct {
	strings int
	tuning  []int
	score   drill.Score
	marked  bool // some note has an attack written at it
	bend    int
	notes   int // read so far
}

// systemAt returns how many of the lines are rows of strings or marks, and whether
// one of them is a string's, which makes them a system.
func systemAt(lines []string) (n int, strung bool) {
	for ; n < len(lines); n++ {
		row := stringLine.MatchString(lines[n])
		if !row && !markLine.MatchString(lines[n]) {
			break
		}
		strung = strung || row
	}
	return n, strung
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
		r.tuning, r.strings = r.score.Tuning, len(r.score.Tuning)
		return
	}
	if bend := number(bendHead); bend > 0 {
		r.bend = int(bend)
		return
	}
	if r.score.Name == "" && len(r.score.Notes) == 0 && line != "" && !shorthand.MatchString(line) {
		r.score.Name = line
	}
}

// system reads the rows that belong together.
func (r *reader) system(lines []string) error {
	var rows []string
	var fingers, strokes string
	for _, line := range lines {
		switch m := markLine.FindStringSubmatch(line); {
		case m == nil:
			rows = append(rows, line)
		case m[1] == "f":
			fingers = line
		default:
			strokes = line
		}
	}
	var notes []placed
	for i, row := range rows {
		str, err := r.stringOf(row, i, len(rows))
		if err != nil {
			return err
		}
		if err := r.row(row, str, &notes); err != nil {
			return err
		}
	}
	slices.SortStableFunc(notes, func(a, b placed) int {
		if a.from != b.from {
			return a.from - b.from
		}
		return b.String - a.String // of two at once the thicker string comes first
	})
	for _, n := range notes {
		if mark := n.under(fingers); mark >= "1" && mark <= "4" {
			n.Finger = int(mark[0] - '0')
		}
		for stroke, written := range strokeMarks {
			if n.under(strokes) == written {
				n.Stroke, r.marked = stroke, true
			}
		}
		r.score.Notes = append(r.score.Notes, n.ScoreNote)
	}
	return nil
}

// under is what stands in a line of marks in the note's column.
func (n placed) under(line string) string {
	if n.from >= len(line) {
		return ""
	}
	return strings.TrimSpace(line[n.from:min(len(line), n.to)])
}

// stringOf is the string a row stands for: by its number, or by its place where
// all strings have a row.
func (r *reader) stringOf(row string, at, rows int) (int, error) {
	label := stringLine.FindStringSubmatch(row)[1]
	if n, err := strconv.Atoi(label); err == nil && strings.ContainsAny(row, "|:") {
		if n < 1 || n > r.strings {
			return 0, fmt.Errorf("there is no string %d; this guitar has strings 1 to %d", n, r.strings)
		}
		return n, nil
	}
	if rows != r.strings {
		return 0, fmt.Errorf("these rows are %d lines, but the guitar has %d strings; write a line for each string, or begin each line with its number, such as 3|--5h7--", rows, r.strings)
	}
	return at + 1, nil
}

// row reads the notes of one string.
func (r *reader) row(row string, str int, notes *[]placed) error {
	body := stringLine.FindStringSubmatchIndex(row)[4]
	column, counted := 0, 0 // runes up to a byte of the row
	for _, m := range noteToken.FindAllStringSubmatchIndex(row[body:], -1) {
		mark := ""
		if m[2] >= 0 {
			mark = row[body+m[2] : body+m[3]]
		}
		n, err := r.note(str, mark, row[body+m[4]:body+m[5]])
		if err != nil {
			return err
		}
		column += utf8.RuneCountInString(row[counted : body+m[0]])
		counted = body + m[0]
		*notes = append(*notes, placed{n, column, column + m[1] - m[0]})
	}
	return nil
}

func (r *reader) note(str int, mark, digits string) (drill.ScoreNote, error) {
	fret, err := strconv.Atoi(digits)
	if err != nil || fret > guitar.MaxFrets {
		return drill.ScoreNote{}, fmt.Errorf("%s on string %d is no fret; put a dash between two frets", digits, str)
	}
	if r.notes++; r.notes > bounds.TakeNotes {
		return drill.ScoreNote{}, bounds.ErrTooManyNotes
	}
	r.marked = r.marked || mark != ""
	n := drill.ScoreNote{String: str, Fret: fret, Attack: attacks[mark], Hand: drill.FrettingHand}
	if n.Attack == drill.Tap {
		n.Hand = drill.TappingHand
	}
	return n, nil
}

// short reads places such as 3:5h7 2:8.
func (r *reader) short(text string) error {
	for _, m := range shorthand.FindAllStringSubmatch(text, bounds.TakeNotes+1) {
		str, err := strconv.Atoi(m[1])
		if err != nil || str < 1 || str > r.strings {
			return fmt.Errorf("there is no string %s; this guitar has strings 1 to %d", m[1], r.strings)
		}
		for _, t := range noteToken.FindAllStringSubmatch(m[2], -1) {
			n, err := r.note(str, t[1], t[2])
			if err != nil {
				return err
			}
			r.score.Notes = append(r.score.Notes, n)
		}
	}
	return nil
}

// finish gives the notes their times and pitches. Where no attack is written at
// any note, they are left open.
func (r *reader) finish() (drill.Score, error) {
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
	return r.score, nil
}
