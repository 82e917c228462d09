package drill

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"unicode"

	"manudrill/core/guitar"
	"manudrill/core/words"
)

// A Part is a pattern with its path, attacks, strokes and fingers, and how long it is
// played before the next.
type Part struct {
	Title     string      `json:"title,omitempty"` // what it is called among others
	For       *Stay       `json:"for,omitempty"`   // how long; once through where it is not said
	Pattern   Pattern     `json:"pattern"`
	Key       *guitar.Key `json:"key,omitempty"` // for patterns that lie in one
	Path      Path        `json:"path"`
	Attacks   Attacks     `json:"attacks"`
	Strokes   Strokes     `json:"strokes"`
	Fingering Fingering   `json:"fingering"`
	Mirror    bool        `json:"mirror"`  // cells turned over in the hand
	Reverse   bool        `json:"reverse"` // the whole part from its end
}

// plainPart is a Part without its methods, and partJSON one with its pattern's kind
// among the pattern's fields.
type (
	plainPart Part
	partJSON  struct {
		plainPart
		Pattern json.RawMessage `json:"pattern"`
	}
)

func (p Part) written() (partJSON, error) {
	if p.Pattern == nil {
		return partJSON{}, fmt.Errorf("the drill has no pattern")
	}
	pattern, err := writePattern(p.Pattern)
	return partJSON{plainPart(p), pattern}, err
}

func (j partJSON) read() (Part, error) {
	if len(j.Pattern) == 0 {
		return Part{}, fmt.Errorf("the drill has no pattern")
	}
	pattern, err := readPattern(j.Pattern)
	if err != nil {
		return Part{}, err
	}
	p := Part(j.plainPart)
	p.Pattern = pattern
	return p, nil
}

// MarshalJSON writes the part with its pattern's kind among the pattern's fields.
func (p Part) MarshalJSON() ([]byte, error) {
	j, err := p.written()
	if err != nil {
		return nil, err
	}
	return json.Marshal(j)
}

// UnmarshalJSON reads a part and picks its pattern by kind. Unknown fields are refused.
func (p *Part) UnmarshalJSON(b []byte) error {
	var j partJSON
	if err := strict(b, &j); err != nil {
		return err
	}
	read, err := j.read()
	if err == nil {
		*p = read
	}
	return err
}

func strict(b []byte, into any) error {
	dec := json.NewDecoder(bytes.NewReader(b))
	dec.DisallowUnknownFields()
	return dec.Decode(into)
}

// Parts are those of the drill in order, one at least.
func (d Drill) Parts() []Part { return append([]Part{d.Part}, d.Then...) }

// OfParts returns the drill with other parts, of which there must be one at least.
func (d Drill) OfParts(parts []Part) Drill {
	d.Part, d.Then = parts[0], nil
	if len(parts) > 1 {
		d.Then = slices.Clone(parts[1:])
	}
	return d
}

// HangsOnTempo reports whether a tempo changes what is played: something lasts so many
// seconds.
func (d Drill) HangsOnTempo() bool {
	return slices.ContainsFunc(d.Parts(), func(p Part) bool {
		return p.Path.Stay.Unit == Seconds || p.For != nil && p.For.Unit == Seconds
	})
}

// each returns the drill with every part changed alike.
func (d Drill) each(change func(Part) Part) Drill {
	parts := d.Parts()
	for i := range parts {
		parts[i] = change(parts[i])
	}
	return d.OfParts(parts)
}

// Alone is the drill of one part only.
func (d Drill) Alone(i int) Drill { return d.OfParts(d.Parts()[i : i+1]) }

// withPart is the drill with its i-th part as another drill has its first, and that
// drill's rhythm.
func (d Drill) withPart(i int, other Drill) Drill {
	parts := d.Parts()
	parts[i] = other.Part
	d.Rhythm = other.Rhythm
	return d.OfParts(parts)
}

// Joined makes one drill of several, a part of each, played without a stop in the
// rhythm of the first. Where they are given, seconds tell how long each lasts.
func Joined(name string, drills []Drill, seconds []int) Drill {
	var parts []Part
	for i, d := range drills {
		for _, p := range d.Parts() {
			if len(d.Then) == 0 {
				p.Title = d.Name
			}
			if i < len(seconds) {
				p.For = &Stay{Count: max(1, seconds[i]/(len(d.Then)+1)), Unit: Seconds}
			}
			parts = append(parts, p)
		}
	}
	joined := Drill{Name: name, Rhythm: drills[0].Rhythm}.OfParts(parts)
	if len(parts) > 1 {
		joined.Rhythm.Passes, joined.Rhythm.Close = 1, 0
	}
	return joined
}

