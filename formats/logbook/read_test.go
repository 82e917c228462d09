package logbook_test

import (
	"bytes"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/text/encoding/charmap"

	"manudrill/formats/logbook"
	"manudrill/formats/sheet"
)

var today = time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)

func read(t *testing.T, text string) logbook.Log {
	t.Helper()
	l, err := logbook.Read([]byte(text), nil, "", today)
	require.NoError(t, err)
	return l
}

func of[T any](v T) *T { return &v }

// The same line of a log as people write it.
func TestLogsAsPeopleWriteThem(t *testing.T) {
	want := logbook.Entry{Day: time.Date(2025, 3, 14, 0, 0, 0, 0, time.UTC), Student: "Mira Tamsin", Drill: "Slurs 1-2", BPM: of(72.5), Minutes: of(12.0), Note: "späte Töne"}
	latin, err := charmap.ISO8859_1.NewEncoder().String("Date;Student;Exercise;Tempo;Minutes;Remark\r\n14.3.2025;Mira Tamsin;Slurs 1-2;72,5;12;späte Töne\r\n")
	require.NoError(t, err)
	for name, text := range map[string]string{
		"by heads":                "Minutes,Note,Day,Drill,Name,BPM\n12,späte Töne,2025-03-14,Slurs 1-2,Mira Tamsin,72.5\n",
		"without heads":           "14.3.2025;Mira Tamsin;Slurs 1-2;72,5;12;späte Töne",
		"Latin-1, semicolons":     latin,
		"a mark, units, a time":   "\ufeffwhen\twho\twhat\ttempo\ttime\tcomment\r\n2025-03-14 18:30\tMira Tamsin\tSlurs 1-2\t♩ = 72,5\t12 min\tspäte Töne",
		"the month first":         "date,student,drill,tempo,minutes,note\n3/14/2025,Mira Tamsin,Slurs 1-2,72.5 bpm,12,späte Töne",
		"the day first, in short": "date,student,drill,tempo,minutes,note\n14/03/25,Mira Tamsin,Slurs 1-2,72.5,12,späte Töne",
	} {
		l := read(t, text)
		require.Len(t, l.Entries, 1, name)
		got := l.Entries[0]
		got.Line = 0
		assert.Equal(t, want, got, name)
	}
}

// Heads in another language are told by whoever knows it.
func TestColumnsThatAreSaid(t *testing.T) {
	const text = "Datum;Schüler;Übung;Schläge\n1.2.2025;Mira;Bindungen;80\n"
	l := read(t, text)
	assert.Equal(t, []string{"Datum", "Schüler", "Übung", "Schläge"}, l.Heads)
	assert.Equal(t, []logbook.Column{"day", "none", "none", "none"}, l.Columns, "a day is known by itself")
	assert.Contains(t, l.Entries[0].Fault, "no drill")
	l, err := logbook.Read([]byte(text), []logbook.Column{"day", "student", "drill", "tempo"}, "", today)
	require.NoError(t, err)
	assert.Empty(t, l.Entries[0].Fault)
	assert.Equal(t, "Bindungen", l.Entries[0].Drill)
}

func TestWhichFigureIsTheDay(t *testing.T) {
	for _, c := range []struct {
		days   string
		want   logbook.DateOrder
		faults int
	}{
		{"1/2/2025 3/4/2025", logbook.Unclear, 2}, {"1/2/2025 13/4/2025", logbook.DayFirst, 0}, {"1/2/2025 4/13/2025", logbook.MonthFirst, 0},
		{"1.2.2025 3.4.2025", logbook.DayFirst, 0}, {"13/4/2025 4/13/2025 1/2/2025 5/5/2025", logbook.Unclear, 1}, {"2025-02-01", logbook.DayFirst, 0},
	} {
		var b strings.Builder
		for day := range strings.FieldsSeq(c.days) {
			fmt.Fprintf(&b, "%s,Mira,Slurs,80\n", day)
		}
		l := read(t, "day,student,drill,bpm\n"+b.String())
		assert.Equal(t, c.want, l.Dates, c.days)
		faults := 0
		for _, e := range l.Entries {
			if e.Fault != "" {
				faults++
			}
		}
		assert.Equal(t, c.faults, faults, c.days)
	}
	l, err := logbook.Read([]byte("day,student,drill,bpm\n1/2/2025,Mira,Slurs,80\n"), nil, logbook.MonthFirst, today)
	require.NoError(t, err)
	assert.Equal(t, time.January, l.Entries[0].Day.Month(), "as it is said")
}

func TestEachLineOfALogSaysWhatIsWrong(t *testing.T) {
	for line, why := range map[string]string{
		"2025-02-30,Mira,Slurs,80,5,": "no such day", "soon,Mira,Slurs,80,5,": "no day", ",Mira,Slurs,80,5,": "no day", "1890-01-01,Mira,Slurs,80,5,": "before 1950",
		"2026-03-03,Mira,Slurs,80,5,": "not come yet", "2025-02-01,Mira,,80,5,": "no drill", "2025-02-01,Mira,Slurs,,,": "neither a tempo nor minutes",
		"2025-02-01,Mira,Slurs,fast,5,": "no tempo", "2025-02-01,Mira,Slurs,900,5,": "no tempo that is drilled", "2025-02-01,Mira,Slurs,80,an hour,": "no minutes",
		"2025-02-01,Mira,Slurs,80,2000,": "not in a day", "2025-02-01,Mira,Slurs,80,0,": "not in a day", "2025-02-01,Mira," + strings.Repeat("x", 201) + ",80,5,": "200 characters",
		"2025-02-01,Mira,Slurs\x07,80,5,": "no text has",
	} {
		e := read(t, "day,student,drill,tempo,minutes,note\n"+line).Entries[0]
		assert.Contains(t, e.Fault, why, line)
		assert.Equal(t, 2, e.Line)
	}
}

// 20,000 lines are read; one more is told.
func TestLongLogs(t *testing.T) {
	line := []byte("2025-02-01,Mira,Slurs,80,5,\n")
	l, err := logbook.Read(bytes.Repeat(line, sheet.MaxRows), nil, "", today)
	require.NoError(t, err)
	assert.Len(t, l.Entries, sheet.MaxRows)
	_, err = logbook.Read(bytes.Repeat(line, sheet.MaxRows+1), nil, "", today)
	assert.ErrorIs(t, err, sheet.ErrTooLong)
	l, err = logbook.Read(nil, nil, "", today)
	require.NoError(t, err)
	assert.Empty(t, l.Entries)
}

func FuzzRead(f *testing.F) {
	f.Add([]byte("day,student,drill,tempo\n1/2/25,Mira,Slurs,80"))
	f.Add([]byte("3.3.2025;a;b;♩=80"))
	f.Fuzz(func(t *testing.T, raw []byte) {
		l, err := logbook.Read(raw, nil, "", today)
		if err != nil {
			return
		}
		for _, e := range l.Entries {
			if e.Fault == "" && (e.Day.IsZero() || e.Day.After(today) || e.Drill == "") {
				t.Fatalf("%+v", e)
			}
		}
	})
}
