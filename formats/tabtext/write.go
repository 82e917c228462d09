// Package tabtext reads and writes tablature as plain text, one line a string,
// the thinnest on top. What is written can be read back whole; what others have
// typed is read as far as it goes. The form is described in docs/formats.md.
package tabtext

import (
	"fmt"
	"strings"

	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/core/words"
)

// rowWidth is about how many characters a row has at the most.
const rowWidth = 100

// marks are written before the fret; a picked note has none.
var marks = map[chart.Attack]string{
	chart.Pick: "", chart.Hammer: "h", chart.Pull: "p", chart.Tap: "t", chart.Slide: "/", chart.Nowhere: "n", chart.Bend: "b",
}

var strokeMarks = map[chart.Stroke]string{chart.DownStroke: "D", chart.UpStroke: "U", chart.Index: "i", chart.Middle: "m"}

// Write writes a score whose notes have places: a head with what the rows cannot
// say, then strokes, strings and fingers in rows of whole bars.
func Write(s score.Score) string {
	var out strings.Builder
	fmt.Fprintf(&out, "%s\n", s.Name)
	fmt.Fprintf(&out, "%g bpm, %s a beat, %s a bar, %s\n", s.BPM,
		words.Counted(s.NotesPerBeat, "note"), words.Counted(s.BeatsPerBar, "beat"), words.Counted(s.Passes, "pass"))
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

func writeRow(out *strings.Builder, s score.Score, notes []score.Note, perBar int) {
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
