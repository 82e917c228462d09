package server_test

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/evenness"
	"manudrill/core/guitar"
	"manudrill/core/plan"
	"manudrill/core/practice"
	"manudrill/core/setup"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/store"
	"manudrill/storetest"
)

// What an operation is about, by which outsiders are judged.
type about string

const (
	aThing about = "a thing"        // named by its id: outsiders are refused
	ones   about = "one's own"      // or what is sent: outsiders get nothing of the insiders'
	door   about = "the door"       // for anybody; nothing is behind it without a secret
	byOne  about = "one's own name" // as above, and changes only whoever asks: not tried by insiders
)

// A call is an operation called on what is somebody's. Names in braces stand for
// the ids of a fixture.
type call struct {
	about
	query string
	body  any
}

// calls are how every operation is called in the test of refusals. An operation
// without a row fails it.
var calls = map[string]call{
	"getHouse": {about: door}, "begin": {about: door, body: map[string]any{"token": "x", "studio": "Mine", "name": "Me", "signIn": "me", "password": "four frets up"}},
	"checkOpening": {about: door, body: map[string]any{"token": "x"}}, "signIn": {about: door, body: map[string]any{"name": "x", "password": "x"}},
	"comeIn": {about: door, body: map[string]any{"code": "0000-0000-0000"}}, "askReset": {about: door, body: map[string]any{"name": "x"}},
	"reset": {about: door, body: map[string]any{"token": "x", "password": "four frets up"}}, "leave": {about: door},
	"listDemoPeople": {about: door}, "enter": {about: door, body: map[string]any{"personId": uuid.Nil}},

	"getSession": {about: ones}, "leaveEverywhere": {about: byOne},
	"changeAccount": {about: byOne, body: map[string]any{"signIn": "somebody", "password": "four frets up"}},
	"wantLetters":   {about: byOne, body: map[string]any{"wanted": true}},
	"getStudio":     {about: ones}, "changeStudio": {about: byOne, body: map[string]any{"name": "Ours"}},
	"listLetters": {about: ones}, "listAudit": {about: ones, query: "studentId={person}"}, "listPeople": {about: ones}, "listGone": {about: ones},
	"addPeople":  {about: aThing, body: map[string]any{"people": []any{map[string]any{"id": "{new}", "name": "New", "role": "student", "groups": []any{"{group}"}}}}},
	"readPeople": {about: ones, body: []byte("Mira")},
	"readPaper":  {about: ones, query: "studentId={person}", body: []byte("2025-01-02,,slurs,80")}, "putPaper": {about: aThing, query: "studentId={person}", body: []byte("2025-01-02,,slurs,80")},
	"deletePaper": {about: aThing}, "restorePaper": {about: aThing}, "getPaper": {about: aThing}, "getTakesFile": {about: aThing},
	"getPerson": {about: aThing}, "removePerson": {about: aThing}, "archivePerson": {about: aThing}, "bringBack": {about: aThing}, "getArchive": {about: aThing}, "giveCode": {about: aThing},
	"getStudioArchive": {about: byOne}, "bringIn": {about: ones, body: []byte("no archive")},
	"changePerson": {about: aThing, body: map[string]any{"name": "X", "email": "", "note": "", "consent": false, "consentBy": "", "groups": []any{}}},
	"listGroups":   {about: ones}, "putGroup": {about: aThing, body: map[string]any{"name": "X", "students": []any{"{person}"}}}, "deleteGroup": {about: aThing},

	"preview": {about: ones, body: someDrill()}, "getBench": {about: ones}, "rework": {about: ones, body: map[string]any{"drill": someDrill().Drill}},
	"join": {about: ones, body: drillfile.Block{Name: "X", Items: []drillfile.BlockItem{{File: someDrill(), Seconds: 15}}}},
	"vary": {about: ones, query: "by=orders", body: someDrill()}, "export": {about: ones, query: "format=tab&bpm=100", body: someDrill()},
	"import": {about: ones, body: []byte("3:5-7")}, "listDrills": {about: ones}, "createDrill": {about: aThing, query: "id={new}&for={person}", body: someDrill()},
	"getDrill": {about: aThing}, "changeDrill": {about: aThing, body: longer()}, "deleteDrill": {about: aThing}, "copyDrill": {about: aThing, query: "id={new}"},
	"restoreDrill": {about: aThing}, "putOnShelf": {about: aThing, body: map[string]any{"folder": "", "tags": []any{}, "favourite": true}}, "listVersions": {about: ones},
	"listBlocks": {about: ones}, "createBlock": {about: aThing, query: "id={new}&for={person}", body: map[string]any{"name": "two", "items": []any{map[string]any{"file": someDrill(), "seconds": 15}}}},
	"changeBlock": {about: aThing, body: map[string]any{"name": "two", "items": []any{map[string]any{"file": someDrill(), "seconds": 15}}}},
	"getBlock":    {about: aThing}, "deleteBlock": {about: aThing}, "restoreBlock": {about: aThing}, "listBin": {about: ones},

	"listRoutines": {about: aThing}, "putRoutine": {about: aThing, body: practice.Routine{Name: "X", Items: []practice.Item{{Kind: practice.Play, Drill: "{drillId}", Enough: &practice.Enough{By: practice.ByTakes, Count: 3}}}}},
	"addReadyRoutine": {about: aThing}, "getRoutine": {about: aThing}, "deleteRoutine": {about: aThing}, "restoreRoutine": {about: aThing}, "getRoutineStands": {about: aThing},

	"getHand": {about: aThing}, "clearPain": {about: aThing}, "addHandReport": {about: aThing, body: practice.HandReport{Kind: practice.IsTired}}, "withdrawHandReport": {about: aThing},

	"getPlan": {about: aThing}, "putPlan": {about: aThing, body: map[string]any{"settings": plan.Usual(time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC))}}, "deletePlan": {about: aThing},
	"restorePlan": {about: aThing}, "makePlan": {about: aThing, body: map[string]any{"settings": plan.Usual(time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC))}},
	"getPlanDay": {about: aThing}, "spreadPlan": {about: aThing, body: map[string]any{"from": "{person}", "to": []any{"{person}"}}},
	"listReviews": {about: ones}, "listUnreadReviews": {about: ones}, "putReview": {about: aThing, body: map[string]any{"accepted": true}}, "deleteReview": {about: aThing},
	"getLesson": {about: aThing}, "putLesson": {about: aThing, body: map[string]any{"text": "slower"}}, "deleteLesson": {about: aThing},
	"getPlanFile": {about: aThing}, "getPlanAddress": {about: aThing}, "makePlanAddress": {about: aThing}, "revokePlanAddress": {about: aThing}, "getCalendar": {about: door},
	"getPracticeLog": {about: aThing},
	"getGlance":      {about: ones, query: "groupId={group}"}, "getOverview": {about: aThing}, "getEverybody": {about: aThing},
	"getPupil": {about: aThing}, "getSetup": {about: aThing}, "changeSetup": {about: aThing, body: setup.Usual()},
	"listAssignments": {about: ones, query: "studentId={person}"}, "assign": {about: aThing, body: map[string]any{"drillId": "{drillId}", "studentId": "{person}"}},
	"getAssignment": {about: aThing}, "unassign": {about: aThing}, "reassign": {about: aThing}, "giveNewest": {about: aThing}, "getProgress": {about: aThing},
	"addTake": {about: aThing, query: "source=file&bpm=100", body: []byte("no sound")}, "simulateTake": {about: aThing, body: steady},
	"listTakes": {about: ones, query: "assignmentId={assignmentId}&studentId={person}"}, "getTake": {about: aThing}, "measureTake": {about: aThing},
	"getRemeasuring": {about: byOne}, "remeasure": {about: byOne}, "cancelRemeasuring": {about: byOne}, "getContrast": {about: aThing},
	"takeRemedy": {about: aThing}, "listUnread": {about: ones}, "listComments": {about: aThing}, "markRead": {about: aThing},
	"assignMany":  {about: aThing, body: map[string]any{"drillIds": []any{"{drillId}"}, "studentIds": []any{"{person}"}}},
	"listMisfits": {about: aThing, body: map[string]any{"drillIds": []any{"{drillId}"}, "studentIds": []any{"{person}"}}},
	"getVideo":    {about: aThing}, "putVideo": {about: aThing, query: "startsAt=0", body: []byte("no video")}, "deleteVideo": {about: aThing},
	"askVideo":   {about: aThing, body: map[string]any{"asked": true}},
	"startFound": {about: aThing, body: map[string]any{"bpm": 90, "low": 84, "high": 96, "takes": 12, "notesPerBeat": 2}},
	"setRung":    {about: aThing, body: map[string]any{"rung": map[string]any{"bpm": 90, "notesPerBeat": 2}, "reason": "slower"}}, "listMoves": {about: aThing},
	"putComment": {about: aThing, body: map[string]any{"note": 0, "text": "mine"}}, "deleteComment": {about: aThing},
	"correct": {about: aThing, body: evenness.Correction{Of: evenness.OfFinding, Kind: "ringing"}}, "takeBackCorrection": {about: aThing}, "handInThere": {about: aThing}, "getContradictions": {about: byOne}, "getSound": {about: aThing},
}

