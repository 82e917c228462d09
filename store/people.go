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

// AddPerson adds somebody to the studio.
func (s *Store) AddPerson(ctx context.Context, p Person) error {
	_, err := s.pool.Exec(ctx, `INSERT INTO people (id, name, role, demo) VALUES ($1, $2, $3, $4)`, p.ID, p.Name, p.Role, p.Demo)
	return err
}

// People returns everybody, instructors first.
func (s *Store) People(ctx context.Context) ([]Person, error) {
	return all[Person](s.pool.Query(ctx, `SELECT id, name, role, demo FROM people ORDER BY role, name`))
}

// Person returns one person or [ErrNotFound].
func (s *Store) Person(ctx context.Context, id uuid.UUID) (Person, error) {
	return one[Person](s.pool.Query(ctx, `SELECT id, name, role, demo FROM people WHERE id = $1`, id))
}
