package store

import (
	"context"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A Group is some students under one name.
type Group struct {
	ID       uuid.UUID
	Name     string
	Revision int
	Students []uuid.UUID
}

// MaxGroups is the most groups a studio may have, so that they fit one answer.
const MaxGroups = 200

// Groups returns all groups by name. Students who are not here are left out.
func (s *Store) Groups(ctx context.Context) ([]Group, error) {
	return all[Group](s.pool.Query(ctx, `
		SELECT g.id, g.name, g.revision, array(
			SELECT m.person_id FROM group_members m JOIN people p ON p.id = m.person_id
			WHERE m.group_id = g.id AND p.archived_at IS NULL AND p.remove_at IS NULL ORDER BY p.name, p.id) AS students
		FROM groups g ORDER BY g.name, g.id LIMIT $1`, MaxGroups))
}

// PutGroup makes a group, or changes the one of its id from a revision; it fails
// with [ErrChanged] where that is no longer the latest.
func (s *Store) PutGroup(ctx context.Context, g Group) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		n, err := value[int](tx.Query(ctx, `SELECT count(*) FROM groups WHERE id <> $1`, g.ID))
		if err != nil {
			return err
		}
		if n >= MaxGroups {
			return ErrTooMany
		}
		tag, err := tx.Exec(ctx, `INSERT INTO groups (id, name) VALUES ($1, $2) ON CONFLICT DO NOTHING`, g.ID, g.Name)
		if err != nil {
			return err
		}
		if tag.RowsAffected() == 0 {
			revision, err := value[int](tx.Query(ctx, `SELECT revision FROM groups WHERE id = $1 FOR UPDATE`, g.ID))
			if err != nil {
				return err
			}
			if revision != g.Revision {
				return ErrChanged
			}
			if _, err := tx.Exec(ctx, `UPDATE groups SET name = $2, revision = revision + 1 WHERE id = $1`, g.ID, g.Name); err != nil {
				return err
			}
			// Who is not here is on no list, and in the group again once brought back.
			if _, err := tx.Exec(ctx, `
				DELETE FROM group_members USING people p
				WHERE group_id = $1 AND p.id = person_id AND p.archived_at IS NULL AND p.remove_at IS NULL`, g.ID); err != nil {
				return err
			}
		}
		for _, student := range g.Students {
			if err := addToGroup(ctx, tx, g.ID, student); err != nil {
				return err
			}
		}
		return write(ctx, tx, Line{Did: "set the group", About: g.Name})
	})
}

// DeleteGroup takes a group away; its students stay.
func (s *Store) DeleteGroup(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		name, err := value[string](tx.Query(ctx, `DELETE FROM groups WHERE id = $1 RETURNING name`, id))
		if err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "deleted the group", About: name})
	})
}

// addToGroup puts a student of the studio into a group of the studio.
func addToGroup(ctx context.Context, tx pgx.Tx, group, student uuid.UUID) error {
	if _, err := value[int](tx.Query(ctx, `SELECT 1 FROM people, groups WHERE people.id = $1 AND role = 'student' AND groups.id = $2 FOR KEY SHARE`, student, group)); err != nil {
		return err
	}
	_, err := tx.Exec(ctx, `INSERT INTO group_members (group_id, person_id) VALUES ($1, $2) ON CONFLICT DO NOTHING`, group, student)
	return err
}
