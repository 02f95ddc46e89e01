// Package store keeps a studio's data in MariaDB. It is the only package that
// holds SQL, and every call that touches a studio's rows takes the studio's
// id: there is no way to ask for a row without it.
//
//	store.go    opening, migrations, transactions, the kinds of errors
//	people.go   studios, teachers, students, lessons
//	account.go  accounts, tries, letters, what was done
//	session.go  sessions
//	keep.go     migrations under a lock, backup and restore
//	dump/       all tables as lines, and back
//	library.go  sources, materials, demands, focus points, score files
//	ladder.go   rungs, the log and its snapshot
//	rows/       generated from queries/ by sqlc
//	trips/      which statements a call sends
//	localdb/    a private MariaDB for the demo and the tests
package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"embed"
	"errors"
	"fmt"
	"time"

	"github.com/go-sql-driver/mysql"
	"github.com/pressly/goose/v3"

	"patientladder/store/rows"
)

// The kinds of errors that callers tell apart.
var (
	// ErrNotFound: no such row in this studio. A row of another studio is not found either.
	ErrNotFound = errors.New("not found")
	// ErrConflict: the same id with other contents, or a form made from an older state.
	ErrConflict = errors.New("conflict")
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is a handle on the database; it is safe for concurrent use.
type Store struct {
	db *sql.DB
	// secret seals what opens something; nil for none.
	secret *Secret
}

// Open connects to MariaDB and checks that it answers. The dsn is one of the
// mysql driver, for example "user:password@tcp(127.0.0.1:3306)/ladder".
func Open(ctx context.Context, dsn string) (*Store, error) {
	return OpenThrough(ctx, dsn, func(c driver.Connector) driver.Connector { return c })
}

// OpenThrough is Open with something between the pool and the driver (see trips).
func OpenThrough(ctx context.Context, dsn string, wrap func(driver.Connector) driver.Connector) (*Store, error) {
	cfg, err := mysql.ParseDSN(dsn)
	if err != nil {
		return nil, fmt.Errorf("the database address is not valid: %w", err)
	}
	if cfg.DBName == "" {
		return nil, errors.New(
			"the database address names no database: put its name after the slash, as in user:password@tcp(127.0.0.1:3306)/ladder",
		)
	}
	cfg.ParseTime, cfg.Loc = true, time.UTC
	cfg.Collation = "utf8mb4_unicode_ci"
	cfg.InterpolateParams = true // one round trip for a query instead of two; safe in UTF-8
	if cfg.Params == nil {
		cfg.Params = map[string]string{}
	}
	cfg.Params["time_zone"] = "'+00:00'"
	cfg.Params["sql_mode"] = "'STRICT_ALL_TABLES,NO_ZERO_DATE'"
	connector, err := mysql.NewConnector(cfg)
	if err != nil {
		return nil, err
	}
	db := sql.OpenDB(wrap(connector))
	db.SetMaxOpenConns(32)
	db.SetConnMaxIdleTime(5 * time.Minute)
	if err := db.PingContext(ctx); err != nil {
		db.Close()
		return nil, fmt.Errorf("the database does not answer: %w", err)
	}
	return &Store{db: db}, nil
}

// Close closes all connections.
func (s *Store) Close() error { return s.db.Close() }

// DB is the pool itself, for the session store, which brings its own queries.
func (s *Store) DB() *sql.DB { return s.db }

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.db.PingContext(ctx) }

// Migrate brings the schema up to date. It refuses a database that cannot
// keep every script (see utf8), before it has changed anything.
func (s *Store) Migrate(ctx context.Context) error {
	if err := s.utf8(ctx); err != nil {
		return err
	}
	return s.underLock(ctx, func(p *goose.Provider) error {
		newer, err := s.servable(ctx, p)
		if err != nil || newer {
			return err
		}
		if _, err := p.Up(ctx); err != nil {
			return err
		}
		_, err = s.db.ExecContext(ctx, "REPLACE INTO serving (id, since) VALUES (1, ?)", firstServed)
		return err
	})
}

// utf8 is an error that says how to mend it when the database, or a table made
// while it was set otherwise, keeps text in anything but utf8mb4: names in
// other scripts would come back as question marks. Columns declared ascii hold
// only identifiers of our own making.
func (s *Store) utf8(ctx context.Context) error {
	const database = "SELECT COALESCE(DATABASE(), ''), @@character_set_database"
	var name, charset string
	if err := s.db.QueryRowContext(ctx, database).Scan(&name, &charset); err != nil {
		return err
	}
	if charset != "utf8mb4" {
		return fmt.Errorf(
			"the database %s keeps text as %s, which loses names in many scripts; before starting again run: ALTER DATABASE `%s` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci",
			name,
			charset,
			name,
		)
	}
	const tables = `SELECT table_name, character_set_name FROM information_schema.columns
WHERE table_schema = DATABASE() AND character_set_name NOT IN ('utf8mb4', 'ascii')
ORDER BY table_name, ordinal_position LIMIT 1`
	var table string
	switch err := s.db.QueryRowContext(ctx, tables).Scan(&table, &charset); {
	case errors.Is(err, sql.ErrNoRows):
		return nil
	case err != nil:
		return err
	}
	return fmt.Errorf(
		"the table %s keeps text as %s, which loses names in many scripts; before starting again run: ALTER TABLE `%s` CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci",
		table,
		charset,
		table,
	)
}

// within runs f in one transaction: that of the context (see Together), in which what f wrote goes alone when it fails, or one
// of its own.
func (s *Store) within(ctx context.Context, f func(q *rows.Queries) error) error {
	if tx := transaction(ctx); tx != nil {
		return part(ctx, tx, func() error { return f(rows.New(tx)) })
	}
	return s.Together(ctx, func(ctx context.Context) error { return f(rows.New(transaction(ctx))) })
}

// found turns a change of no row into ErrNotFound.
func found(n int64, err error) error {
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return err
}

// changed turns a change of no row, whose version was another by then, into ErrConflict.
func changed(n int64, err error) error {
	if err == nil && n == 0 {
		return ErrConflict
	}
	return err
}

// explain turns the driver's errors into the kinds above.
func explain(err error) error {
	const duplicate, noParent = 1062, 1452
	var my *mysql.MySQLError
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return ErrNotFound
	case errors.As(err, &my) && my.Number == duplicate:
		return ErrConflict
	case errors.As(err, &my) && my.Number == noParent:
		return ErrNotFound
	}
	return err
}
