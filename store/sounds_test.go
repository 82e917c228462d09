package store_test

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"net/http/httptest"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/johannesboyne/gofakes3"
	"github.com/johannesboyne/gofakes3/backend/s3mem"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/evenness"
	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/store"
	"manudrill/storetest"
)

// otherProgram is a second program on the tests' database, told to keep sounds outside
// it.
func otherProgram(t *testing.T, s *store.Store, bucket string) *store.Store {
	t.Helper()
	other := opened(t, s)
	require.NoError(t, other.KeepSoundsIn(t.Context(), bucket))
	return other
}

// opened is a second program on the tests' database.
func opened(t *testing.T, s *store.Store) *store.Store {
	t.Helper()
	other, err := store.Open(t.Context(), s.Pool().Config().ConnString())
	require.NoError(t, err)
	t.Cleanup(other.Close)
	return other
}

// buckets are a folder, and a server that speaks S3 (gofakes3).
func buckets(t *testing.T) map[string]string {
	t.Helper()
	backend := s3mem.New()
	require.NoError(t, backend.CreateBucket("sounds"))
	srv := httptest.NewServer(gofakes3.New(backend).Server())
	t.Cleanup(srv.Close)
	s3 := "s3://sounds?" + url.Values{"region": {"eu-north-1"}, "endpoint": {srv.URL}, "use_path_style": {"true"}}.Encode()
	return map[string]string{"a folder": "file://" + t.TempDir() + "", "S3": s3}
}

// handInTo hands a take with a sound of its own in to a store.
func handInTo(t *testing.T, to *store.Store, assignment uuid.UUID, sound io.Reader, also func(pgx.Tx) error) (uuid.UUID, error) {
	t.Helper()
	a, err := to.Stand(in(t), assignment)
	require.NoError(t, err)
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	id := uuid.New()
	return id, to.HandIn(in(t), store.HandIn{
		ID: id, AssignmentID: a.ID, Version: a.Version, Rung: at(60), Source: store.File, RecordedAt: time.Now(), Chart: chart, Sound: sound, Hash: id[:],
	}, also)
}

// noise is a sound of some parts.
func noise(seed byte) []byte {
	b := make([]byte, 700_001)
	for i := range b {
		b[i] = byte(i*i>>5) ^ seed
	}
	return b
}

func readAll(t *testing.T, from *store.Store, take uuid.UUID) []byte {
	t.Helper()
	sound, err := from.Sound(in(t), take)
	require.NoError(t, err)
	defer sound.Close()
	raw, err := io.ReadAll(sound)
	require.NoError(t, err)
	return raw
}

// Wherever sounds lie, they are read byte for byte, from any place, replaced and
// dropped; those that came before the setting stay where they are.
func TestSoundsLieInABucket(t *testing.T) {
	s := own(t)
	for name, address := range buckets(t) {
		t.Run(name, func(t *testing.T) {
			other := otherProgram(t, s, address)
			a := assignedTo(t, s, ann)
			before, err := handInTo(t, s, a, bytes.NewReader(noise(1)), nothing)
			require.NoError(t, err)
			take, err := handInTo(t, other, a, bytes.NewReader(noise(2)), nothing)
			require.NoError(t, err)
			assert.Equal(t, noise(1), readAll(t, other, before))
			assert.Equal(t, noise(2), readAll(t, other, take))
			var parts int
			require.NoError(t, s.Pool().QueryRow(in(t), `SELECT count(*) FROM sound_parts WHERE take_id = $1`, take).Scan(&parts))
			assert.Zero(t, parts, "it is in the bucket")

			sound, err := other.Sound(in(t), take)
			require.NoError(t, err)
			_, err = sound.Seek(-5, io.SeekEnd)
			require.NoError(t, err)
			end, err := io.ReadAll(sound)
			require.NoError(t, err)
			assert.Equal(t, noise(2)[len(noise(2))-5:], end)
			require.NoError(t, sound.Close())

			require.NoError(t, other.KeepSound(in(t), take, strings.NewReader("fLaC")))
			assert.Equal(t, "fLaC", string(readAll(t, other, take)))
			require.NoError(t, other.KeepSound(in(t), before, strings.NewReader("fLaC too")))
			assert.Equal(t, "fLaC too", string(readAll(t, other, before)), "measured again, it moves into the bucket")
			require.NoError(t, s.Pool().QueryRow(in(t), `SELECT count(*) FROM sound_parts WHERE take_id = $1`, before).Scan(&parts))
			assert.Zero(t, parts)

			_, err = s.Sound(in(t), take)
			assert.ErrorContains(t, err, "MANUDRILL_SOUNDS", "a program that was not told of the bucket says so")
			_, err = other.Sound(store.Within(t.Context(), store.Scope{Studio: storetest.Studio, Student: ben.ID}), take)
			assert.ErrorIs(t, err, store.ErrNotFound, "somebody else's is not opened")
		})
	}
}

