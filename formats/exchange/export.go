// Package exchange takes drills out of Manudrill and in: which formats there
// are, what each of them cannot hold, and how a file is recognised.
package exchange

import (
	"encoding/json"
	"fmt"
	"strings"
	"unicode"

	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/formats/drillfile"
	"manudrill/formats/midifile"
	"manudrill/formats/musicxml"
	"manudrill/formats/sound"
	"manudrill/formats/tabtext"
)

// A Format is a kind of file a drill can be taken out as.
type Format string

// The formats: MusicXML 4.0, Standard MIDI File, tablature as text, the drill
// document, and the chart as sound with and without click.
const (
	MusicXML Format = "musicxml"
	MIDI     Format = "midi"
	Tab      Format = "tab"
	JSON     Format = "json"
	WAV      Format = "wav"
	ClickWAV Format = "wavClick"
)

// Formats are all of them.
var Formats = []Format{MusicXML, MIDI, Tab, JSON, WAV, ClickWAV}

// A Document is a drill in one format.
type Document struct {
	Name    string // of the file
	Media   string // type, as HTTP names it
	Content []byte
	Lost    []string // what the format cannot hold
}

// Export writes a drill for g and a hand at a tempo. The error is of type drill.Faults when
// the drill cannot be written out.
func Export(f drillfile.File, g guitar.Guitar, h guitar.Hand, bpm float64, to Format) (Document, error) {
	c, err := f.Drill.ChartFor(g, h, bpm)
	if err != nil {
		return Document{}, err
	}
	switch to {
	case MusicXML:
		content, err := musicxml.Write(c)
		return named(c, ".musicxml", "application/vnd.recordare.musicxml+xml", content, musicXMLLoses(c)), err
	case MIDI:
		return named(c, ".mid", "audio/midi", midifile.Write(score.Of(c)), midiLoses(c)), nil
	case Tab:
		return named(c, ".tab.txt", "text/plain; charset=utf-8", []byte(tabtext.Write(score.Of(c))), tabLoses(c)), nil
	case JSON:
		content, err := json.MarshalIndent(f, "", "  ")
		return named(c, ".drill.json", "application/json", append(content, '\n'), nil), err
	case WAV, ClickWAV:
		samples, err := simulate.Rendition(c, to == ClickWAV)
		if err != nil {
			return Document{}, err
		}
		s := sound.FromMono(simulate.Rate, samples)
		return named(c, ".wav", "audio/wav", s.EncodeWAV(), []string{"A recording holds what sounds: no strings, fingers or strokes."}), nil
	}
	return Document{}, fmt.Errorf("there is no format %q", to)
}

// The pattern is lost in all of them but the drill's own document: what comes
// back is a drill of one's own with the same notes.
const patternLost = "The pattern and the tempo ladder stay behind: read back, this is a drill of one's own with the same notes."

func musicXMLLoses(c chart.Chart) []string {
	lost := []string{patternLost}
	if c.Free {
		lost = append(lost, "That the drill is free of the click is not written.")
	}
	return append(lost, keepLost(c)...)
}

func midiLoses(c chart.Chart) []string {
	return append([]string{patternLost, "Strings, frets, fingers, attacks and strokes are written as texts, which other programs show or skip."}, keepLost(c)...)
}

func tabLoses(c chart.Chart) []string {
	return append([]string{patternLost}, keepLost(c)...)
}

func keepLost(c chart.Chart) []string {
	for _, n := range c.Notes {
		if n.Keep {
			return []string{"Which fingers stay down is not written."}
		}
	}
	return nil
}

func named(c chart.Chart, ending, media string, content []byte, lost []string) Document {
	if lost == nil {
		lost = []string{}
	}
	return Document{Name: fileName(c.Name) + ending, Media: media, Content: content, Lost: lost}
}

// fileName keeps letters, digits and dashes of a drill's name.
func fileName(name string) string {
	words := strings.FieldsFunc(name, func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) })
	if len(words) == 0 {
		return "drill"
	}
	return strings.Join(words, "-")
}
