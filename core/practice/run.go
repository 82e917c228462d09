package practice

// What a stand does by itself is a [State], which [Routine.Step] takes from one moment
// to the next. It has no clock: who calls says what time it is, in seconds on a clock
// that only runs on.

// A Phase is what the stand is at.
type Phase string

// The phases of a run.
const (
	Waiting Phase = "waiting" // for a key: before the start, or held
	Playing Phase = "playing" // count-in and take
	Pausing Phase = "pausing" // the verdict is there; the next take follows by itself
	Resting Phase = "resting"
	Reading Phase = "reading"
	Over    Phase = "over" // to its end
	Hurt    Phase = "hurt" // ended, because it hurt
)

// Why a run waits that was held by nobody.
const (
	Unheard = "unheard" // nothing of the drill was heard, take after take
	Broken  = "broken"  // the take was broken off, by the microphone perhaps
)

// A State is how far a run has come. The zero value has not begun.
type State struct {
	Phase Phase   `json:"phase"` // Waiting where empty
	Item  int     `json:"item"`  // index of the item
	Takes int     `json:"takes"` // of the item, played to their end
	Clean []bool  `json:"clean"` // whether each of the last takes was
	Since float64 `json:"since"` // when the item was begun, s
	Ends  float64 `json:"ends"`  // when a phase that ends by itself does, s
	Held  Phase   `json:"held"`  // what is held while waiting; empty before the start
	At    float64 `json:"at"`    // when it was held, s
	Why   string  `json:"why"`   // [Unheard] or [Broken]; empty where a key held it
	Idle  int     `json:"idle"`  // takes in a row of which nothing was heard
	Tired bool    `json:"tired"` // the rest is one that was asked for,
	From  float64 `json:"from"`  // since then, s
	Once  bool    `json:"once"`  // one more take was asked for of an item that was enough
}

// A Key is what can happen to a run.
type Key string

// What can happen. The first is no key: time goes on.
const (
	Tick   Key = "tick"
	Ended  Key = "ended"  // a take came to its end by itself
	Failed Key = "failed" // a take was broken off, by nobody's wish
	Start  Key = "start"  // or go on, where it was held
	Hold   Key = "hold"
	Next   Key = "next"   // what waits is over; of a take, the next item
	Repeat Key = "repeat" // one more take of the item that was played last
	Skip   Key = "skip"   // to the next item
	Back   Key = "back"   // to the item before
	Tired  Key = "tired"  // rest now
	Hurts  Key = "hurts"  // stop all
)

// An Event is what happened, and when.
type Event struct {
	Key   Key     `json:"key"`
	At    float64 `json:"at"`    // s
	Heard bool    `json:"heard"` // of [Ended]: something of the drill was
	Clean bool    `json:"clean"` // of [Ended]: every pass was
	Aside bool    `json:"aside"` // of [Ended]: it was to warm up, and is none of the item's takes
	Pause float64 `json:"pause"` // s that the student wants between takes
}

const (
	// TiredSeconds is how long somebody rests who says that they are tired.
	TiredSeconds = 60
	// idleTakes is after how many takes of nothing the stand waits: the student has
	// left, or the microphone hears something else.
	idleTakes = 2
	// patience is how many times the takes that are looked back at are played at the
	// most where so many of them are to be clean.
	patience = 3
)

// Step takes the state from one moment to the next.
func (r Routine) Step(s State, e Event) State {
	if s.Phase == "" {
		s.Phase = Waiting
	}
	switch {
	case e.Key == Hurts:
		s.Phase = Hurt
	case s.Phase == Over || s.Phase == Hurt:
	case s.Phase == Waiting:
		return r.waiting(s, e)
	case e.Key == Tick:
		if s.Phase != Playing && e.At >= s.Ends {
			return r.goOn(s, e.At)
		}
	case e.Key == Ended:
		if s.Phase == Playing {
			return r.ended(s, e)
		}
	case e.Key == Failed:
		if s.Phase == Playing {
			return s.hold(e.At, Broken)
		}
	case e.Key == Hold:
		return s.hold(e.At, "")
	case e.Key == Next:
		return r.goOn(s, e.At)
	case e.Key == Skip:
		return r.enter(s.Item+1, e.At)
	case e.Key == Back:
		return r.enter(max(0, s.Item-1), e.At)
	case e.Key == Repeat:
		return r.repeat(s, e.At)
	case e.Key == Tired && !s.Tired:
		s.Phase, s.Tired, s.From, s.Ends = Resting, true, e.At, e.At+TiredSeconds
	}
	return s
}

