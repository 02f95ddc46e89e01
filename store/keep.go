package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"time"

	"github.com/pressly/goose/v3"

	"patientladder/store/dump"
)

// migrationLock is the name of the lock under which one server at a time migrates, lockWait how long another waits for it.
const (
	migrationLock = "patient-ladder-migrate"
	lockWait      = 120
)

// underLock runs f while this server holds the lock of migrations: servers that start together migrate one after the other.
func (s *Store) underLock(ctx context.Context, f func(p *goose.Provider) error) error {
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	var got sql.NullInt64
	if err := conn.QueryRowContext(ctx, "SELECT GET_LOCK(?, ?)", migrationLock, lockWait).Scan(&got); err != nil {
		return err
	}
	if got.Int64 != 1 {
		return fmt.Errorf("another server has been migrating this database for %d seconds; nothing was changed", lockWait)
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), "DO RELEASE_LOCK(?)", migrationLock)
	p, err := s.provider()
	if err != nil {
		return err
	}
	return f(p)
}

// firstServed is from which tables on a program can serve today's: what came since only adds.
const firstServed = 16

// Schemas are the newest tables that this program knows, and from which on another must know them to serve the same database.
func Schemas() (newest, since int64, err error) {
	list, err := fs.Glob(migrations, "migrations/*.sql")
	if err != nil || len(list) == 0 {
		return 0, firstServed, err
	}
	newest, err = goose.NumericComponent(list[len(list)-1])
	return newest, firstServed, err
}

// ErrTooNew refuses tables that this program cannot serve.
var ErrTooNew = errors.New("the tables were made by a newer program, and this one cannot serve them")

// servable says that the tables are newer than those of this program, and by an error that it cannot serve them.
func (s *Store) servable(ctx context.Context, p *goose.Provider) (newer bool, err error) {
	at, err := p.GetDBVersion(ctx)
	if err != nil {
		return false, err
	}
	sources := p.ListSources()
	newest := sources[len(sources)-1].Version
	if at <= newest {
		return false, nil
	}
	var since int64
	if err := s.db.QueryRowContext(ctx, "SELECT since FROM serving").Scan(&since); err != nil {
		return true, fmt.Errorf("%w (tables %d, this one knows %d): start the newer program", ErrTooNew, at, newest)
	}
	if newest < since {
		return true, fmt.Errorf(
			"%w (tables %d, which programs that know %d or more can serve; this one knows %d): start the newer program",
			ErrTooNew,
			at,
			since,
			newest,
		)
	}
	return true, nil
}

func (s *Store) provider() (*goose.Provider, error) {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectMySQL, s.db, dir)
}

// Schema is the version of the tables.
func (s *Store) Schema(ctx context.Context) (version int64, err error) {
	p, err := s.provider()
	if err != nil {
		return 0, err
	}
	return p.GetDBVersion(ctx)
}

// Backup writes everything that is kept, as it stands at one moment; what passes while a server runs is left out.
func (s *Store) Backup(ctx context.Context, w io.Writer, made time.Time) (int, error) {
	schema, err := s.Schema(ctx)
	if err != nil {
		return 0, err
	}
	return dump.Write(ctx, s.db, w, dump.Everything(), schema, made)
}

// ErrNotEmpty refuses to restore over something.
var ErrNotEmpty = errors.New("the database is not empty; a backup is restored into an empty one. Nothing was changed")

