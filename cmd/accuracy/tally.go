package main

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/stat"

	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
)

// A tally counts what was heard right over some takes.
type tally struct {
	takes, notes, right int // chart notes, and those whose status is right

	onsetsFound, onsetsTrue, onsetsHit int // within mirexWindow
	mistakesFound, mistakesTrue        int
	mistakesHit                        int

	offMs   []float64 // onsets of chart notes against the truth
	levelDB []float64 // errors of levels

	weakTrue, weakHit int
	wrongs            []string // what was told wrong, for reading
}

// mirexWindow is how far from a true onset a found one may lie and be it, in seconds:
// the window of MIREX's onset task, as mir_eval.onset has it by default (Raffel and
// others, "mir_eval", ISMIR 2014).
const mirexWindow = 0.05

// extraWindow is how far from a true extra note a told one may lie, in seconds.
const extraWindow = 0.05

// worstWanted is how far off a note may be told before it is told of, in seconds.
const worstWanted = 0.008

// A verdict is what was heard of a take, and what it was judged to be.
type verdict struct {
	heard    []listen.Note
	analysis evenness.Analysis
}

// hear listens to a take and judges it.
func (t *take) hear() verdict {
	l := listen.New(t.rate)
	heard := append(l.Write(t.samples), l.Close()...)
	return verdict{heard, evenness.Judge(follow.Follow(t.chart, heard, l.Ticks()...))}
}

// A mistake is a chart note that was not played or played wrong.
type mistake struct {
	status follow.Status
	index  int
}

// add counts a take and what was heard of it.
func (s *tally) add(t *take, v verdict) {
	s.takes++
	var found, true_ []float64
	for _, n := range listen.Loud(v.heard) {
		if n.Onset > t.played[0].t-0.3 { // a count-in may be heard before
			found = append(found, n.Onset)
		}
	}
	for _, p := range t.played {
		true_ = append(true_, p.t)
	}
	s.onsetsFound, s.onsetsTrue = s.onsetsFound+len(found), s.onsetsTrue+len(true_)
	s.onsetsHit += matched(found, true_, mirexWindow)
	s.statuses(t, v.analysis)
	s.weakest(t, v.analysis)
}

// statuses counts what was told of each chart note, and of notes besides.
func (s *tally) statuses(t *take, a evenness.Analysis) {
	truth := map[int]played{}
	var extras []float64
	for _, p := range t.played {
		if p.index < 0 {
			extras = append(extras, p.t)
		} else {
			truth[p.index] = p
		}
	}
	made := map[mistake]bool{}
	var off, level []float64
	var timed []int
	for i, n := range a.Notes {
		p, sounded := truth[i]
		want := follow.Played
		switch {
		case !sounded:
			want = follow.Missed
		case p.midi != t.chart.Notes[i].MIDI:
			want = follow.Wrong
		}
		s.notes++
		if n.Status == want {
			s.right++
		} else {
			s.wrong(t, cmp.Or(p.t, n.ExpectedT), "note %d, %s %s, is %s, told %s", i, t.chart.Notes[i].Attack, p.how, want, n.Status)
		}
		if want != follow.Played {
			made[mistake{want, i}] = true
			s.mistakesTrue++
		}
		if n.Status != follow.Played {
			s.mistakesFound++
			if made[mistake{n.Status, i}] {
				s.mistakesHit++
			}
		}
		if sounded && n.T != nil {
			off, level, timed = append(off, *n.T-p.t), append(level, *n.LevelDB-p.levelDB), append(timed, i)
		}
	}
	byAll := median(off)
	for k, i := range timed {
		if late := off[k] - byAll; math.Abs(late) > worstWanted {
			s.wrong(t, truth[i].t, "note %d, %s %s, is told %+.0f ms late", i, t.chart.Notes[i].Attack, truth[i].how, 1000*late)
		}
	}
	var told []float64
	for _, e := range a.Extras {
		told = append(told, e.T-byAll)
		if matched([]float64{e.T - byAll}, extras, extraWindow) == 0 {
			s.wrong(t, e.T, "an extra note is told, %d, %.0f dB", e.MIDI, e.LevelDB-a.Level.MeanDB)
		}
	}
	s.mistakesTrue, s.mistakesFound = s.mistakesTrue+len(extras), s.mistakesFound+len(told)
	s.mistakesHit += matched(told, extras, extraWindow)
	s.offMs = append(s.offMs, scaled(off, byAll, 1000)...)
	s.levelDB = append(s.levelDB, scaled(level, median(level), 1)...)
}