// A fixture is what one student of the first studio has, by the names of the
// contract's parameters.
type fixture map[string]string

// names are what nobody outside may read.
func (f fixture) names() []string {
	var all []string
	for _, key := range slices.Sorted(maps.Keys(f)) {
		if !slices.Contains([]string{"new", "number", "readyId", "date"}, key) {
			all = append(all, f[key])
		}
	}
	return append(all, secretName)
}

const secretName = "Quillon Vass"

// newFixture gives a new student one thing of each kind.
func (h *house) newFixture(t *testing.T, found evenness.Analysis, by store.Person) fixture {
	t.Helper()
	ctx := storetest.In(t.Context())
	id := func() uuid.UUID { return uuid.New() }
	person, drillID, block, group, comment, take, other, routine, report := id(), id(), id(), id(), id(), id(), id(), id(), id()
	require.NoError(t, h.kept.AddPerson(ctx, store.Person{ID: person, Name: secretName, Role: store.Student}))
	file := longer()
	file.Drill.Name = secretName
	require.NoError(t, h.kept.AddDrill(ctx, drillID, file, store.Shelf{}))
	require.NoError(t, h.kept.AddBlock(ctx, block, drillfile.Block{Name: secretName, Items: []drillfile.BlockItem{{File: file, Seconds: 15}}}))
	require.NoError(t, h.kept.PutGroup(ctx, store.Group{ID: group, Name: secretName, Students: []uuid.UUID{person}}))
	assignment, err := h.kept.Assign(ctx, drillID, person)
	require.NoError(t, err)
	require.NoError(t, h.kept.PutRoutine(ctx, routine, person, 0, practice.Routine{
		Name: secretName, Items: []practice.Item{{Kind: practice.Play, Drill: drillID.String(), Enough: &practice.Enough{By: practice.ByTakes, Count: 1}}},
	}, []uuid.UUID{drillID}))
	lesson, log := id(), id()
	_, err = h.kept.PutPaper(ctx, log, []store.PaperEntry{{Student: person, Day: time.Now(), Drill: secretName}})
	require.NoError(t, err)
	require.NoError(t, h.kept.PutLesson(ctx, lesson, person, 0, secretName))
	require.NoError(t, h.kept.PutPlan(ctx, person, 0, plan.Usual(time.Now()), plan.Make(plan.Usual(time.Now()), plan.Facts{Today: time.Now()}), time.Now(), nil))
	require.NoError(t, h.kept.AddHandReport(ctx, report, person, time.Now(), practice.HandReport{Kind: practice.IsHurt, Text: secretName}))
	chart, err := file.Drill.Chart(guitar.Standard(), 100)
	require.NoError(t, err)
	for i, one := range []uuid.UUID{take, other} {
		require.NoError(t, h.kept.HandIn(ctx, store.HandIn{ID: one, AssignmentID: assignment, Version: 1, Rung: tempo.Rung{BPM: 100, NotesPerBeat: 2}, Source: store.File,
			RecordedAt: time.Now().Add(time.Duration(i) * time.Second), Chart: chart, Sound: strings.NewReader("fLaC, nearly"), Hash: one[:]}, func(pgx.Tx) error { return nil }))
		require.NoError(t, h.kept.Measured(ctx, one, store.Measurement{Analysis: found, Seconds: 9, Listener: 1}))
	}
	require.NoError(t, h.kept.PutVideo(ctx, take, store.Video{Media: "video/webm"}, strings.NewReader("hands")))
	require.NoError(t, h.kept.PutComment(ctx, store.Comment{ID: comment, TakeID: take, Text: "late", Author: by}))
	correction := id()
	require.NoError(t, h.kept.Correct(ctx, take, correction, evenness.Correction{Of: evenness.OfFinding, Kind: "gaps"}))
	require.NoError(t, h.kept.PutReview(store.Within(ctx, store.Scope{Studio: storetest.Studio, Actor: by}), take, true, secretName))
	f := fixture{"date": "2026-03-02", "number": "0", "new": uuid.NewString(), "readyId": "warmUp"}
	for name, of := range map[string]uuid.UUID{"person": person, "personId": person, "studentId": person, "drillId": drillID, "blockId": block, "routineId": routine, "reportId": report, "group": group, "groupId": group,
		"assignmentId": assignment, "takeId": take, "otherId": other, "commentId": comment, "correctionId": correction, "lessonId": lesson, "logId": log} {
		f[name] = of.String()
	}
	return f
}

