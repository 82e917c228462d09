package drill

import (
	"fmt"
	"strings"

	"manudrill/core/guitar"
)

// A Remark is something an instructor would say on reading the chart.
type Remark struct {
	Check string `json:"check"` // "slur", "order", "reach", "stretch", "hands", "strokes" or "cycle"
	Care  bool   `json:"care"`  // needs mending; else it is good to know
	Text  string `json:"text"`
	Notes []int  `json:"notes,omitempty"` // of the chart, from 0
	Mends []Mend `json:"mends,omitempty"`
}

// Review looks at the chart of d, which must be the one Chart writes for g,
// with the eyes of an instructor, for a hand.
func (d Drill) Review(c Chart, g guitar.Guitar, h guitar.Hand) []Remark {
	remarks := []Remark{}
	for _, check := range []func(Drill, Chart) (Remark, bool){
		Drill.reviewSlurs,
		Drill.reviewOrder,
		func(d Drill, c Chart) (Remark, bool) { return d.reviewReach(c, g, h) },
		Drill.reviewStretch,
		func(d Drill, c Chart) (Remark, bool) { return d.reviewHands(c, g) },
		Drill.reviewStrokes,
	} {
		if r, found := d.reviewParts(c, check); found {
			remarks = append(remarks, r)
		}
	}
	if r, found := d.reviewCycle(c); found {
		remarks = append(remarks, r)
	}
	return remarks
}

// reviewParts looks at each part by itself. What several have is told of the first of
// them, with how many others have it.
func (d Drill) reviewParts(c Chart, check func(Drill, Chart) (Remark, bool)) (told Remark, found bool) {
	if len(d.Then) == 0 {
		return check(d, c)
	}
	first, others := 0, 0
	for i := range d.Parts() {
		r, is := check(d.alone(i), c.Alone(i))
		for n := range r.Notes {
			r.Notes[n] += first
		}
		first += len(c.ofPart(i))
		if !is {
			continue
		}
		if found {
			others++
			told.Notes = append(told.Notes, r.Notes...)
			continue
		}
		told, found = r, true
		told.Text = fmt.Sprintf("Part %d: %s", i+1, r.Text)
		told.Mends = d.mended(i, r.Mends)
	}
	if others > 0 {
		told.Text += fmt.Sprintf(" Something like it goes for %s.", counted(others, "more part"))
	}
	return told, found
}

// reviewSlurs finds slurs no hand can make: a hammer-on goes up and a pull-off
// down, on one string, between different fingers; a slide keeps its finger.
func (d Drill) reviewSlurs(c Chart) (Remark, bool) {
	r := Remark{Check: "slur", Care: true}
	for i, n := range c.Notes {
		var before *Note
		if i > 0 {
			before = &c.Notes[i-1]
		}
		why := impossible(before, n)
		if why == "" {
			continue
		}
		if r.Text == "" {
			r.Text = fmt.Sprintf("Note %d cannot be made: %s.", i+1, why)
		}
		r.Notes = append(r.Notes, i)
	}
	if len(r.Notes) == 0 {
		return r, false
	}
	if len(r.Notes) > 1 {
		r.Text += fmt.Sprintf(" The same goes for %s.", counted(len(r.Notes)-1, "more note"))
	}
	if d.Path.Shift.Slide {
		plain := d
		plain.Path.Shift.Slide = false
		r.Mends = append(r.Mends, Mend{"Shift without a slide", plain})
	}
	if p, ok := d.Pattern.(interface{ closeOnFirst() Pattern }); ok && d.Path.Shift.Slide {
		closed := d
		closed.Pattern = p.closeOnFirst()
		r.Mends = append(r.Mends, Mend{"End each cell on the finger that begins it", closed})
	}
	if p, ok := d.Pattern.(interface{ withoutAttacks([]int) Pattern }); ok {
		freed := d
		freed.Pattern = p.withoutAttacks(r.Notes)
		r.Mends = append(r.Mends, Mend{"Let the attack rule choose for these notes", freed})
	}
	return r, true
}

// impossible says why a note cannot start as it is written, or nothing.
func impossible(before *Note, n Note) string {
	connected := before != nil && before.String == n.String
	switch n.Attack {
	case Hammer, Pull, Slide:
		if !connected {
			return "a new string needs a pick, a tap or a hammer-on from nowhere"
		}
	}
	switch {
	case n.Attack == Hammer && n.Fret <= before.Fret:
		return "a hammer-on goes up"
	case n.Attack == Pull && n.Fret >= before.Fret:
		return "a pull-off goes down"
	case (n.Attack == Hammer || n.Attack == Pull) && n.Finger == before.Finger && n.Hand == before.Hand:
		return "a slur needs two different fingers"
	case n.Attack == Slide && (n.Finger != before.Finger || n.Hand != before.Hand):
		return "a slide keeps its finger"
	case n.Attack == Slide && n.Fret == before.Fret:
		return "a slide leads to another fret"
	case n.Attack == Nowhere && n.Fret == 0:
		return "the open string cannot be hammered"
	}
	return ""
}

// closeOnFirst ends the cell on the note it began with.
func (p OneString) closeOnFirst() Pattern {
	p.Steps = append(append([]int{}, p.Steps...), p.Steps[0])
	return p
}