// PickedFirst puts every part in twice: picked, as the yardstick of the student's own
// evenness, and then as it is. A part that is picked anyway stays as it is.
func (d Drill) PickedFirst() Drill {
	var parts []Part
	for _, p := range d.Parts() {
		if p.Attacks.Rule != AllPicked {
			yardstick := p
			yardstick.Attacks = Attacks{Rule: AllPicked}
			yardstick.Title = titled(p.Title, "picked")
			p.Title = titled(p.Title, "slurred")
			parts = append(parts, yardstick)
		}
		parts = append(parts, p)
	}
	return d.OfParts(parts)
}

func titled(title, how string) string {
	if title == "" {
		return strings.ToUpper(how[:1]) + how[1:]
	}
	return title + ", " + how
}

// titles are the names of the parts, where there are several.
func (d Drill) titles() []string {
	if len(d.Then) == 0 {
		return nil
	}
	var titles []string
	for i, p := range d.Parts() {
		title := strings.TrimSpace(p.Title)
		if title == "" {
			title = fmt.Sprintf("Part %d", i+1)
		}
		titles = append(titles, title)
	}
	return titles
}

// check returns what is wrong with a part by itself.
func (p Part) check(g guitar.Guitar, faults *Faults) {
	if len([]rune(p.Title)) > MaxName || strings.ContainsFunc(p.Title, unicode.IsControl) {
		faults.Add("title", "The name of a part has at most %d characters, all of them visible.", MaxName)
	}
	if p.For != nil {
		p.For.checkAs("for", "a part", faults)
	}
	p.Path.check(g, faults)
	p.Attacks.check(faults)
	p.Strokes.check(faults)
	p.Fingering.check(faults)
	p.checkCells(g, faults)
}

func (p Part) checkCells(g guitar.Guitar, faults *Faults) {
	if p.Pattern == nil {
		faults.Add("pattern", "Choose a pattern.")
		return
	}
	cells, err := p.Pattern.Cells(p.Path)
	if err != nil {
		faults.Add("pattern", "%s.", words.Sentence(err.Error()))
		return
	}
	if usesKey(cells) {
		if p.Key == nil {
			faults.Add("key", "Choose a key: this pattern follows a scale.")
		} else if err := p.Key.Validate(); err != nil {
			faults.Add("key", "%s.", words.Sentence(err.Error()))
		} else if k, ok := p.Pattern.(interface{ checkKey(guitar.Key) error }); ok {
			if err := k.checkKey(*p.Key); err != nil {
				faults.Add("key", "%s.", words.Sentence(err.Error()))
			}
		}
	}
	for _, c := range cells {
		if at := slices.IndexFunc(c, func(t Touch) bool { return t.Extra > 0 && !g.HasString(t.Extra) }); at >= 0 {
			faults.Add("pattern", "There is no string %d on this guitar; it has strings 1 to %d.", c[at].Extra, len(g.Tuning))
		}
	}
	width := stringsOf(cells)
	groups := p.Path.groups(width)
	if len(groups) == 0 && len(p.Path.Strings) > 0 {
		faults.Add("path.strings", "This pattern lies on %d strings; choose %d or more.", width, width)
	}
	for _, group := range groups {
		if len(group) < width {
			faults.Add("path.groups", "This pattern lies on %d strings; the group %v has %d.", width, group, len(group))
			return
		}
	}
}

// inPart says of faults which part has them, and mends the part within the drill.
func (d Drill) inPart(i int, faults Faults) Faults {
	if len(d.Then) == 0 {
		return faults
	}
	out := make(Faults, len(faults))
	for n, f := range faults {
		out[n] = Fault{Field: f.Field, Text: fmt.Sprintf("Part %d: %s", i+1, f.Text), Mends: d.Mended(i, f.Mends)}
		if i > 0 {
			out[n].Field = fmt.Sprintf("then.%d.%s", i-1, f.Field)
		}
	}
	return out
}

// Mended are mends of a part alone, within the drill.
func (d Drill) Mended(i int, mends []Mend) []Mend {
	out := slices.Clone(mends)
	for n := range out {
		out[n].Drill = d.withPart(i, out[n].Drill)
	}
	return out
}
