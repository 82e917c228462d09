package musicxml

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"manudrill/core/drill/score"
)

// staffOf is a staff that has notes, in a part.
type staffOf struct {
	score.Line
	part, staff int
	tablature   bool
}

// staves are all of them, in order.
func (d document) staves() (all []staffOf) {
	for i, p := range d.Parts {
		counts, tablature := p.counts()
		forgetTwins(counts, tablature)
		for _, staff := range slices.Sorted(maps.Keys(counts)) {
			s := staffOf{part: i, staff: staff, tablature: tablature[staff]}
			s.Name, s.Notes = d.nameOf(i), counts[staff]
			if len(counts) > 1 {
				s.Name += fmt.Sprintf(", staff %d", staff)
			}
			if s.tablature {
				s.Name += " (tablature)"
			}
			all = append(all, s)
		}
	}
	return all
}

// forgetTwins leaves out staves that say the same as one of tablature beside them, which says
// more: as many notes.
func forgetTwins(counts map[int]int, tablature map[int]bool) {
	for tab := range tablature {
		maps.DeleteFunc(counts, func(staff, notes int) bool { return !tablature[staff] && notes == counts[tab] })
	}
}

// counts counts the notes on each staff of a part, and finds those with a TAB clef.
func (p part) counts() (notes map[int]int, tablature map[int]bool) {
	notes, tablature = map[int]int{}, map[int]bool{}
	for _, m := range p.Measures {
		for _, content := range m.Content {
			switch c := content.(type) {
			case *note:
				if c.Pitch != nil && c.Cue == nil && c.Grace == nil {
					notes[max(1, c.Staff)]++
				}
			case *attributes:
				for _, clef := range c.Clefs {
					if clef.Sign == "TAB" {
						tablature[max(1, clef.Number)] = true
					}
				}
			}
		}
	}
	return notes, tablature
}

// usual is the staff that is read unasked: the first of tablature, or else the first.
func usual(staves []staffOf) int {
	return max(0, slices.IndexFunc(staves, func(s staffOf) bool { return s.tablature }))
}

// nameOf is what a part is called.
func (d document) nameOf(at int) string {
	for _, p := range d.PartList {
		if p.ID == d.Parts[at].ID {
			return cmp.Or(strings.TrimSpace(p.Name), fmt.Sprintf("Part %d", at+1))
		}
	}
	return fmt.Sprintf("Part %d", at+1)
}