// fill puts the fixture's ids into a path or a body.
func (f fixture) fill(text string) string {
	for name, value := range f {
		text = strings.ReplaceAll(text, "{"+name+"}", value)
	}
	return text
}

// request is the method, path and body of an operation on what the fixture is.
func (f fixture) request(t *testing.T, method, path string, c call) (string, string, any) {
	t.Helper()
	// What is made anew has an id that nothing has.
	if method == http.MethodPut {
		for _, made := range []string{"{commentId}", "{routineId}", "{reportId}", "{lessonId}", "{logId}"} {
			path = strings.ReplaceAll(path, made, f["new"])
		}
		if strings.HasPrefix(path, "/assignments/") {
			path = strings.ReplaceAll(path, "{takeId}", f["new"])
		}
	}
	at := f.fill(path)
	require.NotContains(t, at, "{")
	if c.query != "" {
		at += "?" + f.fill(c.query)
	}
	switch b := c.body.(type) {
	case nil:
		return method, at, nil
	case []byte:
		return method, at, b
	default:
		raw, err := json.Marshal(b)
		require.NoError(t, err)
		return method, at, jsonText(f.fill(string(raw)))
	}
}

// Everybody is refused what is not theirs: nobody, students what instructors do,
// another student, and the students and instructors of another studio, who know all
// the ids. Whoever may is not refused, or the rest would prove nothing.
func TestRefusals(t *testing.T) {
	h := newHouse(t)
	found := h.analysed(t)
	elsewhere := uuid.New()
	require.NoError(t, h.kept.AddStudio(t.Context(), elsewhere, "Elsewhere"))
	there := store.Within(t.Context(), store.Scope{Studio: elsewhere})
	theirs := map[string]store.Person{
		"another studio's student":    {ID: uuid.New(), Name: "Otis", Role: store.Student, Demo: true},
		"another studio's instructor": {ID: uuid.New(), Name: "Olga", Role: store.Instructor, Demo: true},
		"another studio's owner":      {ID: uuid.New(), Name: "Orla", Role: store.Owner, Demo: true},
	}
	outsiders := map[string]client{"another student": h.as(t, ben)}
	for who, p := range theirs {
		require.NoError(t, h.kept.AddPerson(there, p))
		outsiders[who] = h.as(t, p)
	}
	boss := store.Person{ID: uuid.New(), Name: "Berit", Role: store.Owner, Demo: true}
	require.NoError(t, h.kept.AddPerson(storetest.In(t.Context()), boss))
	called := map[string]bool{}
	for path, item := range document(t).Paths.Map() {
		for method, op := range item.Operations() {
			c, has := calls[op.OperationID]
			if !assert.True(t, has, "%s has no row in the table of refusals", op.OperationID) {
				continue
			}
			called[op.OperationID] = true
			who, _ := op.Extensions["x-who"].(string)
			if c.about == door {
				assert.Contains(t, []string{"anybody", "demo"}, who, op.OperationID)
				continue
			}
			f := h.newFixture(t, found, teacher)
			tell := func(asker string, status int, body []byte) string {
				return fmt.Sprintf("%s by %s is answered %d: %s", op.OperationID, asker, status, body)
			}
			m, at, body := f.request(t, method, path, c)
			status, raw := h.visitor(t).on(1).do(m, at, body)
			assert.Equal(t, http.StatusUnauthorized, status, tell("nobody", status, raw))

			for asker, client := range outsiders {
				closed := strings.Contains(asker, "student") && who != "person" || who == "owner" && !strings.Contains(asker, "owner")
				if c.about == byOne && !closed {
					continue
				}
				status, raw := client.on(1).do(m, at, body)
				switch {
				case closed:
					assert.Equal(t, http.StatusForbidden, status, tell(asker, status, raw))
				case c.about == aThing:
					assert.Equal(t, http.StatusNotFound, status, tell(asker, status, raw))
				default:
					assert.Less(t, status, 500, tell(asker, status, raw))
				}
				for _, name := range f.names() {
					assert.NotContains(t, string(raw), name, tell(asker, status, raw))
				}
			}
			if c.about == byOne {
				continue
			}
			mine := h.as(t, boss)
			h.prepare(t, op.OperationID, f)
			status, raw = mine.on(1).do(m, at, body)
			assert.NotContains(t, []int{http.StatusUnauthorized, http.StatusForbidden, http.StatusNotFound}, status, tell("who may", status, raw))
		}
	}
	for _, operation := range slices.Sorted(maps.Keys(calls)) {
		assert.True(t, called[operation], "the contract has no %s any more", operation)
	}
}

