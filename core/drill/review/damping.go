package review

import (
	"slices"

	"manudrill/core/drill/chart"
)

// Damping says, for a stretch of notes on one string, which strings are to be kept silent
// and with what (common practice). Strings that the hand holds down to ring are not among
// them.
type Damping struct {
	From        int    `json:"from"` // note of the chart
	To          int    `json:"to"`   // the last one
	String      int    `json:"string"`
	Thicker     []int  `json:"thicker"`
	ThickerWith Damper `json:"thickerWith"` // what keeps the thicker ones silent
	Thinner     []int  `json:"thinner"`
	With        Damper `json:"with"` // what keeps the thinner ones silent
}

// Damper is what damps strings.
type Damper string

// The palm of the picking hand, for thicker strings. For thinner ones the underside of the
// first finger; where the open string belongs to the cell, the second or third finger. In
// tapping, a damper behind the nut for all, for both hands are busy.
const (
	Palm        Damper = "palm"
	FirstFinger Damper = "firstFinger"
	OtherFinger Damper = "otherFinger"
	StringDamp  Damper = "damper"
)

// DampingOf works out which strings to damp through a chart.
func DampingOf(c chart.Chart) []Damping {
	with, held := dampers(c.Notes), heldStrings(c.Notes)
	var out []Damping
	for i, n := range c.Notes {
		d := Damping{From: i, To: i, String: n.String, Thicker: []int{}, ThickerWith: Palm, Thinner: []int{}, With: with[n.Cell]}
		if d.With == StringDamp {
			d.ThickerWith = StringDamp
		}
		for s := range len(c.Tuning) {
			switch {
			case held[n.Cell][s+1]:
			case s+1 > n.String:
				d.Thicker = append(d.Thicker, s+1)
			case s+1 < n.String:
				d.Thinner = append(d.Thinner, s+1)
			}
		}
		if last := len(out) - 1; last >= 0 && out[last].says(d) {
			out[last].To = i
			continue
		}
		out = append(out, d)
	}
	return out
}

// says reports whether two say the same of different notes.
func (d Damping) says(o Damping) bool {
	return d.String == o.String && d.With == o.With && slices.Equal(d.Thicker, o.Thicker) && slices.Equal(d.Thinner, o.Thinner)
}

// heldStrings are, for each place of the cell, the strings on which a finger stays down to
// ring while others sound.
func heldStrings(notes []chart.Note) map[int]map[int]bool {
	held := map[int]map[int]bool{}
	for i, n := range notes {
		if !n.Keep || i+1 < len(notes) && notes[i+1].String == n.String {
			continue // or it stays under the next note of its own string
		}
		if held[n.Cell] == nil {
			held[n.Cell] = map[int]bool{}
		}
		held[n.Cell][n.String] = true
	}
	return held
}

// dampers says for each place of the cell what damps the thinner strings.
func dampers(notes []chart.Note) map[int]Damper {
	with := map[int]Damper{}
	for _, n := range notes {
		switch {
		case n.Hand == chart.TappingHand:
			with[n.Cell] = StringDamp
		case n.Fret == 0 && with[n.Cell] != StringDamp:
			with[n.Cell] = OtherFinger
		case with[n.Cell] == "":
			with[n.Cell] = FirstFinger
		}
	}
	return with
}