// truth is what would be told of the notes as they were really played.
func (t *take) truth() evenness.Analysis {
	var notes []listen.Note
	for _, p := range t.played {
		notes = append(notes, listen.Note{Onset: p.t, End: p.t + 0.1, Pitch: float64(p.midi), LevelDB: p.levelDB})
	}
	return evenness.Judge(follow.Follow(t.chart, notes))
}

// weakest counts whether the weakest transition was told, where there surely is one: judged on
// the notes as they were really played.
func (s *tally) weakest(t *take, a evenness.Analysis) {
	truth := t.truth().Weakest
	if truth == nil {
		return
	}
	s.weakTrue++
	if a.Weakest != nil && *a.Weakest == *truth {
		s.weakHit++
	} else {
		s.wrong(t, 0, "the weakest transition is %v, told %v", truth, a.Weakest)
	}
}

// matched is how many of the times found can be paired with true ones no further
// apart than a window, each used once: with one window for all, taking them in order
// pairs as many as can be.
func matched(found, true_ []float64, window float64) int {
	found, true_ = slices.Sorted(slices.Values(found)), slices.Sorted(slices.Values(true_))
	n, k := 0, 0
	for _, t := range true_ {
		for k < len(found) && found[k] < t-window {
			k++
		}
		if k < len(found) && found[k] <= t+window {
			n, k = n+1, k+1
		}
	}
	return n
}

// f is the harmonic mean of precision and recall; 1 where there was nothing to find
// and nothing was found.
func f(hit, found, truth int) float64 {
	if found+truth == 0 {
		return 1
	}
	return 2 * float64(hit) / float64(found+truth)
}

func (s *tally) onsetF() float64    { return f(s.onsetsHit, s.onsetsFound, s.onsetsTrue) }
func (s *tally) mistakesF() float64 { return f(s.mistakesHit, s.mistakesFound, s.mistakesTrue) }

// falseMistakes is how many mistakes were told that were not made, in 1,000 notes.
func (s *tally) falseMistakes() float64 {
	return 1000 * float64(s.mistakesFound-s.mistakesHit) / float64(max(1, s.notes))
}

func (s *tally) rightShare() float64 { return float64(s.right) / float64(max(1, s.notes)) }

func (s *tally) timingSD() float64 { return stat.PopStdDev(append(s.offMs, 0), nil) }

func (s *tally) worstMs() float64 { return worst(s.offMs) }

func (s *tally) levelError() float64 {
	sum := 0.0
	for _, v := range s.levelDB {
		sum += math.Abs(v)
	}
	return sum / float64(max(1, len(s.levelDB)))
}

// merge counts another tally's takes in.
func (s *tally) merge(o *tally) {
	s.takes, s.notes, s.right = s.takes+o.takes, s.notes+o.notes, s.right+o.right
	s.onsetsFound, s.onsetsTrue, s.onsetsHit = s.onsetsFound+o.onsetsFound, s.onsetsTrue+o.onsetsTrue, s.onsetsHit+o.onsetsHit
	s.mistakesFound, s.mistakesTrue, s.mistakesHit = s.mistakesFound+o.mistakesFound, s.mistakesTrue+o.mistakesTrue, s.mistakesHit+o.mistakesHit
	s.weakTrue, s.weakHit = s.weakTrue+o.weakTrue, s.weakHit+o.weakHit
	s.offMs, s.levelDB = append(s.offMs, o.offMs...), append(s.levelDB, o.levelDB...)
	s.wrongs = append(s.wrongs, o.wrongs...)
}

func worst(x []float64) float64 {
	most := 0.0
	for _, v := range x {
		most = max(most, math.Abs(v))
	}
	return most
}

func scaled(x []float64, less, by float64) []float64 {
	out := make([]float64, len(x))
	for i, v := range x {
		out[i] = (v - less) * by
	}
	return out
}

func median(x []float64) float64 {
	if len(x) == 0 {
		return 0
	}
	return slices.Sorted(slices.Values(x))[len(x)/2]
}