// Restore puts a backup into an empty database, in tables as they were when it was made, and then brings those up to date.
// Check the backup first: what is damaged leaves empty tables.
func (s *Store) Restore(ctx context.Context, h dump.Header, r io.Reader) (rows int, err error) {
	if err := s.utf8(ctx); err != nil {
		return 0, err
	}
	err = s.underLock(ctx, func(p *goose.Provider) error {
		sources := p.ListSources()
		if newest := sources[len(sources)-1].Version; h.Schema > newest {
			return fmt.Errorf("the backup is of a newer program (tables %d, this one knows %d); nothing was changed", h.Schema, newest)
		}
		at, err := p.GetDBVersion(ctx)
		if err != nil {
			return err
		}
		if at > 0 {
			var n int
			if err := s.db.QueryRowContext(ctx, "SELECT COUNT(*) FROM studio").Scan(&n); err != nil {
				return err
			}
			if n > 0 {
				return ErrNotEmpty
			}
			if err := dump.DropTables(ctx, s.db); err != nil {
				return err
			}
			if p, err = s.provider(); err != nil { // it makes its own table anew
				return err
			}
		}
		if _, err := p.UpTo(ctx, h.Schema); err != nil {
			return err
		}
		if rows, err = dump.Load(ctx, s.db, r); err != nil {
			return err
		}
		_, err = p.Up(ctx)
		return err
	})
	return rows, err
}

// ExportStudio writes everything of one studio, without passwords.
func (s *Store) ExportStudio(ctx context.Context, studio string, w io.Writer, made time.Time) (int, error) {
	schema, err := s.Schema(ctx)
	if err != nil {
		return 0, err
	}
	return dump.Write(ctx, s.db, w, s.plain(dump.ForStudio(studio)), schema, made)
}

// ImportStudio puts an exported studio beside those that are there; one that is there is ErrConflict, and so is an address
// that has an account. The tables must be of the version of the export.
func (s *Store) ImportStudio(ctx context.Context, h dump.Header, r io.Reader) (int, error) {
	schema, err := s.Schema(ctx)
	if err != nil {
		return 0, err
	}
	if h.Studio == "" || h.Schema != schema {
		return 0, fmt.Errorf("the export is of tables %d and these are %d; use the program that wrote it. Nothing was changed", h.Schema, schema)
	}
	n, err := dump.Load(ctx, s.db, r)
	if err != nil {
		return n, explain(err)
	}
	_, err = s.Seal(ctx, s.secret)
	return n, err
}

// plain is a scope in which nothing is sealed: it is read elsewhere, where the secret is another.
func (s *Store) plain(scope dump.Scope) dump.Scope {
	scope.Change = map[string]func(string) (string, error){}
	for _, c := range sealedColumns {
		scope.Change[c.table+"."+c.column] = s.secret.open
	}
	return scope
}

// Text is an error that says how to mend it where the database cannot keep every script.
func (s *Store) Text(ctx context.Context) error { return s.utf8(ctx) }

// Grants tries what a migration does, on a table of its own.
func (s *Store) Grants(ctx context.Context) error {
	for _, q := range []string{
		"DROP TABLE IF EXISTS ladder_check", "CREATE TABLE ladder_check (id INT NOT NULL PRIMARY KEY)",
		"ALTER TABLE ladder_check ADD COLUMN text VARCHAR(10) NULL, ADD KEY ladder_check_text (text)",
		"INSERT INTO ladder_check (id) VALUES (1)", "UPDATE ladder_check SET id = 2", "DELETE FROM ladder_check", "DROP TABLE ladder_check",
	} {
		if _, err := s.db.ExecContext(ctx, q); err != nil {
			return err
		}
	}
	return nil
}

// Pending is how many migrations wait.
func (s *Store) Pending(ctx context.Context) (int, error) {
	p, err := s.provider()
	if err != nil {
		return 0, err
	}
	list, err := p.Status(ctx)
	n := 0
	for _, m := range list {
		if m.State == goose.StatePending {
			n++
		}
	}
	return n, err
}

// ClockOff is how far the clock of the database is ahead of another.
func (s *Store) ClockOff(ctx context.Context, now func() time.Time) (time.Duration, error) {
	var at time.Time
	err := s.db.QueryRowContext(ctx, "SELECT UTC_TIMESTAMP(6)").Scan(&at)
	return at.Sub(now()), err
}
