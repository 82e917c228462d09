package demo

import (
	"context"
	"errors"
	"slices"
	"time"

	"github.com/google/uuid"

	"manudrill/core/drill"
	"manudrill/core/setup"
	"manudrill/core/tempo"
	"manudrill/store"
)

// What is done in the studio besides playing: who else is there, in which groups,
// what is known of the students, what was set and said.

const (
	second   = "Tarn Oskell" // instructor
	archived = "Nima Salko"  // a student who has left
)

// doubling is a drill that is climbed by doubling the notes at one click.
var doubling = made("Trill 1-2, doubled at one click", drill.Trill{Fingers: []int{1, 2}},
	tempo.Ladder{StartBPM: 60, Rule: tempo.ByDoubling, Doublings: 2, Gate: gate(95, 8, 4, 2)}, shelf("Slurs", false, "second year"),
	func(d *drill.Drill) {
		d.Path.Strings, d.Path.Stay, d.Rhythm.NotesPerBeat = []int{3, 2}, drill.Stay{Count: 4, Unit: drill.Times}, 2
	})

// groups are who practises together.
var groups = map[string][]string{
	"Mondays":       {"Bram Tillowe", "Ishi Corvane", "Finn Wexley", "Pim Haskett", "Anke Dorvil", "Milo Terrick"},
	"Evening group": {"Lena Quarrow", "Sol Marrik", "Odile Prask", "Greta Astell", "Ira Solstrand"},
}

// known is what the instructors have noted of the students.
var known = map[string]store.PersonChange{
	"Bram Tillowe": {Level: "beginner", Note: "Began in September. Short fingers: low positions only with rests.", Consent: true, ConsentBy: "his father, on paper"},
	"Ishi Corvane": {Level: "intermediate", Note: "Wants to play faster than is even. Slower, then praise.", Consent: true, ConsentBy: "herself"},
	"Odile Prask":  {Note: "Plays every day, and too long. Ask about the arm first.", Consent: true, ConsentBy: "herself"},
}

// oda does what instructors do in the demo.
var oda = store.Person{ID: id("instructor"), Name: instructor, Role: store.Owner}

// furnish puts people, drills and what is known into the studio. Done twice, it is done
// once.
func furnish(ctx context.Context, s *store.Store, begun time.Time) error {
	ctx = store.Within(ctx, store.Scope{Studio: Studio, Actor: oda})
	people := []store.Person{
		{ID: oda.ID, Name: instructor, Role: store.Owner, Demo: true},
		{ID: id(second), Name: second, Role: store.Instructor, Demo: true},
		{ID: id(archived), Name: archived, Role: store.Student, Demo: true},
	}
	for _, st := range students {
		people = append(people, store.Person{ID: id(st.name), Name: st.name, Role: store.Student, Demo: true})
	}
	for _, p := range people {
		if err := s.AddPerson(ctx, p); err != nil {
			return err
		}
	}
	for _, d := range append(drills, doubling) {
		if err := s.AddDrill(ctx, id(d.Drill.Name), d.File, d.shelf); err != nil {
			return err
		}
	}
	for _, st := range students {
		for _, g := range st.drills {
			if _, err := s.Assign(ctx, id(g.drill), id(st.name)); err != nil {
				return err
			}
		}
	}
	if _, err := s.Assign(ctx, id(doubling.Drill.Name), id("Sol Marrik")); err != nil {
		return err
	}
	days := soundDays
	return errors.Join(
		once(s.ChangeStudio(ctx, 1, studioName, &days, nil)),
		know(ctx, s),
		once(s.Archive(ctx, id(archived))),
		compose(ctx, s),
		lay(ctx, s, begun),
	)
}

// know puts students into groups, and down what is known of them.
func know(ctx context.Context, s *store.Store) error {
	in := map[string][]uuid.UUID{} // the groups of a student
	for name, students := range groups {
		g := store.Group{ID: id("group " + name), Name: name}
		for _, st := range students {
			g.Students = append(g.Students, id(st))
			in[st] = append(in[st], g.ID)
		}
		if err := once(s.PutGroup(ctx, g)); err != nil {
			return err
		}
	}
	for name, k := range known {
		k.Name, k.Groups = name, in[name]
		if err := once(s.ChangePerson(ctx, id(name), 1, k)); err != nil {
			return err
		}
	}
	small := setup.Usual()
	small.Hand = map[string]float64{"12": 38, "23": 36, "34": 36, "13": 55, "24": 53, "14": 70}
	left := setup.Usual()
	left.LeftHanded = true
	return errors.Join(
		once(s.ChangeSetup(ctx, id("Bram Tillowe"), 1, small)),
		once(s.ChangeSetup(ctx, id("Sol Marrik"), 1, left)),
	)
}

