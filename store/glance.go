package store

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/plan"
	"manudrill/core/progress"
	"manudrill/core/tempo"
)

// A Glanced is a student as a look over all of them sees them.
type Glanced struct {
	Person
	Hurt   bool               // they have reported pain that no instructor has cleared
	Dates  []time.Time        // in the last two weeks, on which something was played
	Due    *Lenient[plan.Due] // nil without a plan
	Drills []GlancedDrill
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

// A GlanceOrder says who comes first; the key is what it is called in the API.
type GlanceOrder string

// orders are by what students are put in order. By need is that of [progress.Pressing].
var orders = map[GlanceOrder]string{
	"need": `rank NULLS LAST, gate DESC, late DESC`,
	"name": `name`,
	"days": `(SELECT count(DISTINCT d) FROM assignments a, unnest(a.dates) d WHERE a.student_id = ranked.id AND d > today - 14)`,
	"gate": `gate DESC`,
	"pair": `late DESC`,
}

// A GlanceAsked is which students are looked at.
type GlanceAsked struct {
	Group *uuid.UUID // nil for all
	Words []string   // in small letters; each stands in the name, or in that of a drill
	Why   *string    // for which reason; empty for those with none; nil for all
	Order GlanceOrder
	After int // so many are passed over
}

// GlanceSize is how many students a look shows at once: more than a screen does.
const GlanceSize = 25

// A Glance is a look over students.
type Glance struct {
	Today    time.Time
	Counts   map[string]int // how many there are by their first reason; empty for none
	Students []Glanced
}

// Glance returns students who are here, in order, and what they have.
func (s *Store) Glance(ctx context.Context, asked GlanceAsked) (Glance, error) {
	type seen struct {
		Person
		Hurt  bool
		Dates []string
		Due   *Lenient[plan.Due]
	}
	type row struct {
		Today  time.Time
		Counts map[string]int
		Page   []seen
	}
	// Students are put in order by what stands beside their drills; what is told of them is
	// read of those alone who are on the page.
	got, err := oneByPos[row](s.pool.Query(ctx, `
		WITH here AS MATERIALIZED (
			SELECT p.id, p.name, p.role, p.demo, (SELECT (now() AT TIME ZONE time_zone)::date FROM studios WHERE id = current_studio()) AS today,
			       EXISTS (SELECT FROM hand_reports h WHERE h.student_id = p.id AND `+fmt.Sprintf(hurts, "now()")+`) AS hurt
			FROM people p WHERE p.role = 'student' AND p.archived_at IS NULL AND p.remove_at IS NULL
			  AND ($1::uuid IS NULL OR EXISTS (SELECT FROM group_members m WHERE m.group_id = $1 AND m.person_id = p.id))
		), stands AS MATERIALIZED (
			SELECT h.id, min(array_position($2::text[], CASE WHEN a.need_from <= h.today THEN a.need_then ELSE a.need END)) AS rank,
			       max(a.last_day) AS last, max(a.of_gate) AS gate, max(a.late_ms) AS late
			FROM here h JOIN assignments a ON a.student_id = h.id AND a.ended_at IS NULL GROUP BY h.id
		), ranked AS MATERIALIZED (
			SELECT h.*, coalesce(s.gate, 0) AS gate, coalesce(s.late, 0) AS late,
			       CASE WHEN h.hurt THEN array_position($2, $3) WHEN s.last <= h.today - $4::integer THEN array_position($2, $5) ELSE s.rank END AS rank
			FROM here h LEFT JOIN stands s USING (id)
			WHERE NOT EXISTS (SELECT FROM unnest($6::text[]) w WHERE strpos(lower(h.name), w) = 0 AND NOT EXISTS (
				SELECT FROM assignments a JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version
				WHERE a.student_id = h.id AND a.ended_at IS NULL AND strpos(lower(v.name), w) > 0))
		), page AS (
			SELECT row_number() OVER () AS n, jsonb_build_object('ID', id, 'Name', name, 'Role', role, 'Demo', demo, 'Hurt', hurt,
			       'Dates', array(SELECT DISTINCT d FROM assignments a, unnest(a.dates) d WHERE a.student_id = o.id AND d > today - 14 ORDER BY d),
			       'Due', (SELECT due FROM plans WHERE student_id = o.id AND deleted_at IS NULL)) AS student
			FROM (SELECT * FROM ranked WHERE $7::text IS NULL OR coalesce(($2::text[])[rank], '') = $7 ORDER BY `+orders[asked.Order]+`, name, id LIMIT $8 OFFSET $9) o
		)
		SELECT (SELECT (now() AT TIME ZONE time_zone)::date FROM studios WHERE id = current_studio()),
		       coalesce((SELECT jsonb_object_agg(why, n) FROM (SELECT coalesce(($2::text[])[rank], '') AS why, count(*) AS n FROM ranked GROUP BY rank) c), '{}'),
		       coalesce((SELECT jsonb_agg(student ORDER BY n) FROM page), '[]')`,
		asked.Group, progress.PressingWhys(), string(progress.InPain), progress.AwayDays, string(progress.StaysAway), asked.Words, asked.Why, GlanceSize, asked.After))
	if err != nil {
		return Glance{}, err
	}
	g := Glance{Today: got.Today, Counts: got.Counts, Students: make([]Glanced, len(got.Page))}
	at := map[uuid.UUID]int{}
	ids := make([]uuid.UUID, len(got.Page))
	for i, p := range got.Page {
		g.Students[i] = Glanced{Person: p.Person, Hurt: p.Hurt, Due: p.Due, Dates: days(p.Dates)}
		at[p.ID], ids[i] = i, p.ID
	}
	drills, err := allByPos[GlancedDrill](s.pool.Query(ctx, `
		SELECT a.student_id, a.id, v.name, row(a.rung_bpm, a.notes_per_beat), a.state - '{backtest,forecast,days}'::text[], a.shows_take,
		       coalesce(a.last_take_at > coalesce(a.reviewed_until, '-infinity'), false)
		FROM assignments a JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version
		WHERE a.student_id = any($1) AND a.ended_at IS NULL ORDER BY a.last_take_at DESC NULLS LAST, a.id`, ids))
	for _, d := range drills {
		i := at[d.Student]
		g.Students[i].Drills = append(g.Students[i].Drills, d)
	}
	return g, err
}

// days are those that PostgreSQL has written, at their midnight, UTC.
func days(written []string) []time.Time {
	days := []time.Time{}
	for _, w := range written {
		if day, err := time.Parse(time.DateOnly, w); err == nil {
			days = append(days, day)
		}
	}
	return days
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
	Chart    chart.Chart
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
