package store_test

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/store"
	"manudrill/storetest"
)

// leftOut are the tables whose rows are not taken out, and why.
var leftOut = map[string]string{
	"passwords": "secret", "codes": "secret", "resets": "secret", "openings": "secret", "calendars": "secret", "sessions": "secret",
	"mails": "are sent once", "remeasurings": "pass", "facts": "are the house's", "goose_db_version": "is the house's",
	"take_sounds": "come as files", "sound_parts": "come as files", "video_parts": "come as files",
}

// takenOut is what was taken out, held whole.
type takenOut struct {
	rows          map[string][]string
	sounds, hands map[uuid.UUID]string
}

func (o takenOut) Rows(table string, row func([]byte) error) error {
	for _, r := range o.rows[table] {
		if err := row([]byte(r)); err != nil {
			return err
		}
	}
	return nil
}

func (o takenOut) Sound(take uuid.UUID) (io.ReadCloser, error) { return file(o.sounds, take) }
func (o takenOut) Video(take uuid.UUID) (io.ReadCloser, error) { return file(o.hands, take) }

func file(of map[uuid.UUID]string, take uuid.UUID) (io.ReadCloser, error) {
	if text, has := of[take]; has {
		return io.NopCloser(strings.NewReader(text)), nil
	}
	return nil, nil
}

// with is the same with a row of a table changed.
func (o takenOut) with(table, from, to string) takenOut {
	rows := map[string][]string{}
	for name, all := range o.rows {
		rows[name] = slices.Clone(all)
	}
	for i, r := range rows[table] {
		rows[table][i] = strings.ReplaceAll(r, from, to)
	}
	return takenOut{rows, o.sounds, o.hands}
}

func takeOut(t *testing.T, from *store.Store, ctx context.Context, student *uuid.UUID, takes ...uuid.UUID) takenOut {
	t.Helper()
	o := takenOut{map[string][]string{}, map[uuid.UUID]string{}, map[uuid.UUID]string{}}
	require.NoError(t, from.Rows(ctx, student, func(table string, row []byte) error {
		o.rows[table] = append(o.rows[table], string(row))
		return nil
	}))
	for _, take := range takes {
		sound, err := from.Sound(ctx, take)
		require.NoError(t, err)
		raw, err := io.ReadAll(sound)
		require.NoError(t, err)
		o.sounds[take] = string(raw)
		_, video, err := from.OpenVideo(ctx, take)
		require.NoError(t, err)
		raw, err = io.ReadAll(video)
		require.NoError(t, err)
		o.hands[take] = string(raw)
	}
	return o
}

// compared is what must be the same there and back: the rows without their studio.
func compared(t *testing.T, o takenOut) map[string][]map[string]any {
	t.Helper()
	all := map[string][]map[string]any{}
	for table, rows := range o.rows {
		for _, row := range rows {
			fields := map[string]any{}
			require.NoError(t, json.Unmarshal([]byte(row), &fields))
			delete(fields, "studio_id")
			if table == "studios" { // which stays the one it is, and is changed
				delete(fields, "id")
				delete(fields, "handle")
				delete(fields, "made_at")
				delete(fields, "revision")
			}
			all[table] = append(all[table], fields)
		}
	}
	return all
}

func noTake(pgx.Tx, uuid.UUID) error { return errors.New("no take waits") }

// emptyHouse is a database of its own with a studio that has an owner.
func emptyHouse(t *testing.T) (*store.Store, context.Context) {
	t.Helper()
	other := storetest.Open(t)
	id, owner := uuid.New(), store.Person{ID: uuid.New(), Name: "Owen", Role: store.Owner}
	require.NoError(t, other.AddStudio(t.Context(), id, "Empty"))
	ctx := store.Within(t.Context(), store.Scope{Studio: id, Actor: owner})
	require.NoError(t, other.AddPerson(ctx, owner))
	return other, ctx
}

func TestEachTableIsTakenOutOrHasAReasonNotToBe(t *testing.T) {
	s := own(t)
	for _, table := range tables(t, s) {
		if strings.HasPrefix(table, "river_") {
			continue
		}
		_, out := leftOut[table]
		assert.NotEqual(t, out, slices.Contains(store.Tables(), table), "%s: say in one place what becomes of it", table)
	}
}

// A whole studio comes into an empty house as it was, to the last row.
func TestAStudioThereAndBack(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	o := takeOut(t, s, h.ctx, nil, h.take)
	for _, table := range store.Tables() {
		assert.NotEmpty(t, o.rows[table], "%s, or this would prove nothing", table)
	}
	assert.NotContains(t, strings.Join(o.rows["people"], ""), "sign_in")

	other, ctx := emptyHouse(t)
	brought, err := other.BringIn(ctx, nil, o, noTake)
	require.NoError(t, err)
	assert.Equal(t, store.BroughtIn{Students: 2, Drills: 1, Takes: 1, Sounds: 1}, brought)
	again := takeOut(t, other, ctx, nil, h.take)
	want, got := compared(t, o), compared(t, again)
	want["people"] = append(want["people"], got["people"][slices.IndexFunc(got["people"], func(p map[string]any) bool { return p["name"] == "Owen" })])
	for table := range want {
		if table == "audit" {
			owens := func(line map[string]any) bool { return line["actor"] == "Owen" }
			assert.True(t, slices.ContainsFunc(got[table], func(line map[string]any) bool { return owens(line) && line["did"] == "brought in" }), "it is written down")
			got[table] = slices.DeleteFunc(got[table], owens)
		}
		assert.ElementsMatch(t, want[table], got[table], table)
	}
	assert.Equal(t, o.sounds, again.sounds)
	assert.Equal(t, o.hands, again.hands)

	_, err = other.BringIn(ctx, nil, o, noTake)
	assert.ErrorIs(t, err, store.ErrNotEmpty)
}