// waiting answers a key while nothing goes on by itself.
func (r Routine) waiting(s State, e Event) State {
	switch e.Key {
	case Start, Next:
		if s.Held == "" {
			return r.enter(s.Item, e.At)
		}
		return s.goesOn(e.At)
	case Repeat:
		if s.Held != "" {
			return r.repeat(s.goesOn(e.At), e.At)
		}
	case Skip:
		return r.choose(s.Item + 1)
	case Back:
		return r.choose(s.Item - 1)
	}
	return s
}

// choose waits with another item.
func (r Routine) choose(item int) State {
	return State{Phase: Waiting, Item: min(max(0, item), len(r.Items)-1)}
}

func (s State) hold(at float64, why string) State {
	s.Held, s.Phase, s.At, s.Why, s.Idle = s.Phase, Waiting, at, why, 0
	return s
}

// goesOn goes on where it was held; the time that it waited is not counted.
func (s State) goesOn(at float64) State {
	waited := at - s.At
	s.Phase, s.Held, s.Why = s.Held, "", ""
	s.Since += waited
	s.Ends += waited
	s.From += waited
	return s
}

// enter begins an item; beyond the last the run is over.
func (r Routine) enter(item int, at float64) State {
	if item >= len(r.Items) {
		return State{Phase: Over, Item: len(r.Items)}
	}
	s := State{Item: item, Since: at}
	i := r.Items[item]
	switch i.Kind {
	case Rest:
		s.Phase, s.Ends = Resting, at+float64(i.Seconds)
	case Note:
		s.Phase, s.Ends = Reading, at+float64(i.Seconds)
	default:
		s.Phase = Playing
	}
	return s
}

// ended counts a take, and lets its verdict be read. One of which nothing was heard is
// none.
func (r Routine) ended(s State, e Event) State {
	if !e.Heard {
		if s.Idle++; s.Idle >= idleTakes {
			return s.hold(e.At, Unheard)
		}
	} else if s.Idle = 0; !e.Aside {
		s.Takes++
		s.Clean = append(s.Clean[:len(s.Clean):len(s.Clean)], e.Clean)
		s.Clean = s.Clean[max(0, len(s.Clean)-MaxOf):]
	}
	s.Phase, s.Ends = Pausing, e.At+max(0, e.Pause)
	return s
}

// goOn ends what waits: a pause leads to the next take, or to the next item where the
// item is enough; a take is left for the next item.
func (r Routine) goOn(s State, at float64) State {
	if s.Tired {
		s.Since += at - s.From
		s.Tired = false
	}
	more := r.Items[s.Item].Kind == Play && s.Phase != Playing && !(s.Takes > 0 && r.isEnough(s, at))
	if !more {
		return r.enter(s.Item+1, at)
	}
	s.Phase = Playing
	return s
}

// repeat plays the item that was played last once more, and goes on then.
func (r Routine) repeat(s State, at float64) State {
	switch {
	case s.Phase == Playing: // from its beginning
		return s
	case r.Items[s.Item].Kind == Play: // its verdict is read, or its player was tired
		s.Once = r.isEnough(s, at)
		s.Phase, s.Tired = Playing, false
		return s
	}
	for item := s.Item - 1; item >= 0; item-- {
		if r.Items[item].Kind == Play {
			back := r.enter(item, at)
			back.Once = true
			return back
		}
	}
	return s
}

// isEnough reports whether the drill of the item has been practised enough.
func (r Routine) isEnough(s State, at float64) bool {
	e := r.Items[s.Item].Enough
	switch {
	case s.Once:
		return true
	case e.By == BySeconds:
		return at >= s.Since+float64(e.Count)
	case e.By == ByClean:
		return s.clean(e.Of) >= e.Count || s.Takes >= patience*e.Of
	}
	return s.Takes >= e.Count
}

// clean counts the clean takes among the last so many.
func (s State) clean(of int) int {
	n := 0
	for _, clean := range s.Clean[max(0, len(s.Clean)-of):] {
		if clean {
			n++
		}
	}
	return n
}
