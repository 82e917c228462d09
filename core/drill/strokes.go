package drill

import (
	"slices"

	"manudrill/core/drill/chart"
)

// A StrokeRule says how strokes follow each other.
type StrokeRule string

// Strict alternation; economy, which goes on in the direction of a string
// change; all down; index and middle finger in turn; or the hand keeps time, so
// that slurred notes take up the silent stroke.
const (
	Alternate StrokeRule = "alternate"
	Economy   StrokeRule = "economy"
	AllDown   StrokeRule = "down"
	ByFingers StrokeRule = "fingers"
	KeepTime  StrokeRule = "keepTime"
)

// StrokeRules are all of them.
var StrokeRules = []StrokeRule{Alternate, Economy, AllDown, ByFingers, KeepTime}

// Strokes is the rule of a drill.
type Strokes struct {
	Rule   StrokeRule `json:"rule"`
	FromUp bool       `json:"fromUp"` // the first stroke is an upstroke, or the middle finger's
}

func (s Strokes) check(faults *Faults) {
	if !slices.Contains(StrokeRules, s.Rule) {
		faults.Add("strokes", "The strokes are %q; choose alternate, economy, down, fingers or keepTime.", s.Rule)
	}
}

// assign gives every picked note its stroke.
func (s Strokes) assign(notes []chart.Note) {
	pair := [2]chart.Stroke{chart.DownStroke, chart.UpStroke}
	if s.Rule == ByFingers {
		pair = [2]chart.Stroke{chart.Index, chart.Middle}
	}
	if s.FromUp {
		pair[0], pair[1] = pair[1], pair[0]
	}
	next, last := 0, -1
	for i := range notes {
		if notes[i].Attack != chart.Pick {
			continue
		}
		switch {
		case s.Rule == AllDown:
			notes[i].Stroke = chart.DownStroke
			continue
		case s.Rule == KeepTime:
			next = i % 2
		case s.Rule == Economy && last >= 0 && notes[i].String != notes[last].String:
			next = towards(pair, notes[i].String < notes[last].String)
		}
		notes[i].Stroke = pair[next]
		next, last = 1-next, i
	}
}

// towards is the stroke that moves on to a thinner string, downwards, or to a
// thicker one.
func towards(pair [2]chart.Stroke, thinner bool) int {
	if (pair[0] == chart.DownStroke) == thinner {
		return 0
	}
	return 1
}
