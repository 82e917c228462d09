// Package tabtext reads and writes tablature as plain text, one line a string,
// the thinnest on top. What is written can be read back whole; what others have
// typed is read as far as it goes. The form is described in docs/formats.md.
package tabtext

import (
	"fmt"
	"strings"

	"manudrill/core/drill"
	"manudrill/core/guitar"
)

// rowWidth is about how many characters a row has at the most.
const rowWidth = 100

// marks are written before the fret; a picked note has none.
var marks = map[drill.Attack]string{
	drill.Pick: "", drill.Hammer: "h", drill.Pull: "p", drill.Tap: "t", drill.Slide: "/", drill.Nowhere: "n", drill.Bend: "b",
}

var strokeMarks = map[drill.Stroke]string{drill.DownStroke: "D", drill.UpStroke: "U", drill.Index: "i", drill.Middle: "m"}

// Write writes a score whose notes have places: a head with what the rows cannot
// say, then strokes, strings and fingers in rows of whole bars.
func Write(s drill.Score) string {
	var out strings.Builder
	fmt.Fprintf(&out, "%s\n", s.Name)
	fmt.Fprintf(&out, "%g bpm, %s a beat, %s a bar, %s\n", s.BPM,
		counted(s.NotesPerBeat, "note", "notes"), counted(s.BeatsPerBar, "beat", "beats"), counted(s.Passes, "pass", "passes"))
	names := make([]string, len(s.Tuning))
	for i, m := range s.Tuning {
		names[i] = strings.ReplaceAll(guitar.NoteName(m), "♯", "#")
	}
	fmt.Fprintf(&out, "tuning %s\n", strings.Join(names, " "))
	if bend := s.Notes[0].Bend; bend > 0 {
		fmt.Fprintf(&out, "held bend %d\n", bend)
	}
	perBar := s.NotesPerBeat * s.BeatsPerBar
	perRow := perBar * max(1, rowWidth/(4*perBar))
	for at := 0; at < len(s.Notes); at += perRow {
		writeRow(&out, s, s.Notes[at:min(len(s.Notes), at+perRow)], perBar)
	}
	return out.String()
}

func counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

func writeRow(out *strings.Builder, s drill.Score, notes []drill.ScoreNote, perBar int) {
	rows := make([]string, len(s.Tuning))
	strokes, fingers := "s|", "f|"
	for i := range rows {
		rows[i] = fmt.Sprintf("%d|", i+1)
	}
	for i, n := range notes {
		token := marks[n.Attack] + fmt.Sprint(n.Fret)
		for str := range rows {
			cell := "----"
			if str+1 == n.String {
				cell = "-" + token + strings.Repeat("-", max(0, 3-len(token)))
			}
			rows[str] += cell
		}
		strokes += fmt.Sprintf(" %-3s", strokeMarks[n.Stroke])
		finger := ""
		if n.Finger > 0 {
			finger = fmt.Sprint(n.Finger)
		}
		fingers += fmt.Sprintf(" %-3s", finger)
		if (i+1)%perBar == 0 || i == len(notes)-1 {
			for str := range rows {
				rows[str] += "|"
			}
			strokes, fingers = strokes+" ", fingers+" "
		}
	}
	fmt.Fprintf(out, "\n%s\n%s\n%s\n", strings.TrimRight(strokes, " "), strings.Join(rows, "\n"), strings.TrimRight(fingers, " "))
}
