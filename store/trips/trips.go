// Package trips records which statements a call sends to the database, so that
// they can be counted, and sent again with nothing around them: the floor that
// the call cannot go below.
package trips

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"io"
	"sync"
)

// Recorder wraps the connections of a store. Use Wrap with store.OpenThrough.
type Recorder struct {
	mu   sync.Mutex
	on   bool
	list []Trip
}

// Trip is one statement with its values.
type Trip struct {
	Query string
	Args  []driver.NamedValue
}

// Wrap returns a connector whose statements the recorder sees.
func (r *Recorder) Wrap(c driver.Connector) driver.Connector { return connector{c, r} }

// Of returns the statements that f sends.
func (r *Recorder) Of(f func() error) ([]Trip, error) {
	r.mu.Lock()
	r.on, r.list = true, nil
	r.mu.Unlock()
	err := f()
	r.mu.Lock()
	defer r.mu.Unlock()
	r.on = false
	return r.list, err
}

func (r *Recorder) note(query string, args []driver.NamedValue) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.on {
		r.list = append(r.list, Trip{query, append([]driver.NamedValue(nil), args...)})
	}
}

// Bare sends the statements again on one connection and reads every row, as
// plainly as the driver allows.
func Bare(ctx context.Context, db *sql.DB, list []Trip) error {
	c, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer c.Close()
	return c.Raw(func(raw any) error {
		q := raw.(driver.QueryerContext)
		for _, t := range list {
			rows, err := q.QueryContext(ctx, t.Query, t.Args)
			if err != nil {
				return err
			}
			into := make([]driver.Value, len(rows.Columns()))
			for err == nil {
				err = rows.Next(into)
			}
			if closed := rows.Close(); err == io.EOF {
				err = closed
			}
			if err != nil {
				return err
			}
		}
		return nil
	})
}

type connector struct {
	driver.Connector
	r *Recorder
}

func (c connector) Connect(ctx context.Context) (driver.Conn, error) {
	inner, err := c.Connector.Connect(ctx)
	if err != nil {
		return nil, err
	}
	return &conn{inner.(full), c.r}, nil
}

// full is what the driver's connections can do.
type full interface {
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

type conn struct {
	full
	r *Recorder
}

func (c *conn) QueryContext(ctx context.Context, query string, args []driver.NamedValue) (driver.Rows, error) {
	c.r.note(query, args)
	return c.full.QueryContext(ctx, query, args)
}

func (c *conn) ExecContext(ctx context.Context, query string, args []driver.NamedValue) (driver.Result, error) {
	c.r.note(query, args)
	return c.full.ExecContext(ctx, query, args)
}
