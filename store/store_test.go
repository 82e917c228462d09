package store_test

import (
	"context"
	"os"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/guitar"
	"manudrill/core/setup"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/store"
	"manudrill/storetest"
)

var (
	ann = store.Person{ID: uuid.New(), Name: "Ann", Role: store.Student}
	ben = store.Person{ID: uuid.New(), Name: "Ben", Role: store.Student}

	teacher = store.Person{ID: uuid.New(), Name: "Tess", Role: store.Instructor}
)

func TestMain(m *testing.M) {
	// Without keys of a bucket the machine would be asked for its role.
	for key, value := range map[string]string{"AWS_ACCESS_KEY_ID": "key", "AWS_SECRET_ACCESS_KEY": "secret"} {
		if err := os.Setenv(key, value); err != nil {
			panic(err)
		}
	}
	os.Exit(storetest.Run(m))
}

// own is a store of the test's own, with one studio in which are Tess, Ann and Ben. The test
// runs beside others.
func own(t *testing.T) *store.Store {
	t.Helper()
	t.Parallel()
	return storetest.Open(t, teacher, ann, ben)
}

func fileAt(position int) drillfile.File {
	d := drill.New("slurs", drill.SlurCombinations{Combinations: [][]int{{1, 2}}, Slur: drill.HammerOns})
	d.Path.Position = position
	return drillfile.File{Drill: d, Ladder: tempo.Usual()}
}

func added(t *testing.T, s *store.Store, shelf store.Shelf) uuid.UUID {
	t.Helper()
	id := uuid.New()
	require.NoError(t, s.AddDrill(in(t), id, fileAt(5), shelf))
	return id
}

// played adds a take of an assignment, measured.
func played(t *testing.T, s *store.Store, assignment uuid.UUID) store.TakeSummary {
	t.Helper()
	return playedAs(t, s, assignment, 60, time.Now(), evenness.Analysis{})
}

func playedAs(t *testing.T, s *store.Store, assignment uuid.UUID, bpm float64, at time.Time, found evenness.Analysis) store.TakeSummary {
	t.Helper()
	id := handedIn(t, s, assignment, bpm, at)
	require.NoError(t, s.Measured(in(t), id, store.Measurement{Analysis: found, Seconds: 3, Listener: 1}))
	take, err := s.TakeSummary(in(t), id)
	require.NoError(t, err)
	return take
}

// handedIn hands a take in that is not measured yet.
func handedIn(t *testing.T, s *store.Store, assignment uuid.UUID, bpm float64, at time.Time) uuid.UUID {
	t.Helper()
	return handedInBy(t, s, in(t), assignment, bpm, at)
}

// handedInBy hands a take in for whoever is asked for.
func handedInBy(t *testing.T, s *store.Store, ctx context.Context, assignment uuid.UUID, bpm float64, at time.Time) uuid.UUID {
	t.Helper()
	a, err := s.Stand(ctx, assignment)
	require.NoError(t, err)
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), bpm)
	require.NoError(t, err)
	id := uuid.New()
	require.NoError(t, s.HandIn(ctx, store.HandIn{
		ID: id, AssignmentID: a.ID, Version: a.Version, Rung: tempo.Rung{BPM: bpm, NotesPerBeat: 2}, Source: store.File, RecordedAt: at, Chart: chart, Sound: strings.NewReader("sound"), Hash: id[:],
	}, nothing))
	return id
}

func nothing(pgx.Tx) error { return nil }

func position(t *testing.T, s *store.Store, assignment uuid.UUID) int {
	t.Helper()
	a, err := s.Stand(in(t), assignment)
	require.NoError(t, err)
	return a.File.Value.Drill.Path.Position
}

// change changes a drill from its latest revision.
func change(t *testing.T, s *store.Store, drill uuid.UUID, file drillfile.File) error {
	t.Helper()
	d, err := s.Drill(in(t), drill)
	require.NoError(t, err)
	return s.ChangeDrill(in(t), drill, d.Revision, file)
}

