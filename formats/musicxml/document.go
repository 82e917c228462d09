// Package musicxml reads and writes MusicXML 4.0 (W3C Music Notation Community
// Group, final report of June 2021): one part with a staff of notes and a staff
// of tablature, with string, fret, fingering, attacks and strokes.
package musicxml

import (
	"encoding/xml"
	"math"
	"strconv"
	"strings"
)

// The elements below are those of the standard that Manudrill writes or reads,
// in the order in which it wants them.
type (
	document struct {
		XMLName  xml.Name       `xml:"score-partwise"`
		Version  string         `xml:"version,attr"`
		Title    string         `xml:"work>work-title,omitempty"`
		Movement string         `xml:"movement-title,omitempty"`
		Software string         `xml:"identification>encoding>software,omitempty"`
		PartList []partListItem `xml:"part-list>score-part"`
		Parts    []part         `xml:"part"`
	}
	partListItem struct {
		ID   string `xml:"id,attr"`
		Name string `xml:"part-name"`
	}
	part struct {
		ID       string    `xml:"id,attr"`
		Measures []measure `xml:"measure"`
	}
	// A measure keeps its content in order, which the standard gives a meaning.
	measure struct {
		Number   string `xml:"number,attr"`
		Implicit bool   `xml:"-"` // shorter than its time says
		Content  []any  `xml:"-"`
	}
	attributes struct {
		XMLName      xml.Name       `xml:"attributes"`
		Divisions    decimal        `xml:"divisions,omitempty"`
		Key          *key           `xml:"key"`
		Time         *meter         `xml:"time"`
		Staves       int            `xml:"staves,omitempty"`
		Clefs        []clef         `xml:"clef"`
		StaffDetails []staffDetails `xml:"staff-details"`
		Transpose    []transpose    `xml:"transpose"`
	}
	transpose struct {
		Number    int     `xml:"number,attr,omitempty"`
		Chromatic decimal `xml:"chromatic"`
		Octaves   int     `xml:"octave-change,omitempty"`
	}
	key struct {
		Fifths int `xml:"fifths"`
	}
	meter struct {
		Beats    string `xml:"beats"`
		BeatType string `xml:"beat-type"`
	}
	clef struct {
		Number int    `xml:"number,attr"`
		Sign   string `xml:"sign"`
		Line   int    `xml:"line"`
		Octave int    `xml:"clef-octave-change,omitempty"`
	}
	staffDetails struct {
		Number  int           `xml:"number,attr"`
		Lines   int           `xml:"staff-lines"`
		Tunings []staffTuning `xml:"staff-tuning"`
		Capo    int           `xml:"capo,omitempty"`
	}
	staffTuning struct {
		Line   int     `xml:"line,attr"`
		Step   string  `xml:"tuning-step"`
		Alter  decimal `xml:"tuning-alter,omitempty"`
		Octave int     `xml:"tuning-octave"`
	}
	direction struct {
		XMLName   xml.Name `xml:"direction"`
		Placement string   `xml:"placement,attr,omitempty"`
		Unit      string   `xml:"direction-type>metronome>beat-unit"`
		Dot       *empty   `xml:"direction-type>metronome>beat-unit-dot"`
		PerMinute string   `xml:"direction-type>metronome>per-minute"`
		Staff     int      `xml:"staff,omitempty"`
		Sound     *tempo   `xml:"sound"`
	}
	tempo struct {
		Tempo decimal `xml:"tempo,attr"` // quarters a minute
		Swing *swing  `xml:"swing"`
	}
	// swing is how long two notes that are written alike last, by parts of their time.
	swing struct {
		First  int    `xml:"first"`
		Second int    `xml:"second"`
		Type   string `xml:"swing-type"` // eighth or 16th
	}
	backup struct {
		XMLName  xml.Name `xml:"backup"`
		Duration decimal  `xml:"duration"`
	}
	forward struct {
		XMLName  xml.Name `xml:"forward"`
		Duration decimal  `xml:"duration"`
	}
	barline struct {
		XMLName  xml.Name `xml:"barline"`
		Location string   `xml:"location,attr"`
		Style    string   `xml:"bar-style,omitempty"`
		Ending   *empty   `xml:"ending"`
		Repeat   *repeat  `xml:"repeat"`
	}
	repeat struct {
		Direction string `xml:"direction,attr"`
		Times     int    `xml:"times,attr,omitempty"`
	}
	note struct {
		XMLName  xml.Name          `xml:"note"`
		Chord    *empty            `xml:"chord"`
		Grace    *empty            `xml:"grace"`
		Cue      *empty            `xml:"cue"`
		Pitch    *pitch            `xml:"pitch"`
		Rest     *empty            `xml:"rest"`
		Duration decimal           `xml:"duration"`
		Ties     []tie             `xml:"tie"`
		Voice    string            `xml:"voice,omitempty"`
		Type     string            `xml:"type,omitempty"`
		Sign     string            `xml:"accidental,omitempty"`
		Time     *timeModification `xml:"time-modification"`
		Stem     string            `xml:"stem,omitempty"`
		Staff    int               `xml:"staff,omitempty"`
		Beams    []beam            `xml:"beam"`
		Notation *notations        `xml:"notations"`
	}
	beam struct {
		Number int    `xml:"number,attr"`
		Text   string `xml:",chardata"`
	}
	empty struct{}
	tie   struct {
		Type string `xml:"type,attr"`
	}
	pitch struct {
		Step   string  `xml:"step"`
		Alter  decimal `xml:"alter,omitempty"`
		Octave int     `xml:"octave"`
	}
	timeModification struct {
		Actual int `xml:"actual-notes"`
		Normal int `xml:"normal-notes"`
	}
	notations struct {
		Tied      []typed    `xml:"tied"`
		Tuplets   []typed    `xml:"tuplet"`
		Slurs     []typed    `xml:"slur"`
		Slides    []typed    `xml:"slide"`
		Technical *technical `xml:"technical"`
	}
	// typed is a mark that starts at one note and stops at another.
	typed struct {
		Type   string `xml:"type,attr"`
		Number int    `xml:"number,attr,omitempty"`
		Text   string `xml:",chardata"`
	}
	technical struct {
		UpBow     *empty      `xml:"up-bow"`
		DownBow   *empty      `xml:"down-bow"`
		Fingering string      `xml:"fingering,omitempty"`
		Pluck     string      `xml:"pluck,omitempty"`
		Fret      *int        `xml:"fret"`
		String    int         `xml:"string,omitempty"`
		Hammers   []typed     `xml:"hammer-on"`
		Pulls     []typed     `xml:"pull-off"`
		Bend      *bend       `xml:"bend"`
		Tap       *handedTap  `xml:"tap"`
		Other     []othersOwn `xml:"other-technical"`
	}
	bend struct {
		Alter   decimal `xml:"bend-alter"`
		PreBend *empty  `xml:"pre-bend"`
	}
	handedTap struct {
		Hand string `xml:"hand,attr,omitempty"`
	}
	othersOwn struct {
		Text string `xml:",chardata"`
	}
)

