package storetest

import (
	"context"
	"database/sql/driver"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"sync"

	"patientladder/store"
)

// Faults lets one statement of a database fail. Use Open for a store that goes through it.
type Faults struct {
	mu sync.Mutex
	// left counts down, from the first statement that writes on; the statement at 1 fails. 0 is none.
	left    int
	writing bool
	failed  string
}

// ErrFault is what a statement that was made to fail returns.
var ErrFault = errors.New("the database failed, as the test wished")

// Open connects to the database of the tests through the faults.
func (f *Faults) Open(ctx context.Context) (*store.Store, error) { return f.OpenAt(ctx, dsn) }

// OpenAt connects to a database through the faults.
func (f *Faults) OpenAt(ctx context.Context, dsn string) (*store.Store, error) {
	return store.OpenThrough(ctx, dsn, func(c driver.Connector) driver.Connector { return faulty{c, f} })
}

// Fail lets the nth statement fail, from 1, that comes at or after the next one that writes; ending a transaction counts as one. 0 lets none fail.
func (f *Faults) Fail(n int) {
	f.mu.Lock()
	defer f.mu.Unlock()
	f.left, f.writing, f.failed = n, false, ""
}

// Failed is the statement that failed since Fail; empty for none.
func (f *Faults) Failed() string {
	f.mu.Lock()
	defer f.mu.Unlock()
	return f.failed
}

// computed are tables of what may be thrown away at any time, and sessions: what happens in them is not counted.
var computed = []string{"snapshot", "brief", "sessions", "device", "attempt", "challenge"}

// writes finds what writes, and into which table.
var writes = regexp.MustCompile(
	`(?s)^(?:--[^\n]*\n)?\s*(?:INSERT(?: IGNORE)?(?: INTO)?|REPLACE(?: INTO)?|UPDATE|DELETE(?: \w+)? FROM)\s+(\w+)`,
)

func (f *Faults) next(statement string) error {
	f.mu.Lock()
	defer f.mu.Unlock()
	if found := writes.FindStringSubmatch(statement); found != nil {
		if slices.Contains(computed, found[1]) {
			return nil
		}
		f.writing = true
	}
	if !f.writing || f.left == 0 {
		return nil
	}
	if f.left--; f.left > 0 {
		return nil
	}
	f.failed = statement
	return fmt.Errorf("%w: %.60s", ErrFault, statement)
}

type faulty struct {
	driver.Connector
	f *Faults
}

func (c faulty) Connect(ctx context.Context) (driver.Conn, error) {
	inner, err := c.Connector.Connect(ctx)
	if err != nil {
		return nil, err
	}
	return &faultyConn{inner.(conn), c.f}, nil
}

// conn is what the driver's connections can do.
type conn interface {
	driver.Conn
	driver.ConnPrepareContext
	driver.ConnBeginTx
	driver.QueryerContext
	driver.ExecerContext
	driver.Pinger
	driver.SessionResetter
	driver.Validator
	driver.NamedValueChecker
}

type faultyConn struct {
	conn
	f *Faults
}

func (c *faultyConn) QueryContext(ctx context.Context, query string, args []driver.NamedValue) (driver.Rows, error) {
	if err := c.f.next(query); err != nil {
		return nil, err
	}
	return c.conn.QueryContext(ctx, query, args)
}

func (c *faultyConn) ExecContext(ctx context.Context, query string, args []driver.NamedValue) (driver.Result, error) {
	if err := c.f.next(query); err != nil {
		return nil, err
	}
	return c.conn.ExecContext(ctx, query, args)
}

func (c *faultyConn) BeginTx(ctx context.Context, opts driver.TxOptions) (driver.Tx, error) {
	tx, err := c.conn.BeginTx(ctx, opts)
	if err != nil {
		return nil, err
	}
	return &faultyTx{tx, c.f}, nil
}

type faultyTx struct {
	driver.Tx
	f *Faults
}

// Commit fails without having committed.
func (t *faultyTx) Commit() error {
	if err := t.f.next("COMMIT"); err != nil {
		return errors.Join(err, t.Tx.Rollback())
	}
	return t.Tx.Commit()
}

// Sums are the sums of all tables but of what may be thrown away at any time, by name.
func Sums(ctx context.Context, st *store.Store) (map[string]string, error) {
	rows, err := st.DB().
		QueryContext(ctx, `SELECT table_name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name <> 'goose_db_version'`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var names []string
	for rows.Next() {
		var name string
		if err := rows.Scan(&name); err != nil {
			return nil, err
		}
		names = append(names, name)
	}
	names = slices.DeleteFunc(names, func(n string) bool { return slices.Contains(computed, n) })
	sums, err := st.DB().QueryContext(ctx, "CHECKSUM TABLE "+strings.Join(names, ", "))
	if err != nil {
		return nil, err
	}
	defer sums.Close()
	out := map[string]string{}
	for sums.Next() {
		var name string
		var sum *string
		if err := sums.Scan(&name, &sum); err != nil {
			return nil, err
		}
		if sum != nil {
			out[name] = *sum
		}
	}
	return out, sums.Err()
}
