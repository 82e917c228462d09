package guitar

import "slices"

// A Chord is a set of notes heard as one harmony.
type Chord struct {
	Root  int            `json:"root"`  // pitch class
	Name  string         `json:"name"`  // "A minor seventh"
	Roles map[int]string `json:"roles"` // pitch class to "root", "third" …
}

// harmony is a chord as intervals above its root.
type harmony struct {
	name  string
	notes []int
}

// harmonies in the order they are preferred: few notes first, so that a triad
// is not taken for a seventh chord with a gap (common practice).
var harmonies = []harmony{
	{"major", []int{0, 4, 7}},
	{"minor", []int{0, 3, 7}},
	{"diminished", []int{0, 3, 6}},
	{"augmented", []int{0, 4, 8}},
	{"suspended fourth", []int{0, 5, 7}},
	{"suspended second", []int{0, 2, 7}},
	{"dominant seventh", []int{0, 4, 7, 10}},
	{"major seventh", []int{0, 4, 7, 11}},
	{"minor seventh", []int{0, 3, 7, 10}},
	{"half-diminished seventh", []int{0, 3, 6, 10}},
	{"diminished seventh", []int{0, 3, 6, 9}},
	{"minor with major seventh", []int{0, 3, 7, 11}},
	{"major sixth", []int{0, 4, 7, 9}},
	{"major, added ninth", []int{0, 2, 4, 7}},
	{"minor, added ninth", []int{0, 2, 3, 7}},
	{"dominant ninth", []int{0, 2, 4, 7, 10}},
	{"major ninth", []int{0, 2, 4, 7, 11}},
	{"minor ninth", []int{0, 2, 3, 7, 10}},
	{"fifth", []int{0, 7}},
}

var roles = [12]string{
	"root", "flat ninth", "ninth", "minor third", "third", "fourth",
	"diminished fifth", "fifth", "augmented fifth", "sixth", "seventh", "major seventh",
}

// ChordOf names the chord of some MIDI notes; the lowest note is preferred as
// the root. It reports false where they form none it knows.
func ChordOf(notes []int) (Chord, bool) {
	if len(notes) == 0 {
		return Chord{}, false
	}
	classes := map[int]bool{}
	for _, n := range notes {
		classes[n%12] = true
	}
	bass := slices.Min(notes) % 12
	for up := range 12 {
		root := (bass + up) % 12
		for _, h := range harmonies {
			if len(h.notes) == len(classes) && h.within(root, classes) {
				return h.on(root), true
			}
		}
	}
	return Chord{}, false
}

func (h harmony) within(root int, classes map[int]bool) bool {
	for _, n := range h.notes {
		if !classes[(root+n)%12] {
			return false
		}
	}
	return true
}

func (h harmony) on(root int) Chord {
	c := Chord{Root: root, Name: PitchClassName(root) + " " + h.name, Roles: map[int]string{}}
	for _, n := range h.notes {
		c.Roles[(root+n)%12] = roles[n]
	}
	return c
}
