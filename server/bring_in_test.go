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
	h := newHouse(t)
	mira := store.Person{ID: uuid.New(), Name: "Mira Wiederkehr", Role: store.Student, Demo: true}
	ctx := storetest.In(t.Context())
	require.NoError(t, h.kept.AddPerson(ctx, mira))
	take := h.taken(t, h.assigned(t, someDrill(), mira), mira, steady)
	c := h.as(t, teacher)
	c.ok(http.MethodPut, "/takes/"+take.Summary.Id.String()+"/comments/"+uuid.NewString(), map[string]any{"note": 1, "text": "Here it rings."}, nil)
	path := "/people/" + mira.ID.String()
	status, file := c.do(http.MethodGet, path+"/archive.zip", nil)
	require.Equal(t, http.StatusOK, status)

	status, raw := c.do(http.MethodPost, "/archives", file)
	assert.Equal(t, http.StatusConflict, status, "%s", raw)
	assert.Contains(t, string(raw), "here already")

	var before api.Take
	c.ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &before)
	h.forgetNow(t, mira)
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
func (h *house) forgetNow(t *testing.T, p store.Person) {
	t.Helper()
	h.as(t, teacher).ok(http.MethodDelete, "/people/"+p.ID.String(), nil, nil)
	_, err := h.kept.Pool().Exec(store.AsHouse(t.Context()), `UPDATE people SET remove_at = now() - interval '1 day' WHERE id = $1`, p.ID)
	require.NoError(t, err)
	_, err = h.kept.ForgetRemoved(t.Context())
	require.NoError(t, err)
}

func TestWhatCannotBeBroughtIn(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	for name, body := range map[string][]byte{"nothing": {}, "a text": []byte("Mira, mira@example.org"), "half a ZIP": []byte("PK\x03\x04")} {
		status, raw := c.do(http.MethodPost, "/archives", body)
		assert.Equal(t, http.StatusUnprocessableEntity, status, "%s: %s", name, raw)
		assert.Contains(t, string(raw), "no archive", name)
	}
	h.as(t, ben).fails(http.StatusForbidden, http.MethodPost, "/archives", []byte("x"))
}

// A studio's archive is the owner's to take out and to bring in, and comes into an empty
// studio alone.
func TestAStudioIsTakenOut(t *testing.T) {
	h := newHouse(t)
	oda := h.begin(t, h.base, "Moving "+uuid.NewString(), "oda"+uuid.NewString())
	id := uuid.New()
	oda.ok(http.MethodPost, "/people", map[string]any{"people": []any{map[string]any{"id": id, "name": "Mira", "role": "student"}}}, nil)
	status, file := oda.do(http.MethodGet, "/studio/archive.zip", nil)
	require.Equal(t, http.StatusOK, status)
	h.as(t, teacher).fails(http.StatusForbidden, http.MethodGet, "/studio/archive.zip", nil)
	h.as(t, teacher).fails(http.StatusForbidden, http.MethodPost, "/archives", file)
	status, raw := oda.do(http.MethodPost, "/archives", file)
	assert.Equal(t, http.StatusConflict, status, "%s", raw)
	assert.Contains(t, string(raw), "students here already")

	other := h.begin(t, h.base, "Empty "+uuid.NewString(), "ola"+uuid.NewString())
	status, raw = other.do(http.MethodPost, "/archives", file)
	assert.Equal(t, http.StatusConflict, status, "%s", raw)
	assert.Contains(t, string(raw), "as something else", "the first studio still has them")
	var lines api.AuditPage
	oda.ok(http.MethodGet, "/audit", nil, &lines)
	assert.Equal(t, "took out everything about", lines.Items[0].Did)
	assert.WithinDuration(t, time.Now(), lines.Items[0].At, time.Hour)
}