// withoutAttacks takes away the attacks set by hand at some notes.
func (p Free) withoutAttacks(at []int) Pattern {
	p.Notes = append([]FreeNote{}, p.Notes...)
	for _, i := range at {
		p.Notes[i%len(p.Notes)].Attack = ""
	}
	return p
}

// reviewOrder finds fingers that cross: in one position on one string, the
// higher fret takes the higher finger.
func (d Drill) reviewOrder(c Chart) (Remark, bool) {
	r := Remark{Check: "order", Care: true}
	for i := 1; i < len(c.Notes); i++ {
		a, b := c.Notes[i-1], c.Notes[i]
		if !sameGrip(a, b) || a.String != b.String || a.Fret == b.Fret && a.Finger == b.Finger {
			continue
		}
		if (b.Fret-a.Fret)*(b.Finger-a.Finger) > 0 || b.Attack == Slide {
			continue
		}
		if r.Text == "" {
			r.Text = fmt.Sprintf("Fingers %d and %d cross at note %d: the higher fret takes the higher finger.", a.Finger, b.Finger, i+1)
		}
		r.Notes = append(r.Notes, i)
	}
	if len(r.Notes) == 0 {
		return r, false
	}
	suggested := d
	suggested.Fingering.Own = nil
	if p, ok := d.Pattern.(interface{ withoutFingers() Pattern }); ok {
		suggested.Pattern = p.withoutFingers()
	}
	r.Mends = []Mend{{"Use the suggested fingers", suggested}}
	return r, true
}

// withoutFingers leaves all fingers to the fingering.
func (p Free) withoutFingers() Pattern {
	p.Notes = append([]FreeNote{}, p.Notes...)
	for i := range p.Notes {
		p.Notes[i].Finger = 0
	}
	return p
}

// sameGrip reports whether two notes are held by the fretting hand at one place.
func sameGrip(a, b Note) bool {
	return a.Cell == b.Cell && a.Hand == FrettingHand && b.Hand == FrettingHand && a.Finger > 0 && b.Finger > 0
}

// A stretch is what a pair of fingers must span at once.
type stretch struct {
	low, high  int // fingers
	a, b, note int // frets and the later note
	mm, span   float64
}

// stretches returns the widest stretch of each finger pair, over notes of one
// grip up to three notes apart, that a hand has a reach for.
func stretches(notes []Note, g guitar.Guitar, h guitar.Hand) map[string]stretch {
	widest := map[string]stretch{}
	for i := range notes {
		for j := i - 1; j >= max(0, i-3) && notes[j+1].Attack != Slide; j-- {
			a, b := notes[j], notes[i]
			span, known := h.Span(a.Finger, b.Finger)
			if !sameGrip(a, b) || !known {
				continue
			}
			s := stretch{min(a.Finger, b.Finger), max(a.Finger, b.Finger), min(a.Fret, b.Fret), max(a.Fret, b.Fret), i, g.Reach(a.Fret, b.Fret), span}
			pair := fmt.Sprint(s.low, s.high)
			if s.mm > widest[pair].mm {
				widest[pair] = s
			}
		}
	}
	return widest
}

// reviewReach finds pairs of fingers that must span more than the hand reaches
// in comfort, and the lowest position at which they need not.
func (d Drill) reviewReach(c Chart, g guitar.Guitar, h guitar.Hand) (Remark, bool) {
	r := Remark{Check: "reach", Care: true}
	var texts []string
	widest := stretches(c.Notes, g, h)
	for low := 1; low <= 4; low++ {
		for high := low + 1; high <= 4; high++ {
			s, found := widest[fmt.Sprint(low, high)]
			if !found || s.mm <= s.span {
				continue
			}
			texts = append(texts, fmt.Sprintf("Fingers %d and %d must span %.0f mm at frets %d and %d; %.0f mm is comfortable for this hand.", low, high, s.mm, s.a, s.b, s.span))
			r.Notes = append(r.Notes, s.note)
		}
	}
	if len(texts) == 0 {
		return r, false
	}
	if fitting, ok := d.lowestInReach(g, h); ok {
		texts = append(texts, fmt.Sprintf("It fits from position %d.", fitting.Path.Position))
		r.Mends = append(r.Mends, Mend{fmt.Sprintf("Move to position %d", fitting.Path.Position), fitting})
	} else {
		texts = append(texts, "It fits nowhere on this neck; leave out the widest notes or warm up well.")
	}
	r.Text = strings.Join(texts, " ")
	return r, true
}

// lowestInReach finds the lowest position at which no stretch is too wide.
func (d Drill) lowestInReach(g guitar.Guitar, h guitar.Hand) (Drill, bool) {
	for position := 1; position <= g.TopFret(); position++ {
		moved := d
		moved.Path.Position = position
		if !moved.fits(g) {
			continue
		}
		c, err := moved.write(g, 60)
		if err == nil && inReach(stretches(c.Notes, g, h)) {
			return moved, true
		}
	}
	return d, false
}

func inReach(widest map[string]stretch) bool {
	for _, s := range widest {
		if s.mm > s.span {
			return false
		}
	}
	return true
}

// counted writes "1 note", "2 notes", "2 passes".
func counted(n int, one string) string {
	switch {
	case n == 1:
		return "1 " + one
	case strings.HasSuffix(one, "s"):
		return fmt.Sprintf("%d %ses", n, one)
	}
	return fmt.Sprintf("%d %ss", n, one)
}
