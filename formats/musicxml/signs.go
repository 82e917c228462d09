package musicxml

import (
	"strconv"

	"manudrill/core/guitar"
)

// signs are how each step of each octave sounds so far in a bar, after the signature: "F4" is
// sharp by 1.
type signs struct {
	fifths  int
	altered map[string]int
}

func signsOf(fifths int) signs { return signs{fifths, map[string]int{}} }

// accidentals are the signs by their semitones.
var accidentals = map[int]string{-2: "flat-flat", -1: "flat", 0: "natural", 1: "sharp", 2: "double-sharp"}

// before is the sign that is written before a note, nothing where it sounds as the signature
// or a sign before it in the bar has it.
func (s signs) before(p pitch) string {
	alter := p.Alter.whole()
	place := p.Step + strconv.Itoa(p.Octave)
	sounds, said := s.altered[place]
	if !said {
		sounds = guitar.SignIn(s.fifths, p.Step)
	}
	s.altered[place] = alter
	if sounds == alter {
		return ""
	}
	return accidentals[alter]
}

// beamCount is how many beams a note has, by the notes per beat.
var beamCount = map[int]int{2: 1, 3: 1, 4: 2, 6: 2, 8: 3}

// beamsOf are the beams of a note of a bar of so many: the notes of a beat hang together.
func beamsOf(perBeat, at, notes int) (beams []beam) {
	first := at - at%perBeat
	last := min(first+perBeat, notes) - 1
	if first == last {
		return nil // alone it has a flag
	}
	text := "continue"
	switch at {
	case first:
		text = "begin"
	case last:
		text = "end"
	}
	for number := range beamCount[perBeat] {
		beams = append(beams, beam{number + 1, text})
	}
	return beams
}
