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
// by the major or minor scale they lie in. Without a key, sharps are written.
func NewSpeller(k *Key) Speller {
	if k == nil || k.Validate() != nil || len(k.steps()) > 7 {
		return Speller{withSharps}
	}
	scale := k.steps()
	if len(scale) < 7 {
		scale = parentOf(scale)
	}
	best, fewest := withSharps, 1000
	for _, root := range []letter{withSharps[k.Root], withFlats[k.Root]} {
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