// A student comes with their drills and with who has commented, and once.
func TestAStudentThereAndBack(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	id := h.student.ID
	o := takeOut(t, s, h.ctx, &id, h.take)
	assert.Len(t, o.rows["people"], 2, "the student, and who has commented")
	assert.NotContains(t, strings.Join(o.rows["people"], ""), h.other.Name)

	other, ctx := emptyHouse(t)
	errs := make([]error, 2)
	var both sync.WaitGroup
	for i := range errs {
		both.Go(func() { _, errs[i] = other.BringIn(ctx, &id, o, noTake) })
	}
	both.Wait()
	if errs[0] != nil {
		slices.Reverse(errs)
	}
	require.NoError(t, errs[0], "of two at once one is brought in")
	require.ErrorIs(t, errs[1], store.ErrHere)
	again := takeOut(t, other, ctx, &id, h.take)
	want, got := compared(t, o), compared(t, again)
	for table := range want {
		if table != "audit" {
			assert.ElementsMatch(t, want[table], got[table], table)
		}
	}
	assert.Equal(t, o.sounds, again.sounds)
	people, err := other.People(ctx, nil)
	require.NoError(t, err)
	for _, p := range people {
		assert.NotEqual(t, h.teacher.Name, p.Name, "who has commented elsewhere does not teach here")
	}

	_, err = s.BringIn(newHouse(t, s).ctx, &id, o, noTake)
	assert.ErrorAs(t, err, new(store.ErrTaken), "another studio of the house has them")
}

// What students take out themselves can be brought in too.
func TestAStudentTakesThemselvesOut(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	id := h.student.ID
	o := takeOut(t, s, h.as(t, h.student), &id, h.take)
	assert.NotContains(t, strings.Join(o.rows["people"], ""), `"note"`)
	assert.Empty(t, o.rows["lessons"], "the notes are the instructors'")
	other, ctx := emptyHouse(t)
	brought, err := other.BringIn(ctx, &id, o, noTake)
	require.NoError(t, err)
	assert.Equal(t, store.BroughtIn{Students: 1, Drills: 1, Takes: 1, Sounds: 1}, brought)
}

// What has been changed is refused, and nothing of it is kept.
func TestAChangedArchive(t *testing.T) {
	s := own(t)
	h, stranger := newHouse(t, s), newHouse(t, s)
	id := h.student.ID
	o := takeOut(t, s, h.ctx, &id, h.take)
	other, ctx := emptyHouse(t)
	theirs := takeOut(t, s, stranger.ctx, &stranger.student.ID)
	_, err := other.BringIn(ctx, &stranger.student.ID, theirs, noTake)
	require.NoError(t, err)
	for name, changed := range map[string]takenOut{
		"a take of somebody else":   o.with("takes", id.String(), stranger.student.ID.String()),
		"an owner":                  o.with("people", `"role": "student"`, `"role": "owner"`),
		"who teaches comes in":      o.with("people", `"archived_at": "`, `"left_at": "`),
		"a chart nobody can read":   o.with("takes", `"chart": {`, `"chart": 7, "was": {`),
		"an empty chart":            o.with("takes", `"chart": {`, `"chart": {}, "was": {`),
		"no JSON":                   o.with("plans", `{`, `[`),
		"a state that is none":      o.with("takes", `"state": "measured"`, `"state": "won"`),
		"a drill that is not there": o.with("assignments", `"drill_id": "`, `"drill_id": "0`),
		"a take that is not there":  o.with("take_comments", h.take.String(), uuid.NewString()),
		"a null name":               o.with("people", `"name": "Oskar"`, `"name": null`),
	} {
		_, err := other.BringIn(ctx, &id, changed, noTake)
		assert.ErrorAs(t, err, new(store.ErrOddRow), name)
		assert.Len(t, takeOut(t, other, ctx, &id).rows["takes"], 0, name)
		_, err = other.Person(ctx, id)
		assert.ErrorIs(t, err, store.ErrNotFound, name)
	}
	_, err = other.BringIn(ctx, &id, o, noTake)
	assert.NoError(t, err, "the same unchanged")
}

// A take that waited to be measured waits again, and one whose sound is lost says so.
func TestTakesThatWaitAreMeasuredWhereTheyAreBroughtIn(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	id := h.student.ID
	o := takeOut(t, s, h.ctx, &id, h.take).with("takes", `"state": "measured"`, `"state": "waiting"`)
	clear(o.sounds)
	other, ctx := emptyHouse(t)
	var waiting []uuid.UUID
	_, err := other.BringIn(ctx, &id, o, func(_ pgx.Tx, take uuid.UUID) error {
		waiting = append(waiting, take)
		return nil
	})
	require.NoError(t, err)
	assert.Equal(t, []uuid.UUID{h.take}, waiting)
	_, err = other.Sound(ctx, h.take)
	assert.ErrorIs(t, err, store.ErrDropped)
}
