package score

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/words"
)

// A Score is what a file of another program holds: notes in time, with or
// without their places on the neck.
type Score struct {
	Name         string
	BPM          float64 // 0 where the file does not say
	BeatsPerBar  int     // likewise
	NotesPerBeat int     // likewise
	Passes       int     // likewise
	Swing        float64 // likewise; share of the first of two notes in the time of both
	Tuning       []int   // likewise; open strings with the capo, string 1 first
	Tempi        []Tempo // likewise; in the order of their beats
	Notes        []Note
	Lines        []Line   // of the file, where it has several kinds of them
	Line         int      // the one that was read
	Told         []string // what of the file was left out, or understood in one of several ways
}

// A Note is one note of a score.
type Note struct {
	Beat   float64
	Bar    int // of the file, counted from 0
	MIDI   int // sounding
	String int // 0 where the file does not say; then Fret says nothing
	Fret   int
	Finger int // 0 where the file does not say, or the open string
	Hand   chart.Hand
	Attack chart.Attack // empty where the file does not say
	Stroke chart.Stroke
	Bend   int
}

// Adopt turns the score into a drill of one's own on g, with strings and fingers
// proposed where the file has none, and tells what was proposed or could not be
// kept. A drill's notes come evenly, each of one division of the beat.
func (s Score) Adopt(g guitar.Guitar) (drill.Drill, []string, error) {
	if len(s.Notes) == 0 {
		return drill.Drill{}, nil, errors.New("the file holds no notes")
	}
	if len(s.Notes) > drill.MaxFreeNotes {
		return drill.Drill{}, nil, fmt.Errorf("the file holds %d notes; a cell of one's own has up to %d, so cut it to the part to be drilled", len(s.Notes), drill.MaxFreeNotes)
	}
	told := slices.Clone(s.Told)
	tell := func(text string) { told = append(told, text) }
	if !s.liesOn(g) {
		tell("The file is for another tuning; the notes lie where they sound the same on this guitar.")
		s.forgetPlaces()
	}
	if slices.ContainsFunc(s.Notes, func(n Note) bool { return n.String == 0 }) {
		tell("Strings and frets are proposed: the file has only pitches.")
	}
	if slices.ContainsFunc(s.Notes, func(n Note) bool { return n.Finger == 0 && (n.String == 0 || n.Fret > 0) }) {
		tell("Fingers are proposed where the file has none.")
	}
	if slices.ContainsFunc(s.Notes, func(n Note) bool { return n.Attack == "" }) {
		tell("How notes are begun is a guess where the file does not say: what can be slurred is.")
	}
	bend := s.Notes[0].Bend
	for i := range s.Notes {
		if s.Notes[i].Bend != bend && s.Notes[i].Fret > 0 {
			bend = 0
			tell("Bends that change from note to note are left out.")
			break
		}
	}
	for i := range s.Notes {
		s.Notes[i].MIDI -= s.Notes[i].Bend
	}
	if err := places(s.Notes, g); err != nil {
		return drill.Drill{}, nil, err
	}
	d := s.free()
	d.Fingering.BendHeld = bend
	d.Rhythm.Swing = s.straighten()
	perBeat, even := s.division()
	d.Rhythm.NotesPerBeat = perBeat
	if d.Rhythm.Swing > chart.MostSwing || perBeat%2 != 0 {
		d.Rhythm.Swing = 0
	}
	if !even {
		tell(fmt.Sprintf("The file's notes are not all equally long; here they come evenly, %s a beat.", words.Counted(perBeat, "note")))
	}
	if !s.keepStrokes(&d, g) {
		tell("The file's strokes follow no rule that is known here; alternate strokes are set.")
	}
	if faults := d.Check(g); len(faults) > 0 {
		return drill.Drill{}, nil, faults
	}
	return d, told, nil
}

// liesOn reports whether every place of the score sounds on g as it should.
func (s Score) liesOn(g guitar.Guitar) bool {
	return !slices.ContainsFunc(s.Notes, func(n Note) bool {
		return n.String > 0 && (!g.HasString(n.String) || g.Sound(n.String, n.Fret)+n.Bend != n.MIDI)
	})
}

func (s Score) forgetPlaces() {
	for i := range s.Notes {
		s.Notes[i].String, s.Notes[i].Finger = 0, 0
	}
}

// nameFrom makes a drill's name of a file's title.
func nameFrom(title string) string {
	title = strings.TrimSpace(strings.Map(func(r rune) rune {
		if unicode.IsControl(r) {
			return ' '
		}
		return r
	}, strings.ToValidUTF8(title, "")))
	if runes := []rune(title); len(runes) > drill.MaxName {
		title = string(runes[:drill.MaxName])
	}
	if title == "" {
		return "From a file"
	}
	return title
}

