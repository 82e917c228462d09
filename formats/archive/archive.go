// Package archive writes everything about one student, or a studio, as a ZIP file of JSON,
// CSV (RFC 4180) and sounds, part by part, and reads it again; docs/formats.md describes it.
package archive

import (
	"archive/zip"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"strconv"
	"time"

	"manudrill/formats/logbook"
)

// A Writer writes an archive. Nothing of it is held longer than it takes to write.
type Writer struct {
	zip  *zip.Writer
	made time.Time
	rows []TakeRow
}

// A TakeRow is a take as takes.csv has it.
type TakeRow struct {
	RecordedAt     time.Time
	Drill          string
	BPM            float64
	NotesPerBeat   int
	Source         string // "microphone", "file" or "simulated"
	State          string // "waiting", "measured" or "failed"
	RightPercent   float64
	SpreadMs       float64
	SpreadPercent  float64
	NotesPerSecond float64
	Step           string // "up", "hold" or "down"; empty where it was not measured
	Counts         bool   // for the ladder
	NotSo          int    // how much of what was told of it was said not to be so
	Folder         string // of the take in the archive
}

// New begins an archive, made at a time.
func New(to io.Writer, made time.Time) *Writer { return &Writer{zip: zip.NewWriter(to), made: made} }

const about = `Everything that Manudrill keeps about one student.

student.json   who they are, their guitar and hand, groups, consent, and notes
drills.json    the drills they were given, where they stand, and what led there
routines.json  what they practise, in which order
hand.json      what they said of their hand: tired, hurts, effort, where it aches
plan.json      their weeks of practice, where there is a plan
lessons.json   what was noted of their lessons, where an instructor asks
takes.csv      one line for each take, for a spreadsheet
takes/         a folder for each take: what was played and measured, with comments,
               and the recording where it is still kept
rows/          the same once more as Manudrill itself keeps it, a JSON object a line:
               from these, and the recordings, it is brought in again

Times are in UTC (RFC 3339). docs/formats.md of Manudrill says what each field is.
`

const aboutStudio = `Everything that Manudrill keeps about one studio.

rows/     what is kept, table by table, a JSON object a line (JSON Lines)
takes/    a folder for each take, named by its time and id, with the recording
          where it is still kept

Passwords, letters and addresses of calendars are not among it. Times are in UTC
(RFC 3339). In Manudrill, "Bring in" puts all of it into a studio without students.
`

// AboutStudio writes what the archive of a studio is.
func (w *Writer) AboutStudio() error { return w.readme(aboutStudio) }

// About writes what the archive of a student is.
func (w *Writer) About() error { return w.readme(about) }

func (w *Writer) readme(about string) error {
	f, err := w.create("README.txt", zip.Deflate)
	if err != nil {
		return err
	}
	_, err = io.WriteString(f, about)
	return err
}

// JSON writes a document.
func (w *Writer) JSON(name string, document any) error {
	f, err := w.create(name, zip.Deflate)
	if err != nil {
		return err
	}
	enc := json.NewEncoder(f)
	enc.SetIndent("", "  ")
	return enc.Encode(document)
}

// Take writes what is known of a take; its line comes into takes.csv at the end.
func (w *Writer) Take(row TakeRow, document any) error {
	w.rows = append(w.rows, row)
	return w.JSON(row.Folder+"/take.json", document)
}

// Sound writes a take's recording.
func (w *Writer) Sound(folder, extension string, sound io.Reader) error {
	return w.copied(folder+"/take."+extension, sound)
}

// Video writes the video of a take.
func (w *Writer) Video(folder, extension string, video io.Reader) error {
	return w.copied(folder+"/hands."+extension, video)
}

// copied writes what is compressed already.
func (w *Writer) copied(name string, from io.Reader) error {
	f, err := w.create(name, zip.Store)
	if err != nil {
		return err
	}
	_, err = io.Copy(f, from)
	return err
}

// End ends an archive without a table of takes. Without an end, it cannot be opened.
func (w *Writer) End() error { return w.zip.Close() }

// Close writes takes.csv and ends the archive.
func (w *Writer) Close() error {
	f, err := w.create("takes.csv", zip.Deflate)
	if err != nil {
		return err
	}
	if err := writeRows(f, w.rows); err != nil {
		return err
	}
	return w.zip.Close()
}

func (w *Writer) create(name string, method uint16) (io.Writer, error) {
	return w.zip.CreateHeader(&zip.FileHeader{Name: name, Method: method, Modified: w.made})
}

// Folder is the folder of a take: by its time, so that they lie in order, and its
// id.
func Folder(recorded time.Time, id string) string {
	return fmt.Sprintf("takes/%s %s", recorded.UTC().Format("2006-01-02 15.04.05"), id)
}

func writeRows(to io.Writer, rows []TakeRow) error {
	c := csv.NewWriter(to)
	_ = c.Write([]string{"recorded at", "drill", "bpm", "notes per beat", "source", "state", "right notes %", "timing spread ms", "timing spread % of the interval",
		"notes per second", "ladder", "counts", "said not to be so", "folder"}) // Error tells
	number := func(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }
	for _, r := range rows {
		_ = c.Write([]string{r.RecordedAt.UTC().Format(time.RFC3339), logbook.Text(r.Drill), number(r.BPM), strconv.Itoa(r.NotesPerBeat), r.Source, r.State,
			number(r.RightPercent), number(r.SpreadMs), number(r.SpreadPercent), number(r.NotesPerSecond), r.Step, strconv.FormatBool(r.Counts), strconv.Itoa(r.NotSo), r.Folder})
	}
	c.Flush()
	return c.Error()
}
