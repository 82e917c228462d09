package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
)

// The roles a person may have.
const (
	Owner      = "owner"
	Instructor = "instructor"
	Student    = "student"
)

// A Person is somebody of a studio.
type Person struct {
	ID   uuid.UUID
	Name string
	Role string
	Demo bool // invented
}

// Teaches reports whether the person may do what instructors may.
func (p Person) Teaches() bool { return p.Role == Owner || p.Role == Instructor }

// A Member is a person with what their studio knows of them.
type Member struct {
	Person
	Revision   int // counts the changes of what follows
	Email      string
	SignIn     string     // the name they sign in with; empty until they have chosen one
	InvitedAt  *time.Time // when they were given a code last
	JoinedAt   *time.Time // when they first came in by themselves
	ArchivedAt *time.Time // nil for those who are here
	RemoveAt   *time.Time // when everything about them is deleted; nil where that is not asked for
	Note       string     // of the instructors
	ConsentAt  *time.Time // when it was noted that they, or a parent, agreed
	ConsentBy  string     // who agreed, and how
	Level      string     // beginner, intermediate or advanced, by the instructors' word; empty for none
	Groups     []uuid.UUID
}

// The columns of a [Member] in the order of its fields.
const memberColumns = `p.id, p.name, p.role, p.demo, p.revision, coalesce(p.email, ''), coalesce(p.sign_in, ''), p.invited_at, p.joined_at,
	p.archived_at, p.remove_at, p.note, p.consent_at, p.consent_by, p.level,
	array(SELECT m.group_id FROM group_members m WHERE m.person_id = p.id ORDER BY m.group_id)`

// ErrNameTaken is returned for a name to sign in with that another has.
var ErrNameTaken = errors.New("another has this name already")

// AddPerson adds somebody to the studio. Who is there already is left as they are.
func (s *Store) AddPerson(ctx context.Context, p Person) error {
	return s.AddPeople(ctx, []Member{{Person: p}})
}

// AddPeople adds some to the studio, all or none, with what is known of them and
// into their groups. Who is there already is left as they are.
func (s *Store) AddPeople(ctx context.Context, people []Member) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		for _, p := range people {
			tag, err := tx.Exec(ctx, `INSERT INTO people (id, name, role, demo, email) VALUES ($1, $2, $3, $4, nullif($5, '')) ON CONFLICT DO NOTHING`,
				p.ID, p.Name, p.Role, p.Demo, p.Email)
			if err != nil {
				return err
			}
			if tag.RowsAffected() == 0 {
				continue
			}
			for _, g := range p.Groups {
				if err := addToGroup(ctx, tx, g, p.ID); err != nil {
					return err
				}
			}
			if err := write(ctx, tx, Line{Did: "added", Student: studentID(p.Person), About: p.Name}); err != nil {
				return err
			}
		}
		return nil
	})
}

// People returns a page's size of those who are here, instructors first, then by
// name, after somebody where given.
func (s *Store) People(ctx context.Context, after *uuid.UUID) ([]Member, error) {
	return allByPos[Member](s.pool.Query(ctx, `
		SELECT `+memberColumns+` FROM people p
		WHERE p.archived_at IS NULL AND p.remove_at IS NULL
		  AND ($1::uuid IS NULL OR (p.role = 'student', p.name, p.id) > (SELECT role = 'student', name, id FROM people WHERE id = $1))
		ORDER BY p.role = 'student', p.name, p.id LIMIT $2`, after, MaxPage))
}

// Gone returns those who are archived or wait to be removed, the latest first.
func (s *Store) Gone(ctx context.Context) ([]Member, error) {
	return allByPos[Member](s.pool.Query(ctx, `
		SELECT `+memberColumns+` FROM people p WHERE p.archived_at IS NOT NULL OR p.remove_at IS NOT NULL
		ORDER BY greatest(p.archived_at, p.remove_at) DESC, p.id LIMIT $1`, MaxPage))
}

// Person returns one person or [ErrNotFound].
func (s *Store) Person(ctx context.Context, id uuid.UUID) (Person, error) {
	return one[Person](s.pool.Query(ctx, `SELECT id, name, role, demo FROM people WHERE id = $1`, id))
}

// Member returns one person with what the studio knows of them, or [ErrNotFound].
func (s *Store) Member(ctx context.Context, id uuid.UUID) (Member, error) {
	return oneByPos[Member](s.pool.Query(ctx, `SELECT `+memberColumns+` FROM people p WHERE p.id = $1`, id))
}

// A PersonChange is what can be changed of a person.
type PersonChange struct {
	Name      string
	Email     string
	Note      string
	Consent   bool
	ConsentBy string
	Level     string
	Groups    []uuid.UUID
}

