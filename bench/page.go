package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"sort"
	"strings"
	"testing/fstest"
	"time"

	"patientladder/api"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/ladder"
	"patientladder/store"
	"patientladder/store/localdb"
	"patientladder/store/storetest"
	"patientladder/store/trips"
)

const (
	email    = "bench@harbour.example"
	password = "only for measuring"
)

// pages prints what the data of a page costs among many studios, beside the
// same statements sent bare to the same database.
func pages(w io.Writer, skills skill.Catalogue, studios int) error {
	dir, err := os.MkdirTemp("", "ladder-bench-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	ctx := context.Background()
	db, err := localdb.Start(ctx, dir)
	if err != nil {
		return err
	}
	defer db.Stop()
	var rec trips.Recorder
	st, err := store.OpenThrough(ctx, db.DSN, rec.Wrap)
	if err != nil {
		return err
	}
	defer st.Close()
	bare, err := store.Open(ctx, db.DSN)
	if err != nil {
		return err
	}
	defer bare.Close()
	if err := st.Migrate(ctx); err != nil {
		return err
	}
	s := invent(skills, 4)
	began := time.Now()
	if err := s.put(ctx, st); err != nil {
		return err
	}
	_, handler, err := api.New(api.Config{Store: st, Page: fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}}, Now: func() time.Time { return s.day.Add(9 * time.Hour) }})
	if err != nil {
		return err
	}
	web := httptest.NewServer(handler)
	defer web.Close()
	jar, err := cookiejar.New(nil)
	if err != nil {
		return err
	}
	browser := &http.Client{Jar: jar}
	res, err := browser.Post(web.URL+"/api/session", "application/json", strings.NewReader(fmt.Sprintf(`{"email":%q,"password":%q}`, email, password)))
	if err != nil {
		return err
	}
	res.Body.Close()
	get := func(path string) error { return fetch(browser, web.URL+path) }
	if err := get("/api/overview"); err != nil { // the standings are kept from now on
		return err
	}
	if err := storetest.Multiply(ctx, st, id("S"), studios-1); err != nil {
		return err
	}
	fmt.Fprintf(w, "page among %d studios\tstatements\tbare\tpage\tpage ÷ bare\taim\t\n", studios)
	for _, p := range []struct{ name, path string }{
		{"ladder", "/api/ladders/" + s.students[7].id}, {"today", "/api/today"}, {"week", "/api/ladders/" + s.students[7].id + "/week"}, {"overview", "/api/overview"},
	} {
		list, err := rec.Of(func() error { return get(p.path) })
		if err != nil {
			return err
		}
		floor, err := median(func() error { return trips.Bare(ctx, bare.DB(), list) })
		if err != nil {
			return err
		}
		page, err := median(func() error { return get(p.path) })
		if err != nil {
			return err
		}
		fmt.Fprintf(w, "%s\t%d\t%s\t%s\t%.2f\tat most 3\t\n", p.name, len(list), ms(floor), ms(page), ratio(page, floor))
	}
	fmt.Fprintf(w, "made in\t%s\t\t\t\t\t\n", time.Since(began).Round(time.Second))
	return nil
}

// fetch reads an answer as it comes over the wire.
func fetch(c *http.Client, url string) error {
	req, err := http.NewRequest(http.MethodGet, url, nil)
	if err != nil {
		return err
	}
	req.Header.Set("Accept-Encoding", "gzip") // and left as it is: reading it is the browser's
	res, err := c.Do(req)
	if err != nil {
		return err
	}
	defer res.Body.Close()
	if _, err := io.Copy(io.Discard, res.Body); err != nil {
		return err
	}
	if res.StatusCode != http.StatusOK {
		return errors.New(url + ": " + res.Status)
	}
	return nil
}

// median is the middle time of forty-one calls.
func median(f func() error) (time.Duration, error) {
	var took []time.Duration
	for range 41 {
		began := time.Now()
		if err := f(); err != nil {
			return 0, err
		}
		took = append(took, time.Since(began))
	}
	sort.Slice(took, func(a, b int) bool { return took[a] < took[b] })
	return took[len(took)/2], nil
}

// put writes the invented studio into an empty store.
func (s invented) put(ctx context.Context, st *store.Store) error {
	studio := id("S")
	hash, err := api.HashPassword(password)
	if err != nil {
		return err
	}
	err = st.AddStudio(ctx, store.Studio{ID: studio, Name: "Bench", Timezone: "UTC"}, store.Teacher{ID: id("T"), Email: email, Name: "Bench", PasswordHash: hash})
	if err != nil {
		return err
	}
	var all []material.Material
	for _, p := range s.placed {
		all = append(all, s.lib[p.Material])
	}
	if err := st.Import(ctx, studio, nil, nil, all); err != nil {
		return err
	}
	for i, p := range s.students {
		l := store.Ladder{
			ID: p.id, StudentID: id("P", i), Name: fmt.Sprintf("Student %d", i+1), Instrument: "piano", Born: s.day.AddDate(-9, 0, 0),
			Weekday: time.Weekday(1 + i%5), StartsAt: 14*60 + 30*(i/5), Minutes: 30, PracticeDays: [7]bool{1: true, 2: true, 3: true, 4: true, 5: true, 6: true}, PracticeMinutes: 20,
		}
		if err := st.AddLadder(ctx, studio, l); err != nil {
			return err
		}
		if err := st.PlaceRungs(ctx, studio, p.id, append([]ladder.Placed(nil), s.placed...)); err != nil {
			return err
		}
		if _, err := st.Append(ctx, studio, p.id, p.log); err != nil {
			return err
		}
	}
	return nil
}