// said sets a rung with a reason, and pins comments to the latest takes: one that
// was read and answered, one that was not read yet.
func said(ctx context.Context, s *store.Store) error {
	lena := id("Lena Quarrow")
	has, err := s.Assignments(ctx, &lena, nil, store.Page{})
	if err != nil {
		return err
	}
	for _, a := range has {
		if a.DrillName != "Up and down 1-3-4" {
			continue
		}
		rung := tempo.Rung{BPM: max(tempo.MinBPM, a.Rung.BPM-8), NotesPerBeat: a.Rung.NotesPerBeat}
		if err := once(s.SetRung(ctx, a.ID, 1, rung, nil, "Two steps back: the hand tires before the last pass. Even to the end first.")); err != nil {
			return err
		}
	}
	for name, text := range map[string]string{
		"Bram Tillowe": "Leave the third finger down until the fourth has landed; here it lifts.",
		"Ishi Corvane": "This pull-off drags the string aside. Pluck down into the next one.",
	} {
		student := id(name)
		takes, err := s.Takes(ctx, nil, &student, store.Page{Limit: 1})
		if err != nil || len(takes) == 0 {
			return err
		}
		c := store.Comment{ID: id("comment " + name), TakeID: takes[0].ID, Note: 5, Text: text, Author: oda}
		if err := once(s.PutComment(ctx, c)); err != nil {
			return err
		}
		if name != "Ishi Corvane" {
			continue
		}
		ishi := store.Person{ID: student, Name: name, Role: store.Student}
		asIshi := store.Within(ctx, store.Scope{Studio: Studio, Student: student, Actor: ishi})
		answer := store.Comment{ID: id("answer " + name), TakeID: takes[0].ID, Note: 5, Text: "Is that why the note before sounds sharp?", Author: ishi}
		if err := errors.Join(s.MarkRead(asIshi, takes[0].ID), once(s.PutComment(asIshi, answer))); err != nil {
			return err
		}
	}
	return nil
}

// wait are the students whose latest takes nobody has listened to yet.
var wait = []string{"Rufus Ombry", "Pim Haskett", "Lena Quarrow", "Finn Wexley", "Ira Solstrand", "Nadja Quillen", "Hugo Pennivar"}

// waitFor is how many takes of each of these wait.
const waitFor = 3

// lessons are what was noted of the last ones.
var lessons = map[string]string{
	"Pim Haskett":  "Little finger lifts far before it lands. Slow, from close by. Next time: the pair 3-4 alone.",
	"Lena Quarrow": "Clean at 140. Shoulders up from the second minute on: shorter takes.",
	"Rufus Ombry":  "He feels that it got worse. Go back to where it is even, and stay there two weeks.",
}

// hear listens to the takes that do not wait, and notes lessons.
func hear(ctx context.Context, s *store.Store) error {
	waiting, err := s.TakesToReview(ctx)
	if err != nil {
		return err
	}
	for _, w := range waiting {
		heard, note := w.Take, ""
		if slices.Contains(wait, w.Student.Name) { // what they played in the last lessons was heard
			takes, err := s.Takes(ctx, &w.Assignment, nil, store.Page{Limit: waitFor + 1})
			if err != nil || len(takes) <= waitFor {
				return err
			}
			heard = takes[waitFor].ID
		}
		if w.Student.Name == "Ishi Corvane" {
			note = "Even up to the last pass. That is the tempo to stay at."
		}
		if err := s.PutReview(ctx, heard, true, note); err != nil {
			return err
		}
	}
	for name, text := range lessons {
		if err := once(s.PutLesson(ctx, id("lesson "+name), id(name), 0, text)); err != nil {
			return err
		}
	}
	return nil
}

// once takes what was made before for made.
func once(err error) error {
	if errors.Is(err, store.ErrChanged) || errors.Is(err, store.ErrNotFound) {
		return nil
	}
	return err
}