// A place that cannot be used is told of at the start, with what to do.
func TestAPlaceForSoundsThatCannotBeUsed(t *testing.T) {
	s := own(t)
	file := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	for address, says := range map[string]string{
		"s3://nowhere?region=eu-north-1&endpoint=http://127.0.0.1:1": "check its name and who may use it",
		"s3://sounds?region=eu-north-1&path_style=true":              `"path_style" that is not known; there are region`,
		"file:///nowhere/at/all":                                     "no such file",
		"file://" + file:                                             "is no folder",
		"/a/folder":                                                  "say file:///folder, or s3://bucket",
		"ftp://sounds":                                               "say file:///folder, or s3://bucket",
	} {
		assert.ErrorContains(t, opened(t, s).KeepSoundsIn(t.Context(), address), says, address)
	}
}

// A take whose sound does not come to its end, or whose row cannot be written, is
// not kept; what is left of it in the bucket is found and dropped, and nothing else.
func TestWhatIsLeftOverInABucketIsDropped(t *testing.T) {
	s := own(t)
	folder := t.TempDir()
	other := otherProgram(t, s, "file://"+folder)
	a := assignedTo(t, s, ann)
	broken := io.MultiReader(bytes.NewReader(noise(3)), errReader{errors.New("the line broke off")})
	take, err := handInTo(t, other, a, broken, nothing)
	require.ErrorContains(t, err, "the line broke off")
	_, err = other.TakeSummary(in(t), take)
	assert.ErrorIs(t, err, store.ErrNotFound)
	stray, err := handInTo(t, other, a, bytes.NewReader(noise(4)), func(pgx.Tx) error { return errors.New("no job") })
	require.ErrorContains(t, err, "no job")
	kept, err := handInTo(t, other, a, bytes.NewReader(noise(5)), nothing)
	require.NoError(t, err)

	sounds := func() int {
		files, err := filepath.Glob(filepath.Join(folder, "*", "*"))
		require.NoError(t, err)
		return len(files)
	}
	require.Equal(t, 2, sounds())
	require.NoError(t, other.DropStrays(t.Context()))
	assert.Equal(t, 2, sounds(), "they are fresh: their takes may be on their way")
	files, err := filepath.Glob(filepath.Join(folder, "*", "*"))
	require.NoError(t, err)
	for _, f := range files {
		require.NoError(t, os.Chtimes(f, time.Time{}, time.Now().Add(-48*time.Hour)))
	}
	require.NoError(t, other.DropStrays(t.Context()))
	assert.Equal(t, 1, sounds())
	assert.Equal(t, noise(5), readAll(t, other, kept))
	_ = stray
}

type errReader struct{ err error }

func (e errReader) Read([]byte) (int, error) { return 0, e.err }

// Sounds are dropped once they are older than the studio keeps them, but for the
// best take of each drill and those that were commented on. The results stay.
func TestOldSoundsAreDropped(t *testing.T) {
	s := own(t)
	for name, address := range buckets(t) {
		t.Run(name, func(t *testing.T) { dropsOld(t, s, otherProgram(t, s, address)) })
	}
	t.Run("the database", func(t *testing.T) { dropsOld(t, s, s) })
}

