package store

import (
	"context"

	"github.com/google/uuid"
)

// The roles a person may have.
const (
	Instructor = "instructor"
	Student    = "student"
)

// A Person is an instructor or a student.
type Person struct {
	ID   uuid.UUID
	Name string
	Role string
	Demo bool // invented
}

// AddPerson adds somebody to the studio. Who is there already is left as they are.
func (s *Store) AddPerson(ctx context.Context, p Person) error {
	_, err := s.pool.Exec(ctx, `INSERT INTO people (id, name, role, demo) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`, p.ID, p.Name, p.Role, p.Demo)
	return err
}

// People returns everybody, instructors first, then by name, after somebody where
// given.
func (s *Store) People(ctx context.Context, after *uuid.UUID) ([]Person, error) {
	return all[Person](s.pool.Query(ctx, `
		SELECT id, name, role, demo FROM people
		WHERE $1::uuid IS NULL OR (role, name, id) > (SELECT role, name, id FROM people WHERE id = $1)
		ORDER BY role, name, id LIMIT $2`, after, MaxPage))
}

// Person returns one person or [ErrNotFound].
func (s *Store) Person(ctx context.Context, id uuid.UUID) (Person, error) {
	return one[Person](s.pool.Query(ctx, `SELECT id, name, role, demo FROM people WHERE id = $1`, id))
}

// A Pupil is a student with the drills they have, the latest given first.
type Pupil struct {
	Person
	Assignments []Assignment
}

// Pupils returns a page's size of students by name, after one where given, each
// with what is assigned to them.
func (s *Store) Pupils(ctx context.Context, after *uuid.UUID, page Page) ([]Pupil, error) {
	return allByPos[Pupil](s.pool.Query(ctx, `
		SELECT p.id, p.name, p.role, p.demo, array(
			SELECT row(`+assignmentColumns+`) FROM `+assignmentTables+`
			WHERE a.student_id = p.id AND a.ended_at IS NULL ORDER BY a.assigned_at DESC, a.id)
		FROM people p
		WHERE p.role = 'student' AND ($1::uuid IS NULL OR (p.name, p.id) > (SELECT name, id FROM people WHERE id = $1))
		ORDER BY p.name, p.id LIMIT $2`, after, page.Size()))
}
