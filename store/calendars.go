package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// PutCalendar lets whoever knows a token, of which the SHA-256 is given, read a student's
// plan, and nobody with an earlier one any more.
func (s *Store) PutCalendar(ctx context.Context, student uuid.UUID, token []byte) error {
	// Who may not see the student has been told so; the table is the house's.
	_, err := s.pool.Exec(AsHouse(ctx), `
		INSERT INTO calendars (student_id, token) VALUES ($1, $2) ON CONFLICT (student_id) DO UPDATE SET token = $2, made_at = now()`, student, token)
	return err
}

// DeleteCalendar revokes the address of a student's plan.
func (s *Store) DeleteCalendar(ctx context.Context, student uuid.UUID) error {
	_, err := s.pool.Exec(AsHouse(ctx), `DELETE FROM calendars WHERE student_id = $1`, student)
	return err
}

// HasCalendar reports whether a student's plan has an address.
func (s *Store) HasCalendar(ctx context.Context, student uuid.UUID) (bool, error) {
	return value[bool](s.pool.Query(AsHouse(ctx), `SELECT EXISTS (SELECT FROM calendars WHERE student_id = $1)`, student))
}

// A CalendarPlan is a plan under its address.
type CalendarPlan struct {
	Student   Person
	ChangedAt time.Time
	Plan
}

// PlanByCalendar returns the plan that a token leads to, or [ErrNotFound]: for a token
// that is revoked, a plan that was taken away, and a student who is no more here.
func (s *Store) PlanByCalendar(ctx context.Context, token []byte) (CalendarPlan, error) {
	return calendarPlan(s.pool.Query(AsHouse(ctx), selectCalendarPlans+`JOIN calendars c ON c.student_id = p.student_id
		WHERE c.token = $1 AND p.deleted_at IS NULL AND s.archived_at IS NULL AND s.remove_at IS NULL`, token))
}

// PlanForCalendar returns a student's plan as a calendar shows it, or [ErrNotFound].
func (s *Store) PlanForCalendar(ctx context.Context, student uuid.UUID) (CalendarPlan, error) {
	return calendarPlan(s.pool.Query(ctx, selectCalendarPlans+`WHERE p.student_id = $1 AND p.deleted_at IS NULL`, student))
}

const selectCalendarPlans = `SELECT row(s.id, s.name, s.role, s.demo), p.changed_at, p.student_id, p.settings, p.plan, p.revision, p.author, p.made_on
	FROM plans p JOIN people s ON s.id = p.student_id `

func calendarPlan(rows pgx.Rows, err error) (CalendarPlan, error) {
	return oneByPos[CalendarPlan](rows, err)
}
