package evenness

import (
	"manudrill/core/compare"
	"manudrill/core/tempo"
)

// An Analysis is all that is told of a take.
type Analysis struct {
	Tempo       Tempo        `json:"tempo"`
	Timing      Timing       `json:"timing"`
	Level       Level        `json:"level"`
	Counts      Counts       `json:"counts"`
	Notes       []Note       `json:"notes"`
	Extras      []Extra      `json:"extras"`
	Passes      []Pass       `json:"passes"`
	Transitions []Transition `json:"transitions"` // weakest first
	Weakest     *FingerPair  `json:"weakest,omitempty"`
	Foreign     bool         `json:"foreign"` // hardly a note matches: another drill
}

// Tempo is how fast the take was really played.
type Tempo struct {
	BPM            float64 `json:"bpm"`
	NotesPerSecond float64 `json:"notesPerSecond"`
	AskedBPM       float64 `json:"askedBpm"`
}

// Timing is how regular the onsets are.
type Timing struct {
	SpreadMs      float64 `json:"spreadMs"`      // standard deviation about the line of onset on beat
	SpreadPercent float64 `json:"spreadPercent"` // the same in % of the interval of two notes
	CVPercent     float64 `json:"cvPercent"`     // standard deviation of interval/expected interval
	AudibleMs     float64 `json:"audibleMs"`     // what the ear notices at this interval
}

// Level is how regular the loudness is.
type Level struct {
	MeanDB    float64 `json:"meanDb"`
	SpreadDB  float64 `json:"spreadDb"`
	AudibleDB float64 `json:"audibleDb"`
}

// Counts are numbers of notes.
type Counts struct {
	Expected int `json:"expected"`
	Played   int `json:"played"`
	Missed   int `json:"missed"`
	Wrong    int `json:"wrong"`
	Extra    int `json:"extra"`
}

// A Note is what became of one chart note. Time, deviation and levels are nil
// for a missed one.
type Note struct {
	Index         int            `json:"index"`
	Pass          int            `json:"pass"` // from 0
	Status        compare.Status `json:"status"`
	ExpectedT     float64        `json:"expectedT"` // on the line, s
	T             *float64       `json:"t,omitempty"`
	End           *float64       `json:"end,omitempty"`
	MIDI          *int           `json:"midi,omitempty"` // heard
	DeviationMs   *float64       `json:"deviationMs,omitempty"`
	LevelDB       *float64       `json:"levelDb,omitempty"`
	RelativeLevel *float64       `json:"relativeLevelDb,omitempty"` // against the take's mean
}

// An Extra is a note that the chart does not have.
type Extra struct {
	T       float64 `json:"t"`
	MIDI    int     `json:"midi"`
	LevelDB float64 `json:"levelDb"`
}

// A Pass holds the figures of one pass.
type Pass struct {
	Pass int `json:"pass"` // from 0
	tempo.PassFigures
}

// Judge works out all figures of a take.
func Judge(t compare.Take) Analysis {
	l := lineOf(t)
	levels := levelsOf(t.Matches)
	a := Analysis{
		Tempo:   tempoOf(t, l),
		Timing:  timingOf(t, l),
		Level:   Level{MeanDB: mean(levels), SpreadDB: spread(levels), AudibleDB: AudibleDB},
		Counts:  countsOf(t),
		Notes:   notesOf(t, l, mean(levels)),
		Extras:  make([]Extra, 0, len(t.Extras)),
		Passes:  passesOf(t, l),
		Foreign: t.Foreign(),
	}
	for _, e := range t.Extras {
		a.Extras = append(a.Extras, Extra{e.Onset, e.MIDI(), e.LevelDB})
	}
	a.Transitions = transitionsOf(t, l)
	if len(a.Transitions) > 0 {
		a.Weakest = &a.Transitions[0].FingerPair
	}
	return a
}

// lineOf draws the line through the notes that were played right.
func lineOf(t compare.Take) line {
	var beats, onsets []float64
	for _, m := range t.Matches {
		if m.Status == compare.Played {
			beats, onsets = append(beats, m.Chart.Beat), append(onsets, m.Heard.Onset)
		}
	}
	return fit(beats, onsets, 60/t.Chart.BPM)
}

func levelsOf(matches []compare.Match) []float64 {
	var levels []float64
	for _, m := range matches {
		if m.Status == compare.Played {
			levels = append(levels, m.Heard.LevelDB)
		}
	}
	return levels
}

func tempoOf(t compare.Take, l line) Tempo {
	bpm := 60 / l.secondsPerBeat
	return Tempo{BPM: bpm, NotesPerSecond: bpm * float64(t.Chart.NotesPerBeat) / 60, AskedBPM: t.Chart.BPM}
}

// intervalMs is the time from one note to the next at the tempo held.
func intervalMs(t compare.Take, l line) float64 {
	return 1000 * l.secondsPerBeat / float64(t.Chart.NotesPerBeat)
}

func timingOf(t compare.Take, l line) Timing {
	interval := intervalMs(t, l)
	s := spread(deviations(t.Matches, l))
	return Timing{SpreadMs: s, SpreadPercent: 100 * s / interval, CVPercent: 100 * spread(intervalRatios(t, l)), AudibleMs: AudibleMs(interval)}
}

func deviations(matches []compare.Match, l line) []float64 {
	var off []float64
	for _, m := range matches {
		if m.Status == compare.Played {
			off = append(off, l.off(m.Chart.Beat, m.Heard.Onset))
		}
	}
	return off
}

// intervalRatios returns interval/expected interval for neighbouring chart
// notes that were both played.
func intervalRatios(t compare.Take, l line) []float64 {
	var ratios []float64
	for i := 1; i < len(t.Matches); i++ {
		a, b := t.Matches[i-1], t.Matches[i]
		if a.Status == compare.Played && b.Status == compare.Played {
			asked := (b.Chart.Beat - a.Chart.Beat) * l.secondsPerBeat
			ratios = append(ratios, (b.Heard.Onset-a.Heard.Onset)/asked)
		}
	}
	return ratios
}

func countsOf(t compare.Take) Counts {
	return Counts{
		Expected: len(t.Matches), Played: t.Count(compare.Played), Missed: t.Count(compare.Missed),
		Wrong: t.Count(compare.Wrong), Extra: len(t.Extras),
	}
}

func notesOf(t compare.Take, l line, meanLevel float64) []Note {
	notes := make([]Note, len(t.Matches))
	for i, m := range t.Matches {
		n := Note{Index: m.Index, Pass: m.Index / len(t.Chart.Notes), Status: m.Status, ExpectedT: l.start + l.secondsPerBeat*m.Chart.Beat}
		if m.Status != compare.Missed {
			h := m.Heard
			midi, off, relative := h.MIDI(), l.off(m.Chart.Beat, h.Onset), h.LevelDB-meanLevel
			n.T, n.End, n.MIDI, n.DeviationMs, n.LevelDB, n.RelativeLevel = &h.Onset, &h.End, &midi, &off, &h.LevelDB, &relative
		}
		notes[i] = n
	}
	return notes
}
