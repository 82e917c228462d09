package drill

// Damping says, for a stretch of notes on one string, which strings are to be
// kept silent and with what (common practice).
type Damping struct {
	From    int    `json:"from"` // note of the chart
	To      int    `json:"to"`   // the last one
	String  int    `json:"string"`
	Thicker []int  `json:"thicker"` // by the palm of the picking hand
	Thinner []int  `json:"thinner"`
	With    Damper `json:"with"` // what keeps the thinner ones silent
}

// Damper is what damps the thinner strings.
type Damper string

// The underside of the first finger; where the open string belongs to the cell,
// the second or third finger; in tapping, a damper behind the nut, for both
// hands are busy.
const (
	FirstFinger Damper = "firstFinger"
	OtherFinger Damper = "otherFinger"
	StringDamp  Damper = "damper"
)

// DampingOf works out which strings to damp through a chart.
func DampingOf(c Chart) []Damping {
	with := dampers(c.Notes)
	var out []Damping
	for i, n := range c.Notes {
		last := len(out) - 1
		if last >= 0 && out[last].String == n.String && out[last].With == with[n.Cell] {
			out[last].To = i
			continue
		}
		d := Damping{From: i, To: i, String: n.String, Thicker: []int{}, Thinner: []int{}, With: with[n.Cell]}
		for s := range len(c.Tuning) {
			switch {
			case s+1 > n.String:
				d.Thicker = append(d.Thicker, s+1)
			case s+1 < n.String:
				d.Thinner = append(d.Thinner, s+1)
			}
		}
		out = append(out, d)
	}
	return out
}

// dampers says for each place of the cell what damps the thinner strings.
func dampers(notes []Note) map[int]Damper {
	with := map[int]Damper{}
	for _, n := range notes {
		switch {
		case n.Hand == TappingHand:
			with[n.Cell] = StringDamp
		case n.Fret == 0 && with[n.Cell] != StringDamp:
			with[n.Cell] = OtherFinger
		case with[n.Cell] == "":
			with[n.Cell] = FirstFinger
		}
	}
	return with
}