func TestADrillNobodyHasIsChangedInPlace(t *testing.T) {
	s := own(t)
	id := added(t, s, store.Shelf{})
	require.NoError(t, change(t, s, id, fileAt(7)))
	versions, err := s.Versions(in(t), id, nil)
	require.NoError(t, err)
	require.Len(t, versions, 1)
	assert.Equal(t, 7, versions[0].File.Value.Drill.Path.Position)
}

// What lies on a stand may be being played: the change is the next version, which
// whoever has not played gets at once.
func TestAGivenVersionStays(t *testing.T) {
	s := own(t)
	id := added(t, s, store.Shelf{})
	a, err := s.Assign(in(t), id, ann.ID)
	require.NoError(t, err)
	require.NoError(t, change(t, s, id, fileAt(7)))
	versions, err := s.Versions(in(t), id, nil)
	require.NoError(t, err)
	require.Len(t, versions, 2)
	assert.Equal(t, []string{"Ann"}, versions[0].Students)
	assert.Equal(t, 7, position(t, s, a))
	first, err := s.Version(in(t), id, 1)
	require.NoError(t, err)
	assert.Equal(t, 5, first.Value.Drill.Path.Position, "which Ann may have open")
}

func TestAPlayedVersionStays(t *testing.T) {
	s := own(t)
	id := added(t, s, store.Shelf{})
	a, err := s.Assign(in(t), id, ann.ID)
	require.NoError(t, err)
	take := played(t, s, a)
	b, err := s.Assign(in(t), id, ben.ID)
	require.NoError(t, err)

	require.NoError(t, change(t, s, id, fileAt(5)), "the same again")
	require.NoError(t, change(t, s, id, fileAt(9)))
	require.NoError(t, change(t, s, id, fileAt(10)), "the second version was given to Ben")
	versions, err := s.Versions(in(t), id, nil)
	require.NoError(t, err)
	require.Len(t, versions, 3)
	for i, want := range []struct{ version, position, takes int }{{3, 10, 0}, {2, 9, 0}, {1, 5, 1}} {
		assert.Equal(t, want.version, versions[i].Version)
		assert.Equal(t, want.position, versions[i].File.Value.Drill.Path.Position)
		assert.Equal(t, want.takes, versions[i].Takes)
	}
	assert.Equal(t, []int{5, 10}, []int{position(t, s, a), position(t, s, b)})
	d, err := s.Drill(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, []int{3, 10, 1}, []int{d.Version, d.File.Value.Drill.Path.Position, d.Takes})

	got, err := s.Stand(in(t), a)
	require.NoError(t, err)
	assert.Equal(t, []int{1, 3}, []int{got.Version, got.Newest})
	require.NoError(t, s.GiveNewest(in(t), a))
	assert.Equal(t, 10, position(t, s, a))
	kept, err := s.Take(in(t), take.ID)
	require.NoError(t, err)
	assert.Equal(t, 5, kept.Chart.Notes[0].Fret, "the take keeps its chart")

	played(t, s, a)
	require.NoError(t, change(t, s, id, fileAt(11)))
	versions, err = s.Versions(in(t), id, nil)
	require.NoError(t, err)
	assert.Len(t, versions, 4)
}

func TestWhatIsGoneCannotBeChanged(t *testing.T) {
	s := own(t)
	id := added(t, s, store.Shelf{})
	require.NoError(t, s.DeleteDrill(in(t), id))
	assert.ErrorIs(t, s.ChangeDrill(in(t), id, 1, fileAt(7)), store.ErrNotFound)
	assert.ErrorIs(t, s.PutOnShelf(in(t), id, store.Shelf{}), store.ErrNotFound)
	assert.ErrorIs(t, s.DeleteDrill(in(t), id), store.ErrNotFound)
	assert.ErrorIs(t, s.GiveNewest(in(t), uuid.New()), store.ErrNotFound)
	versions, err := s.Versions(in(t), id, nil)
	require.NoError(t, err)
	assert.Empty(t, versions)
}