// prepare puts into the bin what an operation brings back.
func (h *house) prepare(t *testing.T, operation string, f fixture) {
	t.Helper()
	ctx := storetest.In(t.Context())
	at := func(name string) uuid.UUID { return uuid.MustParse(f[name]) }
	switch operation {
	case "restoreDrill":
		require.NoError(t, h.kept.DeleteDrill(ctx, at("drillId")))
	case "restoreBlock":
		require.NoError(t, h.kept.DeleteBlock(ctx, at("blockId")))
	case "restoreRoutine":
		require.NoError(t, h.kept.DeleteRoutine(ctx, at("routineId")))
	case "bringBack":
		require.NoError(t, h.kept.Archive(ctx, at("personId")))
	case "deleteComment":
		c := store.Comment{ID: at("commentId"), TakeID: at("takeId"), Text: "late"}
		require.NoError(t, h.kept.DeleteComment(ctx, c.ID, c.TakeID, teacher.ID))
		c.Author = h.ownerOf(t, ctx)
		require.NoError(t, h.kept.PutComment(ctx, c))
	}
}

// ownerOf is the owner of the studio that is asked.
func (h *house) ownerOf(t *testing.T, ctx context.Context) store.Person {
	t.Helper()
	people, err := h.kept.People(ctx, nil)
	require.NoError(t, err)
	for _, p := range people {
		if p.Role == store.Owner {
			return p.Person
		}
	}
	t.Fatal("there is no owner")
	return store.Person{}
}

// analysed is the analysis of a take with a weak pair, which has remedies.
func (h *house) analysed(t *testing.T) evenness.Analysis {
	t.Helper()
	weak := steady
	weak.Weak = &simulate.Weak{From: 1, To: 3, LateMs: 35}
	take := h.taken(t, h.assigned(t, longer(), ann), ann, weak)
	return *take.Analysis
}
