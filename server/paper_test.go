package server_test

import (
	"bytes"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/store"
	"manudrill/storetest"
)

// two students who are told apart by their addresses.
func (h *house) twoStudents(t *testing.T) (mira, jon store.Person) {
	t.Helper()
	id := uuid.NewString()
	mira = store.Person{ID: uuid.New(), Name: "Mira " + id, Role: store.Student, Demo: true}
	jon = store.Person{ID: uuid.New(), Name: "Jon " + id, Role: store.Student, Demo: true}
	for _, p := range []store.Person{mira, jon} {
		require.NoError(t, h.kept.AddPerson(storetest.In(t.Context()), p))
	}
	return mira, jon
}

// A log in Latin-1 with semicolons is looked at, kept, looked at by its student, and taken back.
func TestAPaperLog(t *testing.T) {
	h := newHouse(t)
	mira, jon := h.twoStudents(t)
	file := []byte("Date;Name;Drill;Tempo;Minutes;Note\r\n14.3.2025;" + strings.ToUpper(mira.Name) + ";Slurs;72,5;10;sp\xe4t\r\n15.3.2025;" + jon.Name + ";Trills;;5;\r\n" +
		"16.3.2025;Nobody;Slurs;80;5;\r\n31.2.2025;" + mira.Name + ";Slurs;80;5;\r\n")
	c := h.as(t, teacher)
	var p api.PaperPreview
	c.ok(http.MethodPost, "/paper/read", file, &p)
	assert.Equal(t, []int{4, 2, 4}, []int{p.Rows, p.Wrong, len(p.Entries)})
	assert.Contains(t, p.Entries[2].Fault, `Nobody here is called "Nobody"`)
	assert.Contains(t, p.Entries[3].Fault, "no such day")
	assert.Equal(t, 5, p.Entries[3].Line)
	assert.Equal(t, "spät", p.Entries[0].Note)

	log := "/paper/" + uuid.NewString()
	answers := make([]api.PaperKept, 2)
	var both sync.WaitGroup
	for i := range answers { // two clicks
		both.Go(func() { h.as(t, teacher).ok(http.MethodPut, log, file, &answers[i]) })
	}
	both.Wait()
	assert.Equal(t, 2, answers[0].Kept+answers[1].Kept)
	var again api.PaperKept
	c.ok(http.MethodPut, "/paper/"+uuid.NewString(), file, &again)
	assert.Equal(t, api.PaperKept{Known: 2, Wrong: 2}, again, "the same lines are kept once")

	var mine api.Paper
	h.as(t, mira).ok(http.MethodGet, "/students/"+mira.ID.String()+"/paper", nil, &mine)
	require.Len(t, mine.Drills, 1)
	assert.Equal(t, "Slurs", mine.Drills[0].Name)
	assert.InDelta(t, 72.5, mine.Drills[0].Points[0].BPM, 0)
	require.Len(t, mine.Logs, 1)
	assert.Equal(t, teacher.Name, mine.Logs[0].Author)
	h.as(t, jon).fails(http.StatusNotFound, http.MethodGet, "/students/"+mira.ID.String()+"/paper", nil)

	c.ok(http.MethodDelete, log, nil, nil)
	c.ok(http.MethodGet, "/students/"+mira.ID.String()+"/paper", nil, &mine)
	assert.Empty(t, mine.Drills)
	c.fails(http.StatusNotFound, http.MethodDelete, log, nil)
	c.ok(http.MethodPost, log+"/restore", nil, nil)
	c.ok(http.MethodGet, "/students/"+mira.ID.String()+"/paper", nil, &mine)
	assert.Len(t, mine.Drills, 1, "that can be undone")
	c.ok(http.MethodDelete, log, nil, nil)
	c.ok(http.MethodPut, "/paper/"+uuid.NewString(), file, &again)
	assert.Equal(t, 2, again.Kept, "what was taken back stands in nobody's way")
	c.fails(http.StatusNotFound, http.MethodPost, log+"/restore", nil)
}

// Whose log it is can be said, and so can what its columns hold.
func TestAPaperLogOfOne(t *testing.T) {
	h := newHouse(t)
	mira, _ := h.twoStudents(t)
	file := []byte("Tag;Was;Schl\xe4ge\n1/2/2025;Bindungen;80\n")
	query := "?columns=day&columns=drill&columns=tempo&dates=monthFirst&studentId=" + mira.ID.String()
	var p api.PaperPreview
	h.as(t, teacher).ok(http.MethodPost, "/paper/read"+query, file, &p)
	assert.Equal(t, []string{"Tag", "Was", "Schläge"}, p.Heads)
	assert.Empty(t, p.Entries[0].Fault)
	assert.Equal(t, "2025-01-02", p.Entries[0].Day.Format("2006-01-02"))
}

// Of 20,000 lines the first are shown, and those that are wrong up to a bound.
func TestALongPaperLog(t *testing.T) {
	h := newHouse(t)
	mira, _ := h.twoStudents(t)
	var b bytes.Buffer
	for i := range 20_000 {
		fmt.Fprintf(&b, "2025-03-%02d,%s,Slurs %d,80,5,\n", 1+i%31, mira.Name, i)
	}
	file := bytes.ReplaceAll(b.Bytes(), []byte("2025-03-31"), []byte("2025-02-31"))
	var p api.PaperPreview
	c := h.as(t, teacher)
	c.ok(http.MethodPost, "/paper/read", file, &p)
	assert.Equal(t, []int{20_000, 645}, []int{p.Rows, p.Wrong})
	assert.LessOrEqual(t, len(p.Entries), 250)
	var k api.PaperKept
	c.ok(http.MethodPut, "/paper/"+uuid.NewString(), file, &k)
	assert.Equal(t, api.PaperKept{Kept: 19_355, Wrong: 645}, k)
	var mine api.Paper
	c.ok(http.MethodGet, "/students/"+mira.ID.String()+"/paper", nil, &mine)
	assert.Len(t, mine.Drills, 24)
	status, raw := c.do(http.MethodPost, "/paper/read", append(file, "2025-03-01,x,y,80,5,\n"...))
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, string(raw), "20000 rows")
}