// A decimal is a number as the standard has them: whole or not. What is none is none told.
type decimal float64

// UnmarshalText reads it.
func (d *decimal) UnmarshalText(text []byte) error {
	v, err := strconv.ParseFloat(strings.TrimSpace(string(text)), 64)
	if err != nil || math.IsNaN(v) || math.Abs(v) > 1e9 {
		v = 0
	}
	*d = decimal(v)
	return nil
}

// MarshalText writes it in as few digits as say it.
func (d decimal) MarshalText() ([]byte, error) {
	return strconv.AppendFloat(nil, float64(d), 'f', -1, 64), nil
}

// whole is the nearest whole number.
func (d decimal) whole() int { return int(math.Round(float64(d))) }

// MarshalXML writes the content in its order.
func (m measure) MarshalXML(e *xml.Encoder, start xml.StartElement) error {
	start.Attr = []xml.Attr{{Name: xml.Name{Local: "number"}, Value: m.Number}}
	if m.Implicit {
		start.Attr = append(start.Attr, xml.Attr{Name: xml.Name{Local: "implicit"}, Value: "yes"})
	}
	if err := e.EncodeToken(start); err != nil {
		return err
	}
	for _, c := range m.Content {
		if err := e.Encode(c); err != nil {
			return err
		}
	}
	return e.EncodeToken(start.End())
}

// UnmarshalXML reads the content that Manudrill knows in its order.
func (m *measure) UnmarshalXML(d *xml.Decoder, start xml.StartElement) error {
	for _, a := range start.Attr {
		if a.Name.Local == "number" {
			m.Number = a.Value
		}
	}
	for {
		token, err := d.Token()
		if err != nil {
			return err
		}
		switch t := token.(type) {
		case xml.EndElement:
			return nil
		case xml.StartElement:
			fresh, known := contents[t.Name.Local]
			if !known {
				if err := d.Skip(); err != nil {
					return err
				}
				continue
			}
			c := fresh()
			if err := d.DecodeElement(c, &t); err != nil {
				return err
			}
			m.Content = append(m.Content, c)
		}
	}
}

var contents = map[string]func() any{
	"attributes": func() any { return &attributes{} },
	"direction":  func() any { return &direction{} },
	"backup":     func() any { return &backup{} },
	"forward":    func() any { return &forward{} },
	"sound":      func() any { return &tempo{} },
	"note":       func() any { return &note{} },
	"barline":    func() any { return &barline{} },
}
