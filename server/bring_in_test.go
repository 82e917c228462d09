package server_test

import (
	"net/http"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/store"
	"manudrill/storetest"
)

// A student who was taken out and is gone for good comes back with everything.
func TestAStudentIsBroughtIn(t *testing.T) {
	mira := store.Person{ID: uuid.New(), Name: "Mira Wiederkehr", Role: store.Student, Demo: true}
	ctx := storetest.In(t.Context())
	require.NoError(t, kept.AddPerson(ctx, mira))
	take := taken(t, assigned(t, someDrill(), mira), mira, steady)
	c := as(t, teacher)
	c.ok(http.MethodPut, "/takes/"+take.Summary.Id.String()+"/comments/"+uuid.NewString(), map[string]any{"note": 1, "text": "Here it rings."}, nil)
	path := "/people/" + mira.ID.String()
	status, file := c.do(http.MethodGet, path+"/archive.zip", nil)
	require.Equal(t, http.StatusOK, status)

	status, raw := c.do(http.MethodPost, "/archives", file)
	assert.Equal(t, http.StatusConflict, status, "%s", raw)
	assert.Contains(t, string(raw), "here already")

	var before api.Take
	c.ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &before)
	forgetNow(t, mira)
	c.fails(http.StatusNotFound, http.MethodGet, path, nil)
	var brought api.BroughtIn
	c.ok(http.MethodPost, "/archives", file, &brought)
	assert.Equal(t, api.BroughtIn{StudentId: &mira.ID, Name: mira.Name, Students: 1, Takes: 1, Sounds: 1}, brought, "the drill was here")
	var after api.Take
	c.ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &after)
	assert.Equal(t, before, after)
	status, sound := c.do(http.MethodGet, "/takes/"+take.Summary.Id.String()+"/sound", nil)
	assert.Equal(t, http.StatusOK, status)
	assert.NotEmpty(t, sound)
}

// forgetNow deletes somebody as if their waiting time were over.
func forgetNow(t *testing.T, p store.Person) {
	t.Helper()
	as(t, teacher).ok(http.MethodDelete, "/people/"+p.ID.String(), nil, nil)
	_, err := kept.Pool().Exec(store.AsHouse(t.Context()), `UPDATE people SET remove_at = now() - interval '1 day' WHERE id = $1`, p.ID)
	require.NoError(t, err)
	_, err = kept.ForgetRemoved(t.Context())
	require.NoError(t, err)
}

func TestWhatCannotBeBroughtIn(t *testing.T) {
	c := as(t, teacher)
	for name, body := range map[string][]byte{"nothing": {}, "a text": []byte("Mira, mira@example.org"), "half a ZIP": []byte("PK\x03\x04")} {
		status, raw := c.do(http.MethodPost, "/archives", body)
		assert.Equal(t, http.StatusUnprocessableEntity, status, "%s: %s", name, raw)
		assert.Contains(t, string(raw), "no archive", name)
	}
	as(t, ben).fails(http.StatusForbidden, http.MethodPost, "/archives", []byte("x"))
}

// A studio's archive is the owner's to take out and to bring in, and comes into an empty
// studio alone.
func TestAStudioIsTakenOut(t *testing.T) {
	oda := begin(t, base, "Moving "+uuid.NewString(), "oda"+uuid.NewString())
	id := uuid.New()
	oda.ok(http.MethodPost, "/people", map[string]any{"people": []any{map[string]any{"id": id, "name": "Mira", "role": "student"}}}, nil)
	status, file := oda.do(http.MethodGet, "/studio/archive.zip", nil)
	require.Equal(t, http.StatusOK, status)
	as(t, teacher).fails(http.StatusForbidden, http.MethodGet, "/studio/archive.zip", nil)
	as(t, teacher).fails(http.StatusForbidden, http.MethodPost, "/archives", file)
	status, raw := oda.do(http.MethodPost, "/archives", file)
	assert.Equal(t, http.StatusConflict, status, "%s", raw)
	assert.Contains(t, string(raw), "students here already")

	other := begin(t, base, "Empty "+uuid.NewString(), "ola"+uuid.NewString())
	status, raw = other.do(http.MethodPost, "/archives", file)
	assert.Equal(t, http.StatusConflict, status, "%s", raw)
	assert.Contains(t, string(raw), "as something else", "the first studio still has them")
	var lines api.AuditPage
	oda.ok(http.MethodGet, "/audit", nil, &lines)
	assert.Equal(t, "took out everything about", lines.Items[0].Did)
	assert.WithinDuration(t, time.Now(), lines.Items[0].At, time.Minute)
}