func dropsOld(t *testing.T, s *store.Store, from *store.Store) {
	h := newHouse(t, s)
	one, two := h.assigned(t, s), h.assigned(t, s)
	old := func(assignment uuid.UUID, bpm float64, found evenness.Analysis) uuid.UUID {
		t.Helper()
		return h.played(t, s, from, assignment, bpm, found, 40)
	}
	takes := map[string]uuid.UUID{
		"slower":    old(one, 60, clean(60, 2)),
		"best":      old(one, 64, clean(64, 2)),
		"failed":    old(one, 68, uneven(68)),
		"commented": old(one, 68, uneven(68)),
		"fresh":     h.played(t, s, from, one, 68, uneven(68), 3),
		"uneven":    old(two, 60, spread(60, 30)),
		"more even": old(two, 60, spread(60, 12)),
	}
	require.NoError(t, from.PutComment(h.ctx, store.Comment{ID: uuid.New(), TakeID: takes["commented"], Text: "better", Author: h.teacher}))
	dropped := func() (names []string) {
		t.Helper()
		_, err := from.DropOldSounds(t.Context())
		require.NoError(t, err)
		for _, name := range []string{"slower", "best", "failed", "commented", "fresh", "uneven", "more even"} {
			sound, err := from.Sound(h.ctx, takes[name])
			if err == nil {
				require.NoError(t, sound.Close())
				continue
			}
			assert.ErrorIs(t, err, store.ErrDropped)
			names = append(names, name)
		}
		return names
	}
	assert.Empty(t, dropped(), "for ever, where nothing is said")
	thirty, forty := 30, 45
	require.NoError(t, from.ChangeStudio(h.ctx, 1, "Other studio", &forty, nil))
	assert.Empty(t, dropped())
	require.NoError(t, from.ChangeStudio(h.ctx, 2, "Other studio", &thirty, nil))
	assert.Equal(t, []string{"slower", "failed", "uneven"}, dropped())
	take, err := from.Take(h.ctx, takes["failed"])
	require.NoError(t, err)
	assert.True(t, take.SoundDropped)
	assert.Len(t, take.Analysis.Passes, 1)
	assert.NotNil(t, take.Decision)
}

// spread is what is found in a take of one pass that is so uneven.
func spread(bpm, percent float64) evenness.Analysis {
	a := uneven(bpm)
	a.Timing.SpreadPercent = percent
	return a
}

// Somebody removed is there to be brought back until the waiting time is over; then
// nothing about them is left, and nothing of anybody else is missing.
func TestNothingIsLeftOfWhoWasRemoved(t *testing.T) {
	s := own(t)
	for name, address := range buckets(t) {
		t.Run(name, func(t *testing.T) { forgets(t, s, otherProgram(t, s, address)) })
	}
	t.Run("the database", func(t *testing.T) { forgets(t, s, s) })
}

func forgets(t *testing.T, s *store.Store, from *store.Store) {
	h := newHouse(t, s)
	take := h.played(t, s, from, h.assigned(t, s), 60, clean(60, 2), 1)
	theirs := map[string]string{
		"people": "id", "takes": "student_id", "assignments": "student_id", "group_members": "person_id", "codes": "person_id", "sessions": "person_id", "resets": "person_id",
		"audit": "student_id",
	}
	of := func(who uuid.UUID) (left int) {
		for table, column := range theirs {
			var n int
			require.NoError(t, s.Pool().QueryRow(store.AsHouse(t.Context()), fmt.Sprintf(`SELECT count(*) FROM %s WHERE %s = $1`, table, column), who).Scan(&n))
			left += n
		}
		return left
	}
	others := of(h.other.ID)
	require.NoError(t, from.Remove(h.ctx, h.student.ID))
	_, err := from.Account(t.Context(), h.student.ID)
	assert.ErrorIs(t, err, store.ErrNotFound, "out at once")
	_, err = from.ForgetRemoved(t.Context())
	require.NoError(t, err)
	assert.Positive(t, of(h.student.ID))
	require.NoError(t, from.BringBack(h.ctx, h.student.ID))
	require.NoError(t, from.Remove(h.ctx, h.student.ID))

	over := func(ago string) {
		t.Helper()
		_, err := s.Pool().Exec(store.AsHouse(t.Context()), `UPDATE people SET remove_at = now() - $2::interval WHERE id = $1`, h.student.ID, ago)
		require.NoError(t, err)
	}
	over("1 second")
	assert.ErrorIs(t, from.BringBack(h.ctx, h.student.ID), store.ErrNotFound, "they are being forgotten: who came back now would have lost takes")
	n, err := from.ForgetRemoved(t.Context())
	require.NoError(t, err)
	assert.Zero(t, n, "whoever was brought back in the last moment is through first")
	over("1 hour")
	n, err = from.ForgetRemoved(t.Context())
	require.NoError(t, err)
	assert.Equal(t, 1, n)
	assert.Zero(t, of(h.student.ID))
	for _, table := range []string{"take_sounds", "sound_parts", "take_comments"} {
		var n int
		require.NoError(t, s.Pool().QueryRow(store.AsHouse(t.Context()), `SELECT count(*) FROM `+table+` WHERE take_id IN ($1, $2)`, take, h.take).Scan(&n))
		assert.Zero(t, n, table)
	}
	_, err = from.Sound(h.ctx, take)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.Equal(t, others, of(h.other.ID))
	lines, err := from.Audit(h.ctx, nil, store.Page{})
	require.NoError(t, err)
	assert.Equal(t, "deleted everything about", lines[0].Did)
	for _, l := range lines {
		assert.NotContains(t, l.About, h.student.Name, "not even their name")
	}
}