// ChangePerson changes what the studio knows of somebody, from a revision; it
// fails with [ErrChanged] where that is no longer the latest.
func (s *Store) ChangePerson(ctx context.Context, id uuid.UUID, from int, c PersonChange) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		p, err := holdPerson(ctx, tx, id)
		if err != nil {
			return err
		}
		if p.Revision != from {
			return ErrChanged
		}
		_, err = tx.Exec(ctx, `
			UPDATE people SET name = $2, email = nullif($3, ''), note = $4, consent_by = $6, level = $7, revision = revision + 1,
			       consent_at = CASE WHEN NOT $5 THEN NULL WHEN consent_at IS NULL OR consent_by <> $6 THEN now() ELSE consent_at END
			WHERE id = $1`, id, c.Name, c.Email, c.Note, c.Consent, c.ConsentBy, c.Level)
		if err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `DELETE FROM group_members WHERE person_id = $1`, id); err != nil {
			return err
		}
		for _, g := range c.Groups {
			if err := addToGroup(ctx, tx, g, id); err != nil {
				return err
			}
		}
		return write(ctx, tx, Line{Did: "changed", Student: studentID(p.Person), About: c.Name})
	})
}

// heldPerson is somebody who is not changed by others until the transaction ends.
type heldPerson struct {
	Person
	Revision int
}

func holdPerson(ctx context.Context, tx pgx.Tx, id uuid.UUID) (heldPerson, error) {
	return oneByPos[heldPerson](tx.Query(ctx, `SELECT id, name, role, demo, revision FROM people WHERE id = $1 FOR NO KEY UPDATE`, id))
}

// studentID is the student that something is about; nil for others.
func studentID(p Person) *uuid.UUID {
	if p.Role != Student {
		return nil
	}
	return &p.ID
}

// Archive takes somebody off the lists and out of the house; they can be brought
// back at any time.
func (s *Store) Archive(ctx context.Context, id uuid.UUID) error {
	return s.takeOut(ctx, id, "archived", `UPDATE people SET archived_at = now(), revision = revision + 1 WHERE id = $1 AND archived_at IS NULL`)
}

// removalWaits is how long somebody who is to be removed can be brought back, as
// PostgreSQL writes it.
const removalWaits = "14 days"

// Remove lets everything about somebody be deleted after a waiting time, in which
// they can be brought back. They are out of the house at once.
func (s *Store) Remove(ctx context.Context, id uuid.UUID) error {
	return s.takeOut(ctx, id, "removed", `UPDATE people SET remove_at = now() + '`+removalWaits+`'::interval, revision = revision + 1 WHERE id = $1 AND remove_at IS NULL`)
}

func (s *Store) takeOut(ctx context.Context, id uuid.UUID, did, statement string) error {
	err := s.in(ctx, func(tx pgx.Tx) error {
		p, err := holdPerson(ctx, tx, id)
		if err != nil {
			return err
		}
		if p.Role == Owner {
			return ErrOwner
		}
		if err := touch(ctx, tx, statement, id); err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: did, Student: studentID(p.Person), About: p.Name})
	})
	if err != nil {
		return err
	}
	return s.EndSessions(ctx, id)
}

// ErrOwner is returned where a studio would be left without its owner.
var ErrOwner = errors.New("the owner cannot go")

// TakenOut writes down that somebody has taken out all there is about a student.
func (s *Store) TakenOut(ctx context.Context, p Person) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		return write(ctx, tx, Line{Did: "took out everything about", Student: studentID(p), About: p.Name})
	})
}

// StudioTakenOut writes down that everything about the studio was.
func (s *Store) StudioTakenOut(ctx context.Context) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		return write(ctx, tx, Line{Did: "took out everything about", About: "the studio"})
	})
}

// BringBack brings somebody back who was archived or is to be removed, as long as
// the waiting time is not over: from then on they are being forgotten.
func (s *Store) BringBack(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		p, err := holdPerson(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := touch(ctx, tx, `
			UPDATE people SET archived_at = NULL, remove_at = NULL, revision = revision + 1
			WHERE id = $1 AND (remove_at IS NULL OR remove_at > now())`, id); err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "brought back", Student: studentID(p.Person), About: p.Name})
	})
}

// A Pupil is a student with the drills they have, the latest given first.
type Pupil struct {
	Member
	Assignments []Assignment
	HurtSince   *time.Time // when they reported pain that no instructor has cleared; nil for none
}

// Pupil returns one student, archived or not, with what is assigned to them, or
// [ErrNotFound].
func (s *Store) Pupil(ctx context.Context, id uuid.UUID) (Pupil, error) {
	return oneByPos[Pupil](s.pool.Query(ctx, `
		SELECT `+memberColumns+`, array(
			SELECT row(`+assignmentColumns+`) FROM `+assignmentTables+`
			WHERE a.student_id = p.id AND a.ended_at IS NULL ORDER BY a.assigned_at DESC, a.id),
			(SELECT min(h.at) FROM hand_reports h WHERE h.student_id = p.id AND `+fmt.Sprintf(hurts, "now()")+`)
		FROM people p WHERE p.id = $1 AND p.role = 'student'`, id))
}

// nameTaken makes [ErrNameTaken] of what the database says of two alike.
func nameTaken(err error) error {
	var fault *pgconn.PgError
	if errors.As(err, &fault) && fault.Code == "23505" { // unique violation (PostgreSQL manual, appendix A)
		return ErrNameTaken
	}
	return err
}