func TestShelves(t *testing.T) {
	s := own(t)
	id := added(t, s, store.Shelf{Folder: "Slurs", Tags: []string{"warm-up", "year 1"}, Favourite: true})
	d, err := s.Drill(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, store.Shelf{Folder: "Slurs", Tags: []string{"warm-up", "year 1"}, Favourite: true, ShelfRevision: 1}, d.Shelf)
	require.NoError(t, s.PutOnShelf(in(t), id, store.Shelf{ShelfRevision: 1}))
	assert.ErrorIs(t, s.PutOnShelf(in(t), id, store.Shelf{ShelfRevision: 1, Folder: "late"}), store.ErrChanged)
	d, err = s.Drill(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, store.Shelf{Tags: []string{}, ShelfRevision: 2}, d.Shelf)
}

func TestBlocks(t *testing.T) {
	s := own(t)
	b := drillfile.Block{Name: "two", Items: []drillfile.BlockItem{{File: fileAt(5), Seconds: 15}, {File: fileAt(7), Seconds: 30}}}
	id := uuid.New()
	require.NoError(t, s.AddBlock(in(t), id, b))
	got, err := s.Block(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, 30, got.Block.Value.Items[1].Seconds)
	assert.Equal(t, 7, got.Block.Value.Items[1].File.Drill.Path.Position)
	all, err := s.Blocks(in(t), store.Page{})
	require.NoError(t, err)
	assert.Len(t, all, 1)
	require.NoError(t, s.DeleteBlock(in(t), id))
	_, err = s.Block(in(t), id)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, s.DeleteBlock(in(t), id), store.ErrNotFound)
}

// Two windows change one block: one of them is told, and nothing is lost of the other.
func TestABlockIsChangedByOneAtATime(t *testing.T) {
	s := own(t)
	id := uuid.New()
	block := func(name string) drillfile.Block {
		return drillfile.Block{Name: name, Items: []drillfile.BlockItem{{File: fileAt(5), Seconds: 15}}}
	}
	require.NoError(t, s.AddBlock(in(t), id, block("as it was")))
	before, err := s.Block(in(t), id)
	require.NoError(t, err)
	names := []string{"left", "right", "middle", "late"}
	failed := make([]error, len(names))
	var all sync.WaitGroup
	for i, name := range names {
		all.Go(func() { failed[i] = s.ChangeBlock(in(t), id, before.Revision, block(name)) })
	}
	all.Wait()
	won := -1
	for i, err := range failed {
		if err == nil {
			assert.Equal(t, -1, won, "only one may win")
			won = i
			continue
		}
		assert.ErrorIs(t, err, store.ErrChanged)
	}
	require.GreaterOrEqual(t, won, 0)
	after, err := s.Block(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, names[won], after.Name)
	assert.Equal(t, before.Revision+1, after.Revision)
	require.NoError(t, s.DeleteBlock(in(t), id))
	assert.ErrorIs(t, s.ChangeBlock(in(t), id, after.Revision, block("gone")), store.ErrNotFound)
	require.NoError(t, s.RestoreBlock(in(t), id))
	assert.NoError(t, s.ChangeBlock(in(t), id, after.Revision, block("back")))
}

func TestSetups(t *testing.T) {
	s := own(t)
	kept, revision, err := s.Setup(in(t), ben.ID)
	require.NoError(t, err)
	assert.Equal(t, setup.Usual(), kept)
	kept.Guitar.Capo, kept.LeftHanded, kept.Hand["12"] = 2, true, 45
	require.NoError(t, s.ChangeSetup(in(t), ben.ID, revision, kept))
	assert.ErrorIs(t, s.ChangeSetup(in(t), ben.ID, revision, setup.Usual()), store.ErrChanged)
	got, _, err := s.Setup(in(t), ben.ID)
	require.NoError(t, err)
	assert.Equal(t, kept, got)
	a, err := s.Assign(in(t), added(t, s, store.Shelf{}), ben.ID)
	require.NoError(t, err)
	stand, err := s.Stand(in(t), a)
	require.NoError(t, err)
	assert.Equal(t, kept, stand.StudentSetup(), "a drill is written out for the student's guitar")
	_, _, err = s.Setup(in(t), uuid.New())
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, s.ChangeSetup(in(t), uuid.New(), 1, kept), store.ErrNotFound)
}

// in is the test's context, in which its studio is asked.
func in(t *testing.T) context.Context { return storetest.In(t.Context()) }