// free is the drill with the score's notes, before its rhythm and strokes.
func (s Score) free() drill.Drill {
	p := drill.Free{}
	for _, n := range s.Notes {
		finger := n.Finger
		if n.Fret == 0 {
			finger = 0
		}
		p.Notes = append(p.Notes, drill.FreeNote{String: n.String, Fret: n.Fret, Finger: finger, Hand: n.Hand, Attack: n.Attack})
	}
	name := nameFrom(s.Name)
	d := drill.New(name, p)
	d.Path.Position, d.Path.Strings = p.Home()
	d.Rhythm.Passes = max(1, s.Passes)
	if s.BeatsPerBar > 0 {
		d.Rhythm.BeatsPerBar = s.BeatsPerBar
	}
	return d
}

// division returns how many notes there are to a beat, the nearest a drill may
// have, and whether all notes are equally far apart.
func (s Score) division() (perBeat int, even bool) {
	var gaps []float64
	for i := 1; i < len(s.Notes); i++ {
		gaps = append(gaps, s.Notes[i].Beat-s.Notes[i-1].Beat)
	}
	perBeat = s.NotesPerBeat
	if perBeat == 0 {
		perBeat = 1
		if len(gaps) > 0 {
			middle := slices.Sorted(slices.Values(gaps))[len(gaps)/2]
			perBeat = slices.MinFunc(drill.Divisions, func(a, b int) int {
				return int(1e6 * (math.Abs(1/float64(a)-middle) - math.Abs(1/float64(b)-middle)))
			})
		}
	}
	even = !slices.ContainsFunc(gaps, func(g float64) bool { return math.Abs(g*float64(perBeat)-1) > 0.1 })
	return perBeat, even
}

// fewestSwung is how many pairs of notes must be long and short in turn to be swung.
const fewestSwung = 4

// straighten makes notes that are long and short in turn, all by one share, straight ones, and
// returns the share of the first of two, or what the file says of it; where they are not so,
// nothing is changed.
func (s Score) straighten() (share float64) {
	pairs := (len(s.Notes) - 1) / 2
	if pairs < fewestSwung {
		return s.Swing
	}
	for i := range pairs {
		a, b, c := s.Notes[2*i].Beat, s.Notes[2*i+1].Beat, s.Notes[2*i+2].Beat
		of := (b - a) / (c - a)
		even := math.Abs(c-a-(s.Notes[2].Beat-s.Notes[0].Beat)) < 0.01
		if share == 0 {
			share = math.Round(100*of) / 100
		}
		if !even || math.Abs(of-share) > 0.01 || share < 0.53 || share > chart.MostSwing {
			return s.Swing
		}
	}
	each := (s.Notes[2].Beat - s.Notes[0].Beat) / 2
	for i := range s.Notes {
		s.Notes[i].Beat = s.Notes[0].Beat + float64(i)*each
	}
	return share
}

// keepStrokes finds the stroke rule that writes the score's strokes. It reports
// false where there are strokes and no rule does.
func (s Score) keepStrokes(d *drill.Drill, g guitar.Guitar) bool {
	if !slices.ContainsFunc(s.Notes, func(n Note) bool { return n.Stroke != "" }) {
		return true
	}
	plain := d.Strokes
	for _, rule := range drill.StrokeRules {
		for _, fromUp := range []bool{false, true} {
			d.Strokes = drill.Strokes{Rule: rule, FromUp: fromUp}
			c, err := d.Chart(g, 60)
			if err == nil && slices.EqualFunc(c.Notes, s.Notes, func(n chart.Note, f Note) bool { return n.Stroke == f.Stroke }) {
				return true
			}
		}
	}
	d.Strokes = plain
	return false
}

// Of is a chart as a score, as it goes into a file.
func Of(c chart.Chart) Score {
	s := Score{
		Name: c.Name, BPM: c.BPM, BeatsPerBar: c.BarBeats(), NotesPerBeat: c.NotesPerBeat,
		Passes: max(1, c.Passes), Tuning: c.Tuning,
	}
	for _, n := range c.Notes {
		s.Notes = append(s.Notes, Note{
			Beat: c.SoundBeat(n), MIDI: n.MIDI, String: n.String, Fret: n.Fret, Finger: n.Finger,
			Hand: n.Hand, Attack: n.Attack, Stroke: n.Stroke, Bend: n.Bend,
		})
	}
	return s
}

// FreeOf turns a written-out chart into a drill of one's own with the same
// notes, so that each can be changed by hand.
func FreeOf(d drill.Drill, c chart.Chart) drill.Drill {
	free := Of(c).free()
	free.Key, free.Rhythm, free.Strokes, free.Fingering = d.Key, d.Rhythm, d.Strokes, d.Fingering
	free.Rhythm.Close = 0
	return free
}
