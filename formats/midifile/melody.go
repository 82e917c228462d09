package midifile

import (
	"cmp"
	"fmt"
	"slices"

	"manudrill/core/drill/score"
	"manudrill/core/words"
)

// line is a track, or one of the channels in it; every track where it is 0, every channel
// where that is -1.
type line struct{ track, channel int }

const everyChannel = -1

func (l line) has(n struck) bool {
	return (l.track == 0 || l.track == n.track) && (l.channel == everyChannel || l.channel == n.channel)
}

// lines are what of the song can be read by itself: each track, each channel of a track
// that has several, and all tracks together.
func (s song) lines() (lines []line, named []score.Line) {
	counts := map[line]int{}
	channels := map[int]map[int]bool{}
	for _, n := range s.notes {
		counts[line{n.track, n.channel}]++
		counts[line{n.track, everyChannel}]++
		counts[line{0, everyChannel}]++
		if channels[n.track] == nil {
			channels[n.track] = map[int]bool{}
		}
		channels[n.track][n.channel] = true
	}
	add := func(l line, name string) {
		lines, named = append(lines, l), append(named, score.Line{Name: name, Notes: counts[l]})
	}
	for track := 1; track <= s.tracks; track++ {
		if len(channels[track]) == 0 {
			continue
		}
		name := cmp.Or(s.names[track], fmt.Sprintf("Track %d", track))
		add(line{track, everyChannel}, name)
		for channel := range 16 {
			if len(channels[track]) > 1 && channels[track][channel] {
				add(line{track, channel}, fmt.Sprintf("%s, channel %d", name, channel+1))
			}
		}
	}
	if len(channels) > 1 {
		add(line{0, everyChannel}, "All tracks together")
	}
	return lines, named
}

// most is the track with the most notes.
func most(lines []line, named []score.Line) (at int) {
	for i, l := range lines {
		if l.track > 0 && l.channel == everyChannel && named[i].Notes > named[at].Notes {
			at = i
		}
	}
	return at
}

// melody puts the notes of a line's first pass into the score.
func (s *song) melody(asked int) (score.Score, error) {
	lines, named := s.lines()
	if len(lines) == 0 {
		return score.Score{}, ErrNoNotes
	}
	chosen, err := score.LineIn(named, asked, most(lines, named))
	if err != nil {
		return score.Score{}, err
	}
	s.score.Lines, s.score.Line = named, chosen
	s.notes = slices.DeleteFunc(s.notes, func(n struck) bool { return !lines[chosen].has(n) })
	slices.SortStableFunc(s.notes, func(a, b struck) int { return cmp.Or(a.tick-b.tick, b.midi-a.midi) })
	s.score.Passes = max(1, len(s.passes))
	s.tell(lines, asked == score.AnyLine)
	s.inBeats()
	return s.score, nil
}

// inBeats puts notes and tempi into the score: in beats of the first time, and in bars.
func (s *song) inBeats() {
	quarters := 1.0
	slices.SortStableFunc(s.meters, func(a, b meterFrom) int { return a.tick - b.tick })
	if len(s.meters) > 0 {
		s.score.BeatsPerBar, quarters = score.Meter(s.meters[0].beats, s.meters[0].kind)
	}
	beat := func(tick int) float64 { return float64(tick) / float64(s.division) / quarters }
	for _, t := range s.tempos {
		s.score.Tempi = append(s.score.Tempi, score.Tempo{Beat: beat(t.tick), BPM: 60e6 / t.micros / quarters})
	}
	bars := s.bars()
	for i, n := range s.notes {
		if i > 0 && s.notes[i-1].tick == n.tick {
			continue
		}
		if len(s.passes) > 1 && n.tick >= s.passes[1] {
			break
		}
		scored := score.Note{Beat: beat(n.tick), Bar: bars.at(n.tick), MIDI: n.midi}
		readText(n.text, &scored)
		s.score.Notes = append(s.score.Notes, scored)
	}
	s.score.Begin()
}

// bars counts the bars of a song from tick to later tick.
type bars struct {
	division int
	meters   []meterFrom // that come yet, in order
	now      meterFrom
	before   int // bars before now
}

// bars begins to count; a file that says nothing has four quarters (Standard MIDI Files 1.0).
func (s *song) bars() *bars {
	return &bars{division: s.division, meters: s.meters, now: meterFrom{0, 4, 4}}
}

// at is the bar, counted from 0, in which a tick lies; no earlier one may be asked for.
func (b *bars) at(tick int) int {
	for len(b.meters) > 0 && b.meters[0].tick <= tick {
		b.before += (b.meters[0].tick - b.now.tick + b.ticks() - 1) / b.ticks()
		b.now, b.meters = b.meters[0], b.meters[1:]
	}
	return b.before + (tick-b.now.tick)/b.ticks()
}

// ticks is how long a bar is now.
func (b *bars) ticks() int { return max(1, b.division*4*b.now.beats/b.now.kind) }

// tell tells how one line was made of notes, in order, that sound together.
func (s *song) tell(lines []line, unasked bool) {
	tell := func(text string, args ...any) { s.score.Told = append(s.score.Told, fmt.Sprintf(text, args...)) }
	tracks, channels := map[int]bool{}, 0
	for _, l := range lines {
		tracks[l.track] = true
		if l.track == lines[s.score.Line].track && l.channel != everyChannel {
			channels++
		}
	}
	delete(tracks, 0)
	if unasked && len(tracks) > 1 {
		tell("The file has notes on %d tracks; “%s” is read.", len(tracks), s.score.Lines[s.score.Line].Name)
	}
	if unasked && channels > 1 {
		tell("Notes are on %d channels, which are read as one line.", channels)
	}
	together := 0
	for i, n := range s.notes {
		if i > 0 && s.notes[i-1].tick == n.tick && (i == 1 || s.notes[i-2].tick != n.tick) {
			together++
		}
	}
	if together > 0 {
		tell("In %s several notes begin together; the highest is kept.", words.Counted(together, "place"))
	}
}
