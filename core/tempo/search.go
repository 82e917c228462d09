package tempo

import (
	"fmt"
	"math"
	"slices"
)

// A Search finds the tempo at which somebody plays a drill clean by short takes, each at a
// tempo of its own: large steps up while they are clean, then small ones, two clean takes
// up and one that is not down, which settles where 70.7 % are clean (the transformed
// up-down rule of Levitt, J. Acoust. Soc. Am. 49, 1971). The zero value has not begun; make
// one with [SearchFrom].
type Search struct {
	BPM     float64   `json:"bpm"`     // of the take that is played next
	Fine    bool      `json:"fine"`    // by small steps
	Row     int       `json:"row"`     // clean takes in a row at it
	Way     int       `json:"way"`     // the last step: +1 up, −1 down, 0 none yet
	Turns   []float64 `json:"turns"`   // tempi at which small steps have turned round
	Clean   []float64 `json:"clean"`   // tempi of takes that were clean
	Unclean []float64 `json:"unclean"` // and that were not
	Silent  int       `json:"silent"`  // takes in a row in which nothing was heard
	Seconds float64   `json:"seconds"` // gone by
}

const (
	// largeStep and smallStep are by how much a tempo is raised, or lowered, at once: large
	// ones cross the range of a metronome in some fifteen takes, a small one is about what a
	// player notices.
	largeStep, smallStep = 1.2, 1.06
	// enoughTurns are as many as the search settles on.
	enoughTurns = 4
	// SearchSeconds is how long a search may take: three minutes are what somebody has for it.
	SearchSeconds = 180
	// silentTakes is after how many takes of nothing a search gives up.
	silentTakes = 2
)

// SearchFrom begins a search at a tempo that the player surely manages, or nearly.
func SearchFrom(bpm float64) Search {
	return Search{BPM: Nearest(bpm), Turns: []float64{}, Clean: []float64{}, Unclean: []float64{}}
}

// After is the search once a take was played, which was clean or not, and lasted so many
// seconds with all that belongs to it.
func (s Search) After(clean bool, seconds float64) Search {
	s.Seconds += seconds
	s.Silent = 0
	if clean {
		s.Clean = append(slices.Clip(s.Clean), s.BPM)
		if s.Row++; s.Fine && s.Row < 2 {
			return s
		}
		return s.step(+1)
	}
	s.Unclean = append(slices.Clip(s.Unclean), s.BPM)
	return s.step(-1)
}

// Unheard is the search once a take was played in which nothing was heard: it is played
// again.
func (s Search) Unheard(seconds float64) Search {
	s.Seconds += seconds
	s.Silent++
	return s
}

// step goes up or down. Large steps end where they would turn round.
func (s Search) step(way int) Search {
	turned := s.Way != 0 && way != s.Way
	if turned && s.Fine {
		s.Turns = append(slices.Clip(s.Turns), s.BPM)
	}
	by := largeStep
	if s.Fine || turned {
		by = smallStep
	}
	s.Fine = s.Fine || turned
	s.Way, s.Row = way, 0
	next := s.BPM * math.Pow(by, float64(way))
	if way > 0 {
		s.BPM = Nearest(max(s.BPM+1, next))
	} else {
		s.BPM = Nearest(min(s.BPM-1, next))
	}
	return s
}

// Over reports whether the search has come to its end, if the next take lasts so many
// seconds.
func (s Search) Over(next float64) bool {
	return len(s.Turns) >= enoughTurns || s.Silent >= silentTakes || s.Seconds+next > SearchSeconds || s.stuck()
}

// stuck reports whether the search has come to the end of the metronome.
func (s Search) stuck() bool {
	fastest := s.BPM >= MaxBPM && count(s.Clean, MaxBPM) >= 2
	slowest := s.BPM <= MinBPM && count(s.Unclean, MinBPM) >= 2
	return fastest || slowest
}

func count(of []float64, bpm float64) (n int) {
	for _, v := range of {
		if v == bpm {
			n++
		}
	}
	return n
}

// Found is what a search has come to.
type Found struct {
	BPM   float64 `json:"bpm"` // at which about 7 takes of 10 are clean
	Low   float64 `json:"low"` // its range
	High  float64 `json:"high"`
	Takes int     `json:"takes"`
	Start Rung    `json:"start"` // the rung to start from: the highest that is not above the range
	Text  string  `json:"text"`
}

// Found tells what the search has come to on a ladder with so many notes a beat, and
// reports false where that is not known.
func (s Search) Found(l Ladder, notesPerBeat int) (Found, bool) {
	f := Found{Takes: len(s.Clean) + len(s.Unclean)}
	switch {
	case len(s.Turns) >= 2:
		even := s.Turns[len(s.Turns)%2:] // as many tops as bottoms
		f.BPM, f.Low, f.High = geometricMean(even), slices.Min(even), slices.Max(even)
	case len(s.Clean) > 0 && len(s.Unclean) > 0:
		f.Low, f.High = slices.Max(s.Clean), slices.Min(s.Unclean)
		if f.Low > f.High {
			f.Low, f.High = f.High, f.Low
		}
		f.BPM = math.Sqrt(f.Low * f.High)
	default:
		return s.notFound(f)
	}
	f.BPM = math.Round(f.BPM)
	f.Low, f.High = min(f.Low, math.Round(f.BPM/smallStep)), max(f.High, math.Round(f.BPM*smallStep))
	rungs := l.Rungs(notesPerBeat)
	if len(rungs) == 0 {
		return f, false
	}
	f.Start = rungs.AtMost(Rung{f.Low, notesPerBeat})
	f.Text = f.Say()
	return f, true
}

// Say tells what was found in a sentence.
func (f Found) Say() string {
	return fmt.Sprintf("Clean at about %g bpm (%g to %g), by %d short takes.", f.BPM, f.Low, f.High, f.Takes)
}

// notFound says why nothing was found.
func (s Search) notFound(f Found) (Found, bool) {
	switch {
	case s.Silent >= silentTakes:
		f.Text = "Nothing of the drill was heard. Is the right input chosen?"
	case len(s.Unclean) > 0:
		f.Text = fmt.Sprintf("No take was clean, down to %g bpm. Show it to your instructor.", slices.Min(s.Unclean))
	case len(s.Clean) > 0:
		f.Text = fmt.Sprintf("Every take was clean, up to %g bpm: where it ends was not found.", slices.Max(s.Clean))
	default:
		f.Text = "Nothing was played."
	}
	return f, false
}

func geometricMean(of []float64) float64 {
	sum := 0.0
	for _, v := range of {
		sum += math.Log(v)
	}
	return math.Exp(sum / float64(len(of)))
}
