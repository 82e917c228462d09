package store

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/progress"
	"manudrill/core/tempo"
)

// A Glanced is a student as a look over all of them sees them.
type Glanced struct {
	Person
	Groups    []uuid.UUID
	HurtSince *time.Time // when they reported pain that no instructor has cleared; nil for none
	Drills    []GlancedDrill
}

// A GlancedDrill is one that a student has.
type GlancedDrill struct {
	Student    uuid.UUID
	Assignment uuid.UUID
	Name       string
	Rung       tempo.Rung
	State      *Lenient[progress.State] // nil until a take is measured
	ShowsTake  *uuid.UUID               // the take that shows it; nil for none
	Waits      bool                     // takes wait for a review
}

// MaxGlanced is the most students one look sees: more than anybody takes in, and what
// fits one answer. Groups part more.
const MaxGlanced = 500

// Glance returns the students who are here by name, of one group where given, and what
// they have.
func (s *Store) Glance(ctx context.Context, group *uuid.UUID) ([]Glanced, error) {
	type row struct {
		ID        uuid.UUID
		Name      string
		Role      string
		Demo      bool
		Groups    []uuid.UUID
		HurtSince *time.Time
	}
	rows, err := allByPos[row](s.pool.Query(ctx, `
		SELECT p.id, p.name, p.role, p.demo, array(SELECT m.group_id FROM group_members m WHERE m.person_id = p.id),
		       (SELECT min(h.at) FROM hand_reports h WHERE h.student_id = p.id AND `+fmt.Sprintf(hurts, "now()")+`)
		FROM people p WHERE p.role = 'student' AND p.archived_at IS NULL AND p.remove_at IS NULL
		  AND ($1::uuid IS NULL OR EXISTS (SELECT FROM group_members m WHERE m.group_id = $1 AND m.person_id = p.id))
		ORDER BY p.name, p.id LIMIT $2`, group, MaxGlanced))
	if err != nil {
		return nil, err
	}
	students := make([]Glanced, len(rows))
	at := map[uuid.UUID]int{}
	ids := make([]uuid.UUID, len(rows))
	for i, r := range rows {
		students[i] = Glanced{Person: Person{r.ID, r.Name, r.Role, r.Demo}, Groups: r.Groups, HurtSince: r.HurtSince}
		at[r.ID], ids[i] = i, r.ID
	}
	drills, err := allByPos[GlancedDrill](s.pool.Query(ctx, `
		SELECT a.student_id, a.id, v.name, row(a.rung_bpm, a.notes_per_beat), a.state, a.shows_take,
		       coalesce(a.last_take_at > coalesce(a.reviewed_until, '-infinity'), false)
		FROM assignments a JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version
		WHERE a.student_id = any($1) AND a.ended_at IS NULL ORDER BY a.last_take_at DESC NULLS LAST, a.id`, ids))
	for _, d := range drills {
		i := at[d.Student]
		students[i].Drills = append(students[i].Drills, d)
	}
	return students, err
}

// Today is the day it is by the studio's clock, at its midnight, UTC.
func (s *Store) Today(ctx context.Context) (time.Time, error) {
	return value[time.Time](s.pool.Query(ctx, `SELECT (now() AT TIME ZONE time_zone)::date FROM studios WHERE id = current_studio()`))
}

// A StudentWeek is what a student has played of a drill in a week.
type StudentWeek struct {
	Assignment uuid.UUID
	weekRow
}

// StudentWeeks returns what a student has played in so many of the last weeks before a
// day, by drill, the earliest first.
func (s *Store) StudentWeeks(ctx context.Context, student uuid.UUID, today time.Time, weeks int) ([]StudentWeek, error) {
	return allByPos[StudentWeek](s.pool.Query(ctx, `
		SELECT assignment_id, begins, days, sums FROM practice_weeks
		WHERE student_id = $1 AND begins > $2::date - 7 * $3 ORDER BY begins, assignment_id`, student, today, weeks))
}

// A HadDrill is one that a student has, or has played lately.
type HadDrill struct {
	Assignment uuid.UUID
	Name       string
	Ladder     Lenient[tempo.Ladder]
	Division   int                  // notes per beat of the drill
	Gate       *Lenient[tempo.Gate] // set for the student; nil for the ladder's
	State      *Lenient[progress.State]
}

// GateNow is the gate that holds for the student.
func (d HadDrill) GateNow() tempo.Gate { return gateOr(d.Gate, d.Ladder.Value) }

// maxHad is the most drills of a student that are looked over, the latest played.
const maxHad = 40

// HadDrills returns the drills that a student has, or has played in so many of the last
// weeks before a day, those played last first.
func (s *Store) HadDrills(ctx context.Context, student uuid.UUID, today time.Time, weeks int) ([]HadDrill, error) {
	return allByPos[HadDrill](s.pool.Query(ctx, `
		SELECT a.id, v.name, v.file->'ladder', greatest(1, coalesce((v.file#>>'{drill,rhythm,notesPerBeat}')::integer, 1)), a.gate, a.state
		FROM assignments a JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version
		WHERE a.student_id = $1 AND (a.ended_at IS NULL OR a.last_take_at > $2::date - 7 * $3)
		ORDER BY a.last_take_at DESC NULLS LAST, a.id LIMIT $4`, student, today, weeks, maxHad))
}

// DrillNames returns what the drills are called that a student has or had, by assignment.
func (s *Store) DrillNames(ctx context.Context, student uuid.UUID) (map[uuid.UUID]string, error) {
	type row struct {
		ID   uuid.UUID
		Name string
	}
	rows, err := allByPos[row](s.pool.Query(ctx, `
		SELECT a.id, v.name FROM assignments a JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version WHERE a.student_id = $1`, student))
	names := map[uuid.UUID]string{}
	for _, r := range rows {
		names[r.ID] = r.Name
	}
	return names, err
}

// A SeenTake is the latest take that counts of a student who has a drill.
type SeenTake struct {
	Student  string
	Chart    drill.Chart
	Analysis evenness.Analysis
}

// maxSeen is the most students whose takes of a drill are looked over, who played last.
const maxSeen = 60

// TakesOfEverybody returns the latest take that counts of each student who has a drill.
func (s *Store) TakesOfEverybody(ctx context.Context, id uuid.UUID) ([]SeenTake, error) {
	return allByPos[SeenTake](s.pool.Query(ctx, `
		SELECT p.name, t.chart, t.analysis FROM assignments a JOIN people p ON p.id = a.student_id
		JOIN LATERAL (SELECT chart, analysis FROM takes WHERE assignment_id = a.id AND counts ORDER BY recorded_at DESC, id DESC LIMIT 1) t ON true
		WHERE a.drill_id = $1 AND a.ended_at IS NULL AND p.archived_at IS NULL AND p.remove_at IS NULL
		ORDER BY a.last_take_at DESC NULLS LAST, a.id LIMIT $2`, id, maxSeen))
}
