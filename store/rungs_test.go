package store_test

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/evenness"
	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/store"
	"manudrill/storetest"
)

// asTeacher is the context of an instructor of the tests' studio.
func asTeacher(t *testing.T) context.Context {
	return store.Within(t.Context(), store.Scope{Studio: storetest.Studio, Actor: store.Person{ID: teacher.ID, Name: "Tess", Role: store.Instructor}})
}

func standing(t *testing.T, s *store.Store, id uuid.UUID) store.Assignment {
	t.Helper()
	a, err := s.Stand(in(t), id)
	require.NoError(t, err)
	return a.Assignment
}

// uneven is what is found in a take of one pass that fails any gate.
func uneven(bpm float64) evenness.Analysis {
	return evenness.Analysis{Tempo: evenness.Tempo{BPM: bpm}, Passes: []evenness.Pass{{PassFigures: tempo.PassFigures{RightPercent: 100, SpreadPercent: 30}}}}
}

func at(bpm float64) tempo.Rung { return tempo.Rung{BPM: bpm, NotesPerBeat: 2} }

// A drill whose start is changed moves nobody, whether they have played it or not
// and whichever version they are given.
func TestAChangedDrillMovesNobody(t *testing.T) {
	s := own(t)
	drill := added(t, s, store.Shelf{})
	ids := map[string]uuid.UUID{}
	for name, p := range map[string]store.Person{"played": ann, "not played": ben} {
		id, err := s.Assign(in(t), drill, p.ID)
		require.NoError(t, err)
		ids[name] = id
	}
	playedAs(t, s, ids["played"], 60, noon, clean(60, 2))
	file := fileAt(7)
	file.Ladder.StartBPM, file.Ladder.TargetBPM = 90, 160
	require.NoError(t, s.ChangeDrill(in(t), drill, 1, file))
	require.NoError(t, s.GiveNewest(in(t), ids["played"]))
	assert.Equal(t, at(64), standing(t, s, ids["played"]).Rung)
	assert.Equal(t, at(60), standing(t, s, ids["not played"]).Rung)
	assert.Equal(t, 2, standing(t, s, ids["not played"]).Version)

	// From there the new ladder leads on: 64 is below its start.
	playedAs(t, s, ids["played"], 64, noon.Add(time.Hour), clean(64, 2))
	assert.Equal(t, at(90), standing(t, s, ids["played"]).Rung)
}

// An instructor sets rung and gate for one student, with a reason; what was played
// before does not undo it, what is played after goes on from it by that gate.
func TestAnInstructorSetsTheRung(t *testing.T) {
	s := own(t)
	id, other := assignedTo(t, s, ann), assignedTo(t, s, ben)
	playedAs(t, s, id, 60, time.Now().Add(-time.Hour), clean(60, 1))
	before := standing(t, s, id)
	strict := tempo.Gate{RightPercent: 100, SpreadPercent: 2, LevelSpreadDB: 1, PassesInARow: 1}
	require.NoError(t, s.SetRung(asTeacher(t), id, before.Revision, at(52), &strict, "Slower, until the third finger is sure."))
	assert.ErrorIs(t, s.SetRung(asTeacher(t), id, before.Revision, at(80), nil, "faster"), store.ErrChanged)

	a := standing(t, s, id)
	assert.Equal(t, at(52), a.Rung)
	assert.Equal(t, strict, a.GateNow())
	require.NotNil(t, a.Set)
	assert.Equal(t, []string{"Tess", "Slower, until the third finger is sure."}, []string{a.Set.Author, a.Set.Reason})
	assert.Equal(t, at(60), standing(t, s, other).Rung, "nobody else is moved")

	late := playedAs(t, s, id, 60, time.Now().Add(-30*time.Minute), clean(60, 1))
	assert.Equal(t, tempo.Up, late.Decision.Step, "two clean passes before it was set")
	assert.Equal(t, at(52), standing(t, s, id).Rung, "handed in later than set, but played before")
	held := playedAs(t, s, id, 52, time.Now().Add(time.Minute), clean(52, 2))
	assert.Equal(t, tempo.Hold, held.Decision.Step, "3 % is too uneven for the gate of their own")
	assert.Equal(t, strict, held.Decision.Gate)
	assert.Nil(t, standing(t, s, id).Set, "once played, the reason has been read")

	require.NoError(t, s.SetRung(asTeacher(t), id, standing(t, s, id).Revision, at(52), nil, "The drill's own gate again."))
	a = standing(t, s, id)
	assert.Equal(t, tempo.Usual().Gate, a.GateNow())
	moves, err := s.Moves(in(t), id, store.Page{})
	require.NoError(t, err)
	var told []string
	for _, m := range moves {
		told = append(told, m.Step+" "+m.Author)
	}
	assert.Equal(t, []string{"hold ", "set Tess", "set Tess", "up ", "hold "}, told, "by when it was")
}

