package evenness

import (
	"manudrill/core/follow"
	"manudrill/core/stats"
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
	Transitions []Transition `json:"transitions"`       // on one string, weakest first
	Across      []Transition `json:"across,omitempty"`  // over strings, weakest first
	Weakest     *FingerPair  `json:"weakest,omitempty"` // of those that surely come late or vary, so that it is heard
	Foreign     bool         `json:"foreign"`           // hardly a note matches: another drill
	Pulse       Pulse        `json:"pulse"`
	Slurs       Slurs        `json:"slurs"`
	Connection  Connection   `json:"connection"`
	Groups      []Group      `json:"groups"`
	Endurance   *Endurance   `json:"endurance,omitempty"`
	Course      Course       `json:"course"`
	Parts       []Part       `json:"parts,omitempty"`  // of a drill that has several
	Denied      []string     `json:"denied,omitempty"` // what findings are about that were not so: see [Correction]
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
	PlusMinusMs   float64 `json:"plusMinusMs"`   // half of the spread's 95 % confidence interval; 0 for too few notes
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

// RightShare is the share of notes that were right of those asked for and those
// that came besides, 0 to 1.
func (c Counts) RightShare() float64 { return float64(c.Played) / float64(max(1, c.Expected+c.Extra)) }

// A Note is what became of one chart note. Time, deviation and levels are nil
// for a missed one.
type Note struct {
	Index         int           `json:"index"`
	Pass          int           `json:"pass"` // from 0
	Status        follow.Status `json:"status"`
	ExpectedT     float64       `json:"expectedT"` // on the line, s
	T             *float64      `json:"t,omitempty"`
	End           *float64      `json:"end,omitempty"`
	MIDI          *int          `json:"midi,omitempty"` // heard
	DeviationMs   *float64      `json:"deviationMs,omitempty"`
	LevelDB       *float64      `json:"levelDb,omitempty"`
	RelativeLevel *float64      `json:"relativeLevelDb,omitempty"` // against the take's mean
	GapMs         *float64      `json:"gapMs,omitempty"`           // silence before the next note, where there is an audible one
	RingsDB       *float64      `json:"ringsDb,omitempty"`         // the string before still rings, this loud against what it was
	BendCents     *float64      `json:"bendCents,omitempty"`       // the string is dragged sideways before the pull-off that follows
	Uneven        bool          `json:"uneven,omitempty"`          // it is heard as early or late
	Stands        bool          `json:"stands,omitempty"`          // it is heard as loud or soft
}

// A Pass holds the figures of one pass.
type Pass struct {
	Pass int `json:"pass"` // from 0
	tempo.PassFigures
}

// Judge works out all figures of a take.
func Judge(t follow.Take) Analysis {
	l := lineOf(t)
	t.Events = l.timed(t)
	steps := stepsOf(t, l)
	levels := levelsOf(t.Matches)
	a := Analysis{
		Tempo:      tempoOf(t, l),
		Timing:     timingOf(t, l, steps),
		Level:      Level{MeanDB: stats.Mean(levels), SpreadDB: stats.PopStdDev(levels), AudibleDB: AudibleDB},
		Counts:     countsOf(t),
		Notes:      notesOf(t, l, stats.Mean(levels)),
		Extras:     extrasOf(t),
		Passes:     passesOf(t, l, steps),
		Foreign:    t.Foreign(),
		Pulse:      pulseOf(t, l, steps),
		Slurs:      slursOf(t, steps),
		Connection: connectionOf(steps),
		Groups:     groupsOf(t, steps, stats.Mean(levels)),
		Endurance:  enduranceOf(t, l),
		Course:     courseOf(t, l),
		Parts:      partsOf(t),
	}
	a.Transitions, a.Across = transitionsOf(steps, a.Timing.AudibleMs)
	tellSteps(a.Notes, steps)
	a.MarkAudible()
	return a
}

func levelsOf(matches []follow.Match) []float64 {
	var levels []float64
	for _, m := range matches {
		if m.Status == follow.Played {
			levels = append(levels, m.Heard.LevelDB)
		}
	}
	return levels
}

func tempoOf(t follow.Take, l line) Tempo {
	bpm := 60 / l.secondsPerBeat
	return Tempo{BPM: bpm, NotesPerSecond: bpm * float64(t.Chart.NotesPerBeat) / 60, AskedBPM: t.Chart.BPM}
}

// intervalMs is the time from one note to the next at the tempo held.
func intervalMs(t follow.Take, l line) float64 {
	return 1000 * l.secondsPerBeat / float64(t.Chart.NotesPerBeat)
}

func timingOf(t follow.Take, l line, steps []step) Timing {
	interval := intervalMs(t, l)
	off := deviations(t.Matches, l)
	s := stats.PopStdDev(off)
	ratios := values(steps, func(s step) (float64, bool) { return s.ratio, true })
	timing := Timing{
		SpreadMs: s, SpreadPercent: 100 * s / interval, CVPercent: 100 * stats.PopStdDev(ratios),
		AudibleMs: AudibleMs(interval),
	}
	if f := spreadOf(off); f != nil {
		timing.PlusMinusMs = f.PlusMinus
	}
	return timing
}

func deviations(matches []follow.Match, l line) []float64 {
	var off []float64
	for _, m := range matches {
		if m.Status == follow.Played {
			off = append(off, l.off(m.Chart.Beat, m.Heard.Onset))
		}
	}
	return off
}

func countsOf(t follow.Take) Counts {
	return Counts{
		Expected: len(t.Matches), Played: t.Count(follow.Played), Missed: t.Count(follow.Missed),
		Wrong: t.Count(follow.Wrong), Extra: len(t.Extras),
	}
}

func notesOf(t follow.Take, l line, meanLevel float64) []Note {
	notes := make([]Note, len(t.Matches))
	for i, m := range t.Matches {
		n := Note{Index: m.Index, Pass: m.Index / len(t.Chart.Notes), Status: m.Status, ExpectedT: l.at(m.Chart.Beat)}
		if m.Status != follow.Missed {
			h := m.Heard
			midi, off, relative := t.MIDI(h), l.off(m.Chart.Beat, h.Onset), h.LevelDB-meanLevel
			n.T, n.End, n.MIDI, n.DeviationMs, n.LevelDB, n.RelativeLevel = &h.Onset, &h.End, &midi, &off, &h.LevelDB, &relative
		}
		notes[i] = n
	}
	return notes
}

// tellSteps notes at each note how it joins its neighbours, where that is heard.
func tellSteps(notes []Note, steps []step) {
	for _, s := range steps {
		from, to := &notes[s.from.Index], &notes[s.to.Index]
		if s.gaps() {
			gap := 1000 * (s.to.Heard.Onset - s.from.Heard.End)
			from.GapMs = &gap
		}
		if rings, known := s.rings(); rings && known {
			to.RingsDB = &s.to.Heard.Carry.DB
		}
		if s.pulls() && s.from.Heard.Bend > bentCents {
			from.BendCents = &s.from.Heard.Bend
		}
	}
}
