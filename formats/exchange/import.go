package exchange

import (
	"bytes"
	"errors"
	"fmt"
	"math"

	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/core/words"
	"manudrill/formats/drillfile"
	"manudrill/formats/midifile"
	"manudrill/formats/musicxml"
	"manudrill/formats/plaintext"
	"manudrill/formats/tabtext"
)

// Errors that say why nothing could be taken in.
var (
	ErrCompressed = errors.New("this is a compressed file; save the music as MusicXML, MIDI or tab text and import that")
	ErrUnknown    = errors.New("this is no MusicXML, MIDI, tab text or drill document")
)

// A Choice is what of a file is taken in.
type Choice struct {
	Line              int // of [Imported.Lines], or [score.AnyLine]
	FirstBar, LastBar int // counted from 1; 0 for as many as fit into a drill
}

// Unasked is what is taken in where nothing is chosen.
var Unasked = Choice{Line: score.AnyLine}

// Imported is a drill that was made of a file, and what else might have been.
type Imported struct {
	File drillfile.File
	Told []string // what was proposed or could not be kept
	// Lines is empty for files that can only have one, and holds the first 256 of others; Line
	// is the one that was read.
	Lines []score.Line
	Line  int
	// Bars the line has, and those that were read; 0 for a drill document.
	Bars, FirstBar, LastBar int
}

// Import reads a file of any of the formats but sound into a drill for g.
func Import(b []byte, g guitar.Guitar, c Choice) (Imported, error) {
	b, err := unwrapped(b)
	if err != nil {
		return Imported{}, err
	}
	text := bytes.TrimSpace(bytes.TrimPrefix(b, []byte("\ufeff")))
	if bytes.HasPrefix(text, []byte("{")) {
		f, err := drillfile.Read(text)
		return Imported{File: f, Told: []string{}, Lines: []score.Line{}}, err
	}
	s, err := read(b, text, g, c.Line)
	if err != nil {
		return Imported{}, err
	}
	return adopt(s, g, c)
}

// unwrapped is a file as it is read: uncompressed, and in UTF-8 where it was UTF-16.
func unwrapped(b []byte) ([]byte, error) {
	if len(b) > bounds.DocumentBytes {
		return nil, bounds.ErrDocumentTooLarge
	}
	if bytes.HasPrefix(b, []byte{0x1f, 0x8b}) {
		return nil, ErrCompressed
	}
	if bytes.HasPrefix(b, []byte("PK")) {
		unpacked, err := musicxml.Uncompressed(b)
		if err != nil {
			return nil, err
		}
		b = unpacked
	}
	if bytes.HasPrefix(b, []byte("\xff\xfe")) || bytes.HasPrefix(b, []byte("\xfe\xff")) {
		wide, err := plaintext.Read(b)
		if err != nil {
			return nil, ErrUnknown
		}
		b = []byte(wide)
	}
	return b, nil
}

// read reads a line of a score in whatever format it is written.
func read(b, text []byte, g guitar.Guitar, line int) (score.Score, error) {
	switch {
	case midifile.Is(b):
		return midifile.Read(b, line)
	case bytes.HasPrefix(text, []byte("<")):
		return musicxml.Read(text, line)
	}
	typed, err := plaintext.Read(b)
	if err != nil {
		return score.Score{}, ErrUnknown
	}
	return tabtext.Read(typed, g)
}

// mostLines is how many lines of a file are told: no player reads more staves.
const mostLines = 256

// adopt makes a drill of the bars that are chosen, or of those that fit.
func adopt(s score.Score, g guitar.Guitar, c Choice) (Imported, error) {
	in := Imported{Lines: append([]score.Line{}, s.Lines[:min(len(s.Lines), mostLines)]...), Line: s.Line, Bars: s.Bars(), FirstBar: 1, LastBar: s.Bars()}
	if c.FirstBar > 0 || c.LastBar > 0 {
		in.FirstBar = max(1, c.FirstBar)
		if c.LastBar > 0 {
			in.LastBar = c.LastBar
		}
	} else if fit := s.Fitting(); fit > 0 && fit < in.Bars {
		in.LastBar = fit
		s.Told = append(s.Told, fmt.Sprintf("The file holds %s in %s, and a drill up to %d: bars 1 to %d are read.",
			words.Counted(len(s.Notes), "note"), words.Counted(in.Bars, "bar"), drill.MaxFreeNotes, fit))
	}
	if len(s.Told) > 0 && in.LastBar-in.FirstBar+1 < in.Bars && (c.FirstBar > 0 || c.LastBar > 0) {
		s.Told = append(s.Told, "What is said so far is of all its bars.")
	}
	if err := s.Within(in.FirstBar, in.LastBar); err != nil {
		return Imported{}, err
	}
	in.LastBar = min(in.LastBar, in.Bars)
	d, told, err := s.Adopt(g)
	if err != nil {
		return Imported{}, err
	}
	in.File, in.Told = drillfile.File{Drill: d, Ladder: ladder(s)}, append([]string{}, told...)
	if slow, quick := s.Range(); math.Round(quick) > math.Round(slow) {
		in.Told = append(in.Told, fmt.Sprintf("The tempo of the file changes, between %.0f and %.0f bpm; the ladder goes from %g to %g.",
			slow, quick, in.File.Ladder.StartBPM, in.File.Ladder.TargetBPM))
	}
	return in, nil
}

// ladder begins at the tempo of a score's first note, and goes to its quickest where that is
// quicker: a slow end, as of a held note, is no rung.
func ladder(s score.Score) tempo.Ladder {
	l := tempo.Usual().From(s.BPM)
	if _, quick := s.Range(); l.StartBPM == s.BPM && quick > s.BPM {
		l.TargetBPM = min(quick, tempo.MaxBPM)
	}
	return l
}
