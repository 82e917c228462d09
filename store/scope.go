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

// member is the role under which studios ask. The policies hold for it; they do
// not for the owner of the tables.
const member = "manudrill_member"

// A seen is what a connection has been told, which it keeps.
type seen struct{ role, studio, student string }

const seenKey = "manudrill.scope"

// tell tells a connection, when it is taken from the pool, for whom it asks.
func tell(ctx context.Context, conn *pgx.Conn) (bool, error) {
	sc := scopeOf(ctx)
	want := seen{role: member}
	if sc.house {
		want.role = "none"
	}
	if sc.Studio != uuid.Nil {
		want.studio = sc.Studio.String()
	}
	if sc.Student != uuid.Nil {
		want.student = sc.Student.String()
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

// admitMember makes the role where it is missing and lets it use the tables. It is
// done at each start, since neither roles nor rights come with a backup.
func admitMember(ctx context.Context, pool *pgxpool.Pool) error {
	err := pgx.BeginFunc(ctx, pool, func(tx pgx.Tx) error {
		// One after the other: two who grant at once are refused.
		if _, err := tx.Exec(ctx, `SELECT pg_advisory_xact_lock($1)`, admitLock); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `
			DO $$ BEGIN
				IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '`+member+`') THEN
					CREATE ROLE `+member+` NOLOGIN;
				END IF;
			EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL; -- made for another database of the server meanwhile
			END $$;
			DO $$ BEGIN
				IF NOT pg_has_role(current_user, '`+member+`', 'MEMBER') THEN
					EXECUTE format('GRANT `+member+` TO %I', current_user);
				END IF;
			END $$;
			GRANT USAGE ON SCHEMA public TO `+member+`;
			GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO `+member+`;
			GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO `+member+`;`)
		return err
	})
	if err != nil {
		return fmt.Errorf("the role %s cannot be made; let whoever runs the database make it, by 'CREATE ROLE %s NOLOGIN' and 'GRANT %s TO' the user of DATABASE_URL: %w", member, member, member, err)
	}
	return nil
}

// admitLock is the advisory lock under which rights are granted.
const admitLock = 0x6d616e7573636f70
