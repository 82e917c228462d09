package store

import (
	"context"
	"fmt"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
)

// What a query may see is decided here and in the policies of the tables
// (migrations): a connection is told for whom it asks before anything is asked on
// it, and the database shows the rows of that studio, and of that student where a
// student asks. A query that forgets to say whose rows it wants gets no others.

// A Scope says whose rows are seen.
type Scope struct {
	Studio  uuid.UUID
	Student uuid.UUID // who alone is seen among the students; uuid.Nil for all
	Actor   Person    // who does what is done; it is written down under their name
	house   bool
}

type scopeKey struct{}

// Within returns a context in which the rows of a scope are seen. In a context
// without a scope nothing is seen.
func Within(ctx context.Context, sc Scope) context.Context {
	return context.WithValue(ctx, scopeKey{}, sc)
}

// AsHouse returns a context in which the rows of all studios are seen: for what is
// no studio's, as signing in, and for programs that serve no request.
func AsHouse(ctx context.Context) context.Context { return Within(ctx, Scope{house: true}) }

func scopeOf(ctx context.Context) Scope {
	sc, _ := ctx.Value(scopeKey{}).(Scope)
	return sc
}

// asking narrows a list to the student who asks, who sees no other anyhow: so that
// the database finds the index for it. Others see what they ask for.
func asking(ctx context.Context, student *uuid.UUID) *uuid.UUID {
	if me := scopeOf(ctx).Student; student == nil && me != uuid.Nil {
		return &me
	}
	return student
}

// The roles under which is asked: of who sees all of a studio, and of students, who
// see themselves. The policies hold for them; they do not for the owner of the
// tables, who is the house.
const (
	member  = "manudrill_member"
	student = "manudrill_student"
	owner   = "none"
)

// A seen is what a connection has been told, which it keeps.
type seen struct{ role, studio, student string }

const seenKey = "manudrill.scope"

// tell tells a connection, when it is taken from the pool, for whom it asks.
func tell(ctx context.Context, conn *pgx.Conn) (bool, error) {
	sc := scopeOf(ctx)
	want := seen{role: member}
	if sc.house {
		want.role = owner
	}
	if sc.Studio != uuid.Nil {
		want.studio = sc.Studio.String()
	}
	if sc.Student != uuid.Nil {
		want.role, want.student = student, sc.Student.String()
	}
	known := conn.PgConn().CustomData()
	if known[seenKey] == want {
		return true, nil
	}
	delete(known, seenKey) // until it is told, it is not known what it sees
	_, err := conn.Exec(ctx, `SELECT set_config('role', $1, false), set_config('manudrill.studio', $2, false), set_config('manudrill.student', $3, false)`,
		want.role, want.studio, want.student)
	if err != nil {
		return false, err
	}
	known[seenKey] = want
	return true, nil
}

// makeRoles makes the roles where they are missing. It is done at each start, before
// the tables are brought up to date: roles do not come with a backup.
func makeRoles(ctx context.Context, pool *pgxpool.Pool) error {
	for _, role := range []string{member, student} {
		err := alone(ctx, pool, `
			DO $$ BEGIN
				IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '`+role+`') THEN
					CREATE ROLE `+role+` NOLOGIN;
				END IF;
			EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL; -- made for another database of the server meanwhile
			END $$;
			DO $$ BEGIN
				IF NOT pg_has_role(current_user, '`+role+`', 'MEMBER') THEN
					EXECUTE format('GRANT `+role+` TO %I', current_user);
				END IF;
			END $$`)
		if err != nil {
			return fmt.Errorf("the role %s cannot be made; let whoever runs the database make it, by 'CREATE ROLE %s NOLOGIN' and 'GRANT %s TO' the user of DATABASE_URL: %w", role, role, role, err)
		}
	}
	return nil
}

// admitRoles lets the roles use the tables, once these are up to date: rights do not
// come with a backup either.
func admitRoles(ctx context.Context, pool *pgxpool.Pool) error {
	const both = member + `, ` + student
	return alone(ctx, pool, `
		GRANT USAGE ON SCHEMA public TO `+both+`;
		GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO `+both+`;
		GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO `+both)
}

// rolesLock is the advisory lock under which rights are granted: two who grant at
// once are refused.
const rolesLock = 0x6d616e7573636f70

// alone runs statements as the only program that does.
func alone(ctx context.Context, pool *pgxpool.Pool, statements string) error {
	return pgx.BeginFunc(ctx, pool, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `SELECT pg_advisory_xact_lock($1)`, rolesLock); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, statements)
		return err
	})
}
