package guitar

import (
	"slices"
	"strconv"
	"strings"
)

// A Spelling is a note as it is written in staff notation, sounding octave:
// F♯4 is step F, alter 1, octave 4.
type Spelling struct {
	Step   string // C to B
	Alter  int    // semitones: 1 sharp, −1 flat
	Octave int    // C4 is MIDI note 60
}

// String writes the spelling with # and b: "F#4", "Bb3".
func (s Spelling) String() string {
	text := s.Step
	for range s.Alter {
		text += "#"
	}
	for range -s.Alter {
		text += "b"
	}
	return text + strconv.Itoa(s.Octave)
}

// MIDI returns the note number of a spelling.
func (s Spelling) MIDI() int {
	return 12*(s.Octave+1) + naturals[max(0, slices.Index(steps[:], s.Step))] + s.Alter
}

// ReadSpelling reads what String writes; it reports false for anything else.
func ReadSpelling(text string) (Spelling, bool) {
	if text == "" || !slices.Contains(steps[:], text[:1]) {
		return Spelling{}, false
	}
	s := Spelling{Step: text[:1]}
	rest := strings.TrimLeft(text[1:], "#b")
	for _, sign := range text[1 : len(text)-len(rest)] {
		s.Alter += map[rune]int{'#': 1, 'b': -1}[sign]
	}
	octave, err := strconv.Atoi(rest)
	s.Octave = octave
	return s, err == nil
}

// A Speller writes notes the way a key does.
type Speller struct{ classes [12]letter }

// A letter is a step of the staff, 0 being C, with its alteration.
type letter struct{ step, alter int }

// name is a letter of a pitch class as it is read: "C♯", "D♭".
func (l letter) name() string {
	return steps[l.step] + map[int]string{-1: "♭", 1: "♯"}[l.alter]
}

var (
	naturals    = [7]int{0, 2, 4, 5, 7, 9, 11} // pitch classes of C to B
	steps       = [7]string{"C", "D", "E", "F", "G", "A", "B"}
	withSharps  = [12]letter{{0, 0}, {0, 1}, {1, 0}, {1, 1}, {2, 0}, {3, 0}, {3, 1}, {4, 0}, {4, 1}, {5, 0}, {5, 1}, {6, 0}}
	withFlats   = [12]letter{{0, 0}, {1, -1}, {1, 0}, {2, -1}, {2, 0}, {3, 0}, {4, -1}, {4, 0}, {5, -1}, {5, 0}, {6, -1}, {6, 0}}
	parentMajor = []int{0, 2, 4, 5, 7, 9, 11}
	parentMinor = []int{0, 2, 3, 5, 7, 8, 10}
)

// NewSpeller returns the speller of a key: each degree of a seven-note scale has
// a letter of its own (common practice); smaller scales and chords are spelled
// by the major or minor scale they lie in. Of sharps and flats it takes what the key says,
// or what has fewer. Without a key, sharps are written.
func NewSpeller(k *Key) Speller {
	if k == nil || k.Validate() != nil || len(k.steps()) > 7 {
		return Speller{withSharps}
	}
	scale := k.steps()
	if len(scale) < 7 {
		scale = parentOf(scale)
	}
	roots := []letter{withSharps[k.Root], withFlats[k.Root]}
	switch k.Spelled {
	case WithSharps:
		roots = roots[:1]
	case WithFlats:
		roots = roots[1:]
	}
	best, fewest := withSharps, 1000
	for _, root := range roots {
		classes, accidentals := spelledFrom(root, k.Root, scale)
		if accidentals < fewest {
			best, fewest = classes, accidentals
		}
	}
	return Speller{best}
}

// parentOf is the seven-note scale a smaller one is spelled by.
func parentOf(scale []int) []int {
	minor, major := false, false
	for _, s := range scale {
		minor, major = minor || s == 3, major || s == 4
	}
	if minor && !major {
		return parentMinor
	}
	return parentMajor
}

// Fifths is the signature a key is written with: so many sharps, or flats where negative.
// A scale of seven notes that are those of a signature has that one, whichever mode it is;
// any other that of the major or minor scale it lies in (common practice).
func (k Key) Fifths() int {
	steps := k.steps()
	if k.Validate() != nil || len(steps) > 7 {
		return 0
	}
	home := 0 // semitones above the root at which the major scale of the signature begins
	for up := range 12 {
		if len(steps) == 7 && slices.Equal(modeFrom(up), steps) {
			return signature(k.Root+up, k.Spelled)
		}
	}
	if slices.Equal(parentOf(steps), parentMinor) {
		home = 3
	}
	return signature(k.Root+home, k.Spelled)
}

// modeFrom are the semitones of a major scale that begins so many above, from the lowest.
func modeFrom(up int) (steps []int) {
	for _, s := range parentMajor {
		steps = append(steps, (s+up)%12)
	}
	slices.Sort(steps)
	return steps
}

// signature is that of a major scale on a pitch class: the one with fewer signs, of six
// sharps and six flats what is said, and sharps where nothing is.
func signature(class int, spelled string) int {
	fifths := class * 7 % 12
	if fifths > 6 || fifths == 6 && spelled == WithFlats {
		fifths -= 12
	}
	if fifths == -5 && spelled == WithSharps {
		return 7
	}
	return fifths
}

// Steps in the order in which sharps and flats are added to a signature.
const (
	sharpsInOrder = "FCGDAEB"
	flatsInOrder  = "BEADGCF"
)

// SignIn is by how many semitones a signature of so many sharps, flats where negative, alters
// a step, "C" to "B".
func SignIn(fifths int, step string) int {
	order, alter := sharpsInOrder, 1
	if fifths < 0 {
		order, alter, fifths = flatsInOrder, -1, -fifths
	}
	if strings.Contains(order[:min(fifths, len(order))], step) {
		return alter
	}
	return 0
}

// spelledFrom gives each degree the next letter, from the root's on, and counts
// the accidentals; notes outside the scale follow its sharps or flats.
func spelledFrom(root letter, class int, scale []int) (classes [12]letter, accidentals int) {
	sum := 0
	var own [12]bool
	for degree, semitones := range scale {
		step := (root.step + degree) % 7
		pitch := (class + semitones) % 12
		alter := (pitch-naturals[step]+18)%12 - 6
		classes[pitch], own[pitch] = letter{step, alter}, true
		sum, accidentals = sum+alter, accidentals+max(alter, -alter)
	}
	others := withSharps
	if sum < 0 {
		others = withFlats
	}
	for pitch := range classes {
		if !own[pitch] {
			classes[pitch] = others[pitch]
		}
	}
	return classes, accidentals
}

// Spell writes a MIDI note.
func (s Speller) Spell(midi int) Spelling {
	l := s.classes[midi%12]
	return Spelling{Step: steps[l.step], Alter: l.alter, Octave: (midi-l.alter)/12 - 1}
}
