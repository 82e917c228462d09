package practice

import (
	"fmt"
	"math"
)

// A Told is what the stand tells of a run at a moment.
type Told struct {
	State State   `json:"state"`
	Left  string  `json:"left"`  // how far the item is: "take 3 of 10"
	Share float64 `json:"share"` // of the item that is done, 0 to 1
	Then  int     `json:"then"`  // index of the next drill to be played, from the item on; −1 for none
}

// Tell tells how far a run is.
func (r Routine) Tell(s State, at float64) Told {
	t := Told{State: s, Then: -1}
	for i := s.Item; i < len(r.Items); i++ {
		if r.Items[i].Kind == Play {
			t.Then = i
			break
		}
	}
	if s.Item < len(r.Items) && s.Phase != Hurt {
		t.Left, t.Share = r.left(s, at)
	}
	if s.Phase == Over {
		t.Share = 1
	}
	return t
}

// left is how far the item is, in words and as a share.
func (r Routine) left(s State, at float64) (string, float64) {
	item := r.Items[s.Item]
	switch { // what is held, and a rest that was asked for, is no time of the item
	case s.Tired:
		at = s.From
	case s.Phase == Waiting:
		at = s.At
	}
	at = max(at, s.Since) // the last bits of times that were put off may differ
	if item.Kind != Play {
		if s.Phase == Waiting && s.Held == "" {
			return clock(float64(item.Seconds)), 0
		}
		gone := min(float64(item.Seconds), at-s.Since)
		return clock(float64(item.Seconds) - gone), gone / float64(item.Seconds)
	}
	e := item.Enough
	now := s.Takes + 1
	if s.Phase == Pausing {
		now = max(1, s.Takes)
	}
	switch {
	case s.Once:
		return "once more", 0
	case e.By == BySeconds:
		gone := 0.0
		if s.Phase != Waiting || s.Held != "" {
			gone = min(float64(e.Count), at-s.Since)
		}
		return clock(float64(e.Count)-gone) + " left", gone / float64(e.Count)
	case e.By == ByClean:
		clean := s.clean(e.Of)
		return fmt.Sprintf("%d of the last %d clean, %d wanted", clean, min(e.Of, max(1, len(s.Clean))), e.Count), float64(clean) / float64(e.Count)
	}
	return fmt.Sprintf("take %d of %d", min(now, e.Count), e.Count), float64(s.Takes) / float64(e.Count)
}

// clock writes seconds as minutes and seconds.
func clock(seconds float64) string {
	s := int(math.Ceil(max(0, seconds)))
	return fmt.Sprintf("%d:%02d", s/60, s%60)
}