// assigned gives the house's student a drill of its own.
func (h house) assigned(t *testing.T, s *store.Store) uuid.UUID {
	t.Helper()
	id := uuid.New()
	require.NoError(t, s.AddDrill(h.ctx, id, fileAt(5), store.Shelf{}))
	assignment, err := s.Assign(h.ctx, id, h.student.ID)
	require.NoError(t, err)
	return assignment
}

// played hands a take in that was handed in some days ago, and measures it.
func (h house) played(t *testing.T, s *store.Store, to *store.Store, assignment uuid.UUID, bpm float64, found evenness.Analysis, daysAgo int) uuid.UUID {
	t.Helper()
	a, err := to.Stand(h.ctx, assignment)
	require.NoError(t, err)
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), bpm)
	require.NoError(t, err)
	id := uuid.New()
	require.NoError(t, to.HandIn(h.ctx, store.HandIn{
		ID: id, AssignmentID: a.ID, Version: a.Version, Rung: tempo.Rung{BPM: bpm, NotesPerBeat: 2}, Source: store.File, RecordedAt: time.Now(), Chart: chart,
		Sound: strings.NewReader("sound"), Hash: id[:],
	}, nothing))
	require.NoError(t, to.Measured(h.ctx, id, store.Measurement{Analysis: found, Seconds: 3, Listener: 1}))
	_, err = s.Pool().Exec(h.ctx, `UPDATE takes SET handed_in_at = now() - make_interval(days => $2) WHERE id = $1`, id, daysAgo)
	require.NoError(t, err)
	return id
}

// A student who is away stays in their group, whatever is changed in it meanwhile.
func TestAGroupKeepsWhoIsAway(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	g := store.Group{ID: uuid.New(), Name: "Evening", Students: []uuid.UUID{h.student.ID, h.other.ID}}
	require.NoError(t, s.PutGroup(h.ctx, g))
	require.NoError(t, s.Archive(h.ctx, h.student.ID))
	g.Revision, g.Students = 1, nil
	require.NoError(t, s.PutGroup(h.ctx, g))
	require.NoError(t, s.BringBack(h.ctx, h.student.ID))
	m, err := s.Member(h.ctx, h.student.ID)
	require.NoError(t, err)
	assert.Contains(t, m.Groups, g.ID)
	m, err = s.Member(h.ctx, h.other.ID)
	require.NoError(t, err)
	assert.NotContains(t, m.Groups, g.ID)
}

// Two who hand in the video of one take at once leave one of them, whole.
func TestTwoVideosOfOneTakeAtOnce(t *testing.T) {
	s := own(t)
	take := handedIn(t, s, assignedTo(t, s, ann), 60, time.Now())
	films := [][]byte{bytes.Repeat([]byte{1}, 600_000), bytes.Repeat([]byte{2}, 300_000)}
	for range 5 {
		var both sync.WaitGroup
		for _, f := range films {
			both.Go(func() {
				assert.NoError(t, s.PutVideo(in(t), take, store.Video{Media: "video/webm"}, bytes.NewReader(f)))
			})
		}
		both.Wait()
		v, film, err := s.OpenVideo(in(t), take)
		require.NoError(t, err)
		got, err := io.ReadAll(film)
		require.NoError(t, err)
		require.NoError(t, film.Close())
		assert.Len(t, got, int(v.Size))
		assert.Contains(t, films, got)
	}
	require.NoError(t, s.DeleteVideo(in(t), take))
	require.ErrorIs(t, s.DeleteVideo(in(t), take), store.ErrNotFound)
	var parts int
	require.NoError(t, s.Pool().QueryRow(store.AsHouse(t.Context()), `SELECT count(*) FROM video_parts WHERE take_id = $1`, take).Scan(&parts))
	assert.Zero(t, parts)
}
