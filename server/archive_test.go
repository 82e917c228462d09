package server_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/simulate"
	"manudrill/formats/sound"
	"manudrill/store"
	"manudrill/storetest"
)

// Everything about a student is in one file, which the student gets too, without
// what instructors noted for themselves; nobody else does.
func TestEverythingAboutAStudent(t *testing.T) {
	h := newHouse(t)
	mira := store.Person{ID: uuid.New(), Name: "Mira Tamsin", Role: store.Student, Demo: true}
	require.NoError(t, h.kept.AddPerson(storetest.In(t.Context()), mira))
	take := h.taken(t, h.assigned(t, someDrill(), mira), mira, steady)
	path := "/people/" + mira.ID.String()
	c := h.as(t, teacher)
	c.on(1).ok(http.MethodPut, path, map[string]any{"name": "Mira Tamsin", "email": "mira@example.org", "note": "shy", "consent": true, "consentBy": "her mother", "groups": []any{}}, nil)
	c.ok(http.MethodPut, "/takes/"+take.Summary.Id.String()+"/comments/"+uuid.NewString(), map[string]any{"note": 1, "text": "Here it rings."}, nil)

	files := func(c client) map[string]string {
		t.Helper()
		status, raw := c.do(http.MethodGet, path+"/archive.zip", nil)
		require.Equal(t, http.StatusOK, status, "%s", raw)
		z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
		require.NoError(t, err)
		all := map[string]string{}
		for _, f := range z.File {
			r, err := f.Open()
			require.NoError(t, err)
			text, err := io.ReadAll(r)
			require.NoError(t, err)
			name := f.Name
			if strings.HasPrefix(name, "takes/") {
				name = name[strings.LastIndex(name, "/")+1:]
			}
			all[name] = string(text)
		}
		return all
	}
	all := files(c)
	assert.Contains(t, all["student.json"], `"note": "shy"`)
	assert.Contains(t, all["student.json"], "her mother")
	assert.Contains(t, all["takes.csv"], "pairs,100,2,simulated,measured,100,")
	var kept api.Take
	require.NoError(t, json.Unmarshal([]byte(all["take.json"]), &kept))
	assert.Equal(t, "Here it rings.", kept.Comments[0].Text)
	var drills []struct{ Moves []api.Move }
	require.NoError(t, json.Unmarshal([]byte(all["drills.json"]), &drills))
	assert.Len(t, drills[0].Moves, 1)
	heard, err := sound.Open(strings.NewReader(all["take.flac"]))
	require.NoError(t, err)
	assert.Equal(t, simulate.Rate, heard.Rate)

	assert.NotContains(t, files(h.as(t, mira))["student.json"], "shy")
	h.as(t, ben).fails(http.StatusNotFound, http.MethodGet, path+"/archive.zip", nil)
	var lines api.AuditPage
	c.ok(http.MethodGet, "/audit?studentId="+mira.ID.String(), nil, &lines)
	assert.Equal(t, "took out everything about", lines.Items[0].Did)
}
