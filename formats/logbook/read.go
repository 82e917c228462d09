package logbook

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"manudrill/core/tempo"
	"manudrill/formats/sheet"
)

// A Column is what a column of a paper log holds.
type Column string

// Columns.
const (
	DayColumn          Column = "day"
	StudentColumn      Column = "student" // by name or e-mail
	DrillColumn        Column = "drill"
	TempoColumn        Column = "tempo" // bpm
	NotesPerBeatColumn Column = "notesPerBeat"
	MinutesColumn      Column = "minutes"
	NoteColumn         Column = "note"
	NoColumn           Column = "none" // is passed over
)

// heads are by what a column is known: English words as tables have them (common practice).
// Whoever writes other words says what each column holds.
var heads = map[Column][]string{
	DayColumn: {"day", "date", "when"}, StudentColumn: {"student", "name", "pupil", "who"}, DrillColumn: {"drill", "exercise", "piece", "what"},
	TempoColumn: {"tempo", "bpm", "speed", "tempo, bpm"}, NotesPerBeatColumn: {"notes per beat", "notes a beat", "division"},
	MinutesColumn: {"minutes", "min", "time", "duration"}, NoteColumn: {"note", "notes", "remark", "remarks", "comment", "comments"},
}

// usual is the order of columns in a log without heads.
var usual = []Column{DayColumn, StudentColumn, DrillColumn, TempoColumn, MinutesColumn, NoteColumn}

// A DateOrder says in which order days are written with figures alone.
type DateOrder string

// Orders.
const (
	DayFirst   DateOrder = "dayFirst"   // 3.12.2025, 3/12/25
	MonthFirst DateOrder = "monthFirst" // 12/3/2025
	Unclear    DateOrder = "unclear"    // both could be meant: somebody must say
)

// An Entry is a line of a paper log.
type Entry struct {
	Line         int       `json:"line"` // from 1
	Day          time.Time `json:"day"`  // its midnight, UTC
	Student      string    `json:"student"`
	Drill        string    `json:"drill"`
	BPM          *float64  `json:"bpm,omitempty"`
	NotesPerBeat *int      `json:"notesPerBeat,omitempty"`
	Minutes      *float64  `json:"minutes,omitempty"`
	Note         string    `json:"note"`
	Fault        string    `json:"fault,omitempty"` // what is wrong with the line; empty where nothing is
}

// A Log is a paper log as it was read.
type Log struct {
	Heads   []string // as they stand in the table; empty where there are none
	Columns []Column // what each holds
	Dates   DateOrder
	Entries []Entry
}

// Bounds of an entry.
const (
	maxText    = 200     // characters of a drill's name
	maxNote    = 2000    // and of a note
	maxMinutes = 24 * 60 // of a day
	oldest     = 1950    // year; one before is a slip
)

// Read reads a paper log up to today. What the columns hold is told by their heads unless
// it is said, and so is in which order days are written, by the days themselves.
func Read(raw []byte, columns []Column, dates DateOrder, today time.Time) (Log, error) {
	rows, err := sheet.Read(raw)
	if err != nil {
		return Log{}, err
	}
	l := Log{Columns: columns, Dates: dates, Heads: []string{}, Entries: []Entry{}}
	if len(rows) == 0 {
		return l, nil
	}
	known := headsOf(rows[0].Fields)
	if slices.Contains(known, DayColumn) || !hasDay(rows[0].Fields) {
		l.Heads, rows = rows[0].Fields, rows[1:]
		findDay(known, rows)
	} else {
		known = slices.Clone(usual)
	}
	if len(columns) == 0 {
		l.Columns = known
	}
	at := slices.Index(l.Columns, DayColumn)
	if l.Dates == "" {
		l.Dates = orderOf(rows, at)
	}
	for _, row := range rows {
		l.Entries = append(l.Entries, l.entry(row, today))
	}
	return l, nil
}

func headsOf(fields []string) []Column {
	columns := make([]Column, len(fields))
	for i, f := range fields {
		columns[i] = NoColumn
		for c, words := range heads {
			if slices.Contains(words, strings.ToLower(f)) && !slices.Contains(columns[:i], c) {
				columns[i] = c
			}
		}
	}
	return columns
}

// findDay finds the column of days where its head does not tell, by what stands below.
func findDay(columns []Column, rows []sheet.Row) {
	if slices.Contains(columns, DayColumn) || len(rows) == 0 {
		return
	}
	for i, c := range columns {
		if c == NoColumn && i < len(rows[0].Fields) && hasDay(rows[0].Fields[i:i+1]) {
			columns[i] = DayColumn
			return
		}
	}
}

func hasDay(fields []string) bool {
	return slices.ContainsFunc(fields, func(f string) bool { return figures.MatchString(f) || isoDay.MatchString(f) })
}

var (
	isoDay  = regexp.MustCompile(`^(\d{4})[-./](\d{1,2})[-./](\d{1,2})(?:[ T].*)?$`)
	figures = regexp.MustCompile(`^(\d{1,2})([-./])\s?(\d{1,2})[-./]\s?(\d{4}|\d{2})(?:[ T].*)?$`)
)