// What the simulated player plays for somebody real, something else, and what is
// off tempo, move nobody and break no run.
func TestTakesThatCountForNothing(t *testing.T) {
	s := own(t)
	id := assignedTo(t, s, ann)
	playedAs(t, s, id, 60, noon, clean(60, 1))
	tryOut := simulatedTake(t, s, id, noon.Add(time.Minute), clean(60, 9))
	assert.Equal(t, tempo.TriedOut, tryOut.Aside)
	assert.False(t, tryOut.Decision.Counts)
	assert.Contains(t, tryOut.Decision.Reason, "counts for nothing")
	playedAs(t, s, id, 60, noon.Add(2*time.Minute), evenness.Analysis{Foreign: true, Passes: uneven(60).Passes})
	playedAs(t, s, id, 60, noon.Add(3*time.Minute), clean(40, 9))
	a := standing(t, s, id)
	assert.Equal(t, at(60), a.Rung)
	assert.Equal(t, 3, a.Takes, "a try-out is none of the student's takes")
	trend, _, err := s.Trend(in(t), id, store.Page{})
	require.NoError(t, err)
	assert.Len(t, trend, 1, "nor of their record")
	up := playedAs(t, s, id, 60, noon.Add(4*time.Minute), clean(60, 1))
	assert.Equal(t, tempo.Up, up.Decision.Step, "the second clean pass in a row")

	// Two failed takes go down, one with something else between them too.
	playedAs(t, s, id, 64, noon.Add(5*time.Minute), uneven(64))
	playedAs(t, s, id, 64, noon.Add(6*time.Minute), evenness.Analysis{Foreign: true})
	assert.Equal(t, at(64), standing(t, s, id).Rung)
	playedAs(t, s, id, 64, noon.Add(7*time.Minute), uneven(64))
	assert.Equal(t, at(60), standing(t, s, id).Rung)

	// Somebody invented is moved by the simulated player, who plays for them.
	invented := store.Person{ID: uuid.New(), Name: "Invented", Role: store.Student, Demo: true}
	require.NoError(t, s.AddPerson(in(t), invented))
	defer func() { require.NoError(t, s.Archive(in(t), invented.ID)) }()
	theirs := assignedTo(t, s, invented)
	simulatedTake(t, s, theirs, noon, clean(60, 2))
	assert.Equal(t, at(64), standing(t, s, theirs).Rung)
}

func simulatedTake(t *testing.T, s *store.Store, assignment uuid.UUID, when time.Time, found evenness.Analysis) store.TakeSummary {
	t.Helper()
	a, err := s.Stand(in(t), assignment)
	require.NoError(t, err)
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	id := uuid.New()
	require.NoError(t, s.HandIn(in(t), store.HandIn{
		ID: id, AssignmentID: a.ID, Version: a.Version, Rung: a.Rung, Source: store.Simulated, RecordedAt: when, Chart: chart, Sound: strings.NewReader("sound"), Hash: id[:],
	}, nothing))
	require.NoError(t, s.Measured(in(t), id, store.Measurement{Analysis: found, Seconds: 3, Listener: 1}))
	take, err := s.TakeSummary(in(t), id)
	require.NoError(t, err)
	return take
}

// Whatever happens to an assignment at once, the rung beside it is where its moves
// have led.
func TestARungSetWhileTakesAreMeasured(t *testing.T) {
	s := own(t)
	for range 20 {
		id := assignedTo(t, s, ann)
		takes := []uuid.UUID{handedIn(t, s, id, 60, time.Now()), handedIn(t, s, id, 60, time.Now()), handedIn(t, s, id, 60, time.Now())}
		measure := func(take uuid.UUID) func() error {
			return func() error {
				return s.Measured(in(t), take, store.Measurement{Analysis: clean(60, 1), Seconds: 3, Listener: 1})
			}
		}
		set := func(bpm float64) func() error {
			return func() error { return s.SetRung(asTeacher(t), id, 1, at(bpm), nil, "set") }
		}
		require.NoError(t, atOnce(measure(takes[0]), set(80), measure(takes[1]), set(100), measure(takes[2])))
		moves, err := s.Moves(in(t), id, store.Page{})
		require.NoError(t, err)
		assert.Len(t, moves, 4, "one of the two was set, and told the other that it had changed")
		assert.Equal(t, moves[0].Rung, standing(t, s, id).Rung)
		assert.Equal(t, "set", moves[0].Step)
	}
}

// Comments are announced to the other side until they are read, answers too.
func TestCommentsAreAnnouncedUntilTheyAreRead(t *testing.T) {
	s := own(t)
	take := playedAs(t, s, assignedTo(t, s, ann), 60, noon, clean(60, 1))
	asAnn := store.Within(t.Context(), store.Scope{Studio: storetest.Studio, Student: ann.ID, Actor: ann})
	asBen := store.Within(t.Context(), store.Scope{Studio: storetest.Studio, Student: ben.ID, Actor: ben})
	unread := func(ctx context.Context) (texts []string) {
		t.Helper()
		all, err := s.UnreadComments(ctx)
		require.NoError(t, err)
		for _, u := range all {
			if u.TakeID == take.ID {
				texts = append(texts, u.Text)
			}
		}
		return texts
	}
	comment := store.Comment{ID: uuid.New(), TakeID: take.ID, Text: "This one is late.", Author: teacher}
	require.NoError(t, s.PutComment(asTeacher(t), comment))
	assert.Equal(t, []string{"This one is late."}, unread(asAnn))
	assert.Empty(t, unread(asBen))
	assert.Empty(t, unread(asTeacher(t)), "one's own are no news")

	require.NoError(t, s.MarkRead(asTeacher(t), take.ID), "which reads what students wrote only")
	assert.Len(t, unread(asAnn), 1)
	require.NoError(t, s.MarkRead(asAnn, take.ID))
	assert.Empty(t, unread(asAnn))
	require.NoError(t, s.PutComment(asAnn, store.Comment{ID: uuid.New(), TakeID: take.ID, Text: "How do I mend it?", Author: ann}))
	assert.Equal(t, []string{"How do I mend it?"}, unread(asTeacher(t)))

	comment.Text, comment.Revision = "This one is late: lift sooner.", 1
	require.NoError(t, s.PutComment(asTeacher(t), comment))
	assert.Equal(t, []string{comment.Text}, unread(asAnn), "changed, it is news again")
	kept, err := s.Comments(asAnn, take.ID)
	require.NoError(t, err)
	assert.Len(t, kept, 2)
}
