package main

import (
	"encoding/json"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
)

// barest is the least that can be done: one query each for the same rows, written
// out as they come, with nobody asked who they are.
func barest(pool *pgxpool.Pool) http.Handler {
	gin.SetMode(gin.ReleaseMode)
	e := gin.New()
	serve[person](e, pool, "/person/:id", `SELECT id, name, role, demo FROM people WHERE id = $1`)
	serve[assignment](e, pool, "/assignments/:id", `
		SELECT a.id, a.drill_id, a.version, d.version, v.file#>>'{drill,name}', v.file->'ladder', p.name, a.assigned_at, a.takes, a.last, a.last_take_at
		FROM assignments a JOIN drills d ON d.id = a.drill_id JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version
		JOIN people p ON p.id = a.student_id WHERE a.student_id = $1 AND a.ended_at IS NULL ORDER BY a.assigned_at DESC, a.id DESC LIMIT 200`)
	serve[summary](e, pool, "/takes/:id", `
		SELECT t.id, t.assignment_id, t.drill_name, p.name, t.version, t.bpm, t.source, t.recorded_at, t.handed_in_at, t.state, t.seconds,
		       t.held_bpm, t.notes_per_second, t.spread_ms, t.spread_percent, t.right_percent, t.decision
		FROM takes t JOIN people p ON p.id = t.student_id WHERE t.student_id = $1 ORDER BY t.recorded_at DESC, t.id DESC LIMIT 25`)
	serve[stand](e, pool, "/stand/:id", `
		SELECT a.id, a.takes, a.last, v.file, p.setup FROM assignments a JOIN people p ON p.id = a.student_id
		JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version WHERE a.id = $1`)
	serve[take](e, pool, "/take/:id", `SELECT t.id, t.drill_name, p.name, t.bpm, t.chart, t.analysis FROM takes t JOIN people p ON p.id = t.student_id WHERE t.id = $1`)
	serve[point](e, pool, "/trend/:id", `
		SELECT id, recorded_at, bpm, spread_percent, decision FROM takes WHERE assignment_id = $1 AND state = 'measured'
		ORDER BY recorded_at DESC, id DESC LIMIT 200`)
	serve[pupilRow](e, pool, "/students", `
		SELECT p.id, p.name, (SELECT jsonb_agg(jsonb_build_object('id', a.id, 'drill', v.file#>>'{drill,name}', 'ladder', v.file->'ladder', 'state', a.state))
			FROM assignments a JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version
			WHERE a.student_id = p.id AND a.ended_at IS NULL)
		FROM people p WHERE p.role = 'student' ORDER BY p.name, p.id LIMIT 25`)
	serve[drillRow](e, pool, "/drills", `
		SELECT d.id, d.version, v.file, v.saved_at, d.folder, d.tags, d.favourite,
		       array(SELECT p.name FROM assignments a JOIN people p ON p.id = a.student_id WHERE a.drill_id = d.id AND a.ended_at IS NULL ORDER BY p.name),
		       (SELECT coalesce(sum(a.takes), 0) FROM assignments a WHERE a.drill_id = d.id)::integer
		FROM drills d JOIN drill_versions v ON v.drill_id = d.id AND v.version = d.version
		WHERE d.deleted_at IS NULL ORDER BY v.saved_at DESC, d.id DESC LIMIT 200`)
	return e
}

type (
	person struct {
		ID         uuid.UUID
		Name, Role string
		Demo       bool
	}
	assignment struct {
		ID, DrillID     uuid.UUID
		Version, Newest int
		Name            string
		Ladder          json.RawMessage
		Student         string
		AssignedAt      time.Time
		Takes           int
		Last            json.RawMessage
		LastTakeAt      *time.Time
	}
	summary struct {
		ID, AssignmentID                                                        uuid.UUID
		Drill, Student                                                          string
		Version                                                                 int
		BPM                                                                     float64
		Source                                                                  string
		RecordedAt, HandedInAt                                                  time.Time
		State                                                                   string
		Seconds, HeldBPM, NotesPerSecond, SpreadMs, SpreadPercent, RightPercent float64
		Decision                                                                json.RawMessage
	}
	stand struct {
		ID          uuid.UUID
		Takes       int
		Last        json.RawMessage
		File, Setup json.RawMessage
	}
	take struct {
		ID              uuid.UUID
		Drill, Student  string
		BPM             float64
		Chart, Analysis json.RawMessage
	}
	point struct {
		ID                 uuid.UUID
		RecordedAt         time.Time
		BPM, SpreadPercent float64
		Decision           json.RawMessage
	}
	pupilRow struct {
		ID          uuid.UUID
		Name        string
		Assignments json.RawMessage
	}
	drillRow struct {
		ID        uuid.UUID
		Version   int
		File      json.RawMessage
		SavedAt   time.Time
		Folder    string
		Tags      []string
		Favourite bool
		Students  []string
		Takes     int
	}
)

// serve answers with the rows of a query.
func serve[T any](e *gin.Engine, pool *pgxpool.Pool, path, query string) {
	e.GET(path, func(c *gin.Context) {
		args := []any{}
		if id := c.Param("id"); id != "" {
			args = append(args, id)
		}
		rows, err := pool.Query(c, query, args...)
		if err != nil {
			c.String(http.StatusInternalServerError, err.Error())
			return
		}
		got, err := pgx.CollectRows(rows, pgx.RowToStructByPos[T])
		if err != nil {
			c.String(http.StatusInternalServerError, err.Error())
			return
		}
		c.JSON(http.StatusOK, got)
	})
}
