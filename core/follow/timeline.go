package follow

import "slices"

// A Timeline finds the matches about a time.
type Timeline struct {
	match []int     // those that were heard
	at    []float64 // when, s
}

// Timeline is that of the matches that were heard.
func (t Take) Timeline() (l Timeline) {
	for i, m := range t.Matches {
		if m.Status != Missed {
			l.match, l.at = append(l.match, i), append(l.at, m.Heard.Onset)
		}
	}
	return l
}

// Around returns the indices of the last match that was heard by a time, in seconds, and of
// the next one; −1 for none.
func (l Timeline) Around(at float64) (before, after int) {
	before, after = -1, -1
	i, found := slices.BinarySearch(l.at, at)
	if found {
		i++
	}
	if i > 0 {
		before = l.match[i-1]
	}
	if i < len(l.at) {
		after = l.match[i]
	}
	return before, after
}