// orderOf tells by all days of a table which of two figures is the day: one above twelve
// is no month, and with points between them the day stands first (common practice).
func orderOf(rows []sheet.Row, at int) DateOrder {
	firstIsDay, secondIsDay, points := false, false, true
	for _, r := range rows {
		if at < 0 || at >= len(r.Fields) {
			continue
		}
		if f := figures.FindStringSubmatch(r.Fields[at]); f != nil {
			firstIsDay = firstIsDay || number(f[1]) > 12
			secondIsDay = secondIsDay || number(f[3]) > 12
			points = points && f[2] == "."
		}
	}
	switch {
	case firstIsDay && secondIsDay:
		return Unclear
	case secondIsDay:
		return MonthFirst
	case firstIsDay || points:
		return DayFirst
	}
	return Unclear
}

func number(digits string) int {
	n, _ := strconv.Atoi(digits) // digits by the pattern, four at the most
	return n
}

func (l Log) entry(row sheet.Row, today time.Time) Entry {
	at := func(c Column) string {
		if i := slices.Index(l.Columns, c); i >= 0 && i < len(row.Fields) {
			return row.Fields[i]
		}
		return ""
	}
	e := Entry{Line: row.Line, Student: at(StudentColumn), Drill: at(DrillColumn), Note: at(NoteColumn)}
	fault := func(why string, args ...any) {
		if e.Fault == "" {
			e.Fault = fmt.Sprintf(why, args...)
		}
	}
	if day, why := l.day(at(DayColumn), today); why != "" {
		fault("%s", why)
	} else {
		e.Day = day
	}
	if bpm, is := amount(at(TempoColumn)); is {
		e.BPM = &bpm
	} else if at(TempoColumn) != "" {
		fault("%q is no tempo; write it in beats a minute, as 72.", at(TempoColumn))
	}
	if n, is := amount(at(NotesPerBeatColumn)); is && n == float64(int(n)) && n >= 1 && n <= 8 {
		whole := int(n)
		e.NotesPerBeat = &whole
	} else if at(NotesPerBeatColumn) != "" {
		fault("%q is no number of notes a beat; write 1 to 8.", at(NotesPerBeatColumn))
	}
	if minutes, is := amount(at(MinutesColumn)); is {
		e.Minutes = &minutes
	} else if at(MinutesColumn) != "" {
		fault("%q are no minutes; write them as a number, as 12.5.", at(MinutesColumn))
	}
	if why := e.faulty(); why != "" {
		fault("%s", why)
	}
	return e
}

// faulty tells what of an entry cannot be.
func (e Entry) faulty() string {
	switch {
	case e.Drill == "":
		return "There is no drill."
	case utf8.RuneCountInString(e.Drill) > maxText || utf8.RuneCountInString(e.Student) > maxText:
		return fmt.Sprintf("A name has %d characters at the most.", maxText)
	case utf8.RuneCountInString(e.Note) > maxNote:
		return fmt.Sprintf("A note has %d characters at the most.", maxNote)
	case strings.ContainsFunc(e.Drill+e.Student+e.Note, unicode.IsControl):
		return "There are characters in it that no text has."
	case e.BPM == nil && e.Minutes == nil:
		return "There is neither a tempo nor minutes."
	case e.BPM != nil && !(*e.BPM >= tempo.MinBPM && *e.BPM <= tempo.MaxBPM):
		return fmt.Sprintf("%g bpm is no tempo that is drilled; %d to %d is.", *e.BPM, tempo.MinBPM, tempo.MaxBPM)
	case e.Minutes != nil && !(*e.Minutes > 0 && *e.Minutes <= maxMinutes):
		return fmt.Sprintf("%g minutes are not in a day.", *e.Minutes)
	}
	return ""
}

// day reads a day, or tells what is wrong with it.
func (l Log) day(text string, today time.Time) (day time.Time, why string) {
	var y, m, d int
	if f := isoDay.FindStringSubmatch(text); f != nil {
		y, m, d = number(f[1]), number(f[2]), number(f[3])
	} else if f := figures.FindStringSubmatch(text); f != nil {
		y, m, d = number(f[4]), number(f[3]), number(f[1])
		if len(f[4]) == 2 {
			y += 2000
		}
		switch {
		case l.Dates == Unclear && number(f[1]) <= 12 && number(f[3]) <= 12 && f[1] != f[3]:
			return day, fmt.Sprintf("%q could be two days; say whether the day or the month stands first.", text)
		case l.Dates == MonthFirst, l.Dates == Unclear && number(f[3]) > 12:
			m, d = d, m
		}
	} else if text == "" {
		return day, "There is no day."
	} else {
		return day, fmt.Sprintf("%q is no day; write it as 2025-12-31 or 31.12.2025.", text)
	}
	day = time.Date(y, time.Month(m), d, 0, 0, 0, 0, time.UTC)
	switch {
	case day.Day() != d || day.Month() != time.Month(m):
		return day, fmt.Sprintf("There is no such day as %q.", text)
	case y < oldest:
		return day, fmt.Sprintf("%q is before %d.", text, oldest)
	case day.After(today):
		return day, fmt.Sprintf("%q has not come yet.", text)
	}
	return day, ""
}

var withUnit = regexp.MustCompile(`^(?:♩\s?=\s?|=\s?)?(\d{1,6}(?:[.,]\d{1,6})?)(?:\s?(?:bpm|min\.?|mins|minutes|'))?$`)

// amount reads a number with a point or a comma, and a unit besides.
func amount(text string) (float64, bool) {
	f := withUnit.FindStringSubmatch(strings.ToLower(text))
	if f == nil {
		return 0, false
	}
	v, err := strconv.ParseFloat(strings.Replace(f[1], ",", ".", 1), 64)
	return v, err == nil
}
