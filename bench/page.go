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
	"runtime"
	"sort"
	"strings"
	"sync"
	"syscall"
	"testing/fstest"
	"time"

	"patientladder/account"
	"patientladder/api"
	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/ladder"
	"patientladder/core/student/studentlog"
	"patientladder/store"
	"patientladder/store/localdb"
	"patientladder/store/storetest"
	"patientladder/store/trips"
)

const (
	email    = "bench@harbour.example"
	password = "only for measuring"
)

// pages prints what the data of a page costs among many studios: processor time of the server, time beside the
// same statements sent bare to the same database, 32 at once, and what the next page costs after a mark.
func pages(w io.Writer, skills skill.Catalogue, studios int) error {
	dir, err := os.MkdirTemp("", "ladder-bench-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	ctx := context.Background()
	db, err := localdb.StartWith(ctx, dir, localdb.ForLoading()...)
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
	_, handler, err := api.New(
		api.Config{
			Store: st,
			Page:  fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}},
			Now:   func() time.Time { return s.day.Add(9 * time.Hour) },
		},
	)
	if err != nil {
		return err
	}
	web := httptest.NewServer(handler)
	defer web.Close()
	site := &visitor{handler: handler}
	if err := site.signIn(web.URL); err != nil {
		return err
	}
	if err := site.get("/api/overview"); err != nil { // the standings are kept from now on
		return err
	}
	if err := storetest.Multiply(ctx, st, id("S"), studios-1); err != nil {
		return err
	}
	loaded := time.Since(began)
	mine := "/api/ladders/" + s.students[7].id
	method := id("M", 0, 70)
	fmt.Fprintf(w, "page among %d studios\tstatements\tbare\tpage\tpage ÷ bare\tCPU\taim\t\n", studios)
	for _, p := range []struct {
		name, path string
		aim        int
	}{
		{"today", "/api/today", 20}, {"ladder", mine, 10}, {"lesson", mine + "/lesson", 10}, {"plan", mine + "/plan", 10},
		{"week", mine + "/week", 10},
		{"technique", mine + "/technique", 10}, {"piece", "/api/materials/" + method + "?ladder=" + s.students[7].id, 25},
		{"studio", "/api/overview", 60},
		{"progress", mine + "/progress", 100}, {"progress, all", mine + "/progress?from=2020-01-01&to=" + s.day.Format(time.DateOnly), 100},
		{"the year", "/api/studio-year", 250}, {"learned", "/api/learned", 2000},
	} {
		if err := site.get(p.path); err != nil {
			return err
		}
		list, err := rec.Of(func() error { return site.get(p.path) })
		if err != nil {
			return err
		}
		floor, err := median(func() error { return trips.Bare(ctx, bare.DB(), list) })
		if err != nil {
			return err
		}
		page, err := median(func() error { return site.get(p.path) })
		if err != nil {
			return err
		}
		cpu, err := processor(func() error { return site.get(p.path) })
		if err != nil {
			return err
		}
		fmt.Fprintf(
			w,
			"%s\t%d\t%s\t%s\t%.2f\t%s\t%d ms, 3 × bare\t\n",
			p.name,
			len(list),
			ms(floor),
			ms(page),
			ratio(page, floor),
			ms(cpu),
			p.aim,
		)
	}
	failed, slowest := site.atOnce(32, "/api/overview")
	fmt.Fprintf(w, "32 studio pages at once\t\t\t%s the slowest\t\t\t%d failed, none allowed\t\n", ms(slowest), failed)
	fresh, err := afterAMark(ctx, st, site, s)
	if err != nil {
		return err
	}
	fmt.Fprintf(w, "studio after one mark\t\t\t\t\t%s\tone ladder more than warm\t\n", ms(fresh))
	var mem runtime.MemStats
	runtime.ReadMemStats(&mem)
	fmt.Fprintf(w, "loaded in\t%s\tmemory\t%d MB\t\t\t\t\n", loaded.Round(time.Second), mem.Sys>>20)
	return nil
}

// visitor asks the server as a signed-in browser does, without a network between.
type visitor struct {
	handler http.Handler
	cookies []*http.Cookie
}

func (v *visitor) signIn(url string) error {
	jar, err := cookiejar.New(nil)
	if err != nil {
		return err
	}
	res, err := (&http.Client{Jar: jar}).Post(
		url+"/api/session",
		"application/json",
		strings.NewReader(fmt.Sprintf(`{"email":%q,"password":%q}`, email, password)),
	)
	if err != nil {
		return err
	}
	res.Body.Close()
	v.cookies = res.Cookies()
	return nil
}

func (v *visitor) get(path string) error {
	req := httptest.NewRequest(http.MethodGet, path, nil)
	req.Header.Set("Accept-Encoding", "gzip")
	for _, c := range v.cookies {
		req.AddCookie(c)
	}
	res := httptest.NewRecorder()
	v.handler.ServeHTTP(res, req)
	if res.Code != http.StatusOK {
		return errors.New(path + ": " + http.StatusText(res.Code))
	}
	return nil
}

// atOnce asks for a page so many times at the same moment.
func (v *visitor) atOnce(n int, path string) (failed int, slowest time.Duration) {
	var all sync.WaitGroup
	var mu sync.Mutex
	for range n {
		all.Go(func() {
			began := time.Now()
			err := v.get(path)
			mu.Lock()
			defer mu.Unlock()
			if err != nil {
				failed++
			}
			slowest = max(slowest, time.Since(began))
		})
	}
	all.Wait()
	return failed, slowest
}

// afterAMark is the processor time of the studio page right after one student got a mark.
func afterAMark(ctx context.Context, st *store.Store, v *visitor, s invented) (time.Duration, error) {
	var took []time.Duration
	for i := range 9 {
		p := s.students[i]
		last := p.log[len(p.log)-1]
		mark := studentlog.Entry{
			ID:    id("X", i),
			At:    s.day.Add(8 * time.Hour),
			Actor: id("T"),
			Kind:  studentlog.Note,
			Text:  fmt.Sprint("after ", last.ID),
		}
		if _, err := st.Append(ctx, id("S"), p.id, []studentlog.Entry{mark}); err != nil {
			return 0, err
		}
		before := used()
		if err := v.get("/api/overview"); err != nil {
			return 0, err
		}
		took = append(took, used()-before)
	}
	sort.Slice(took, func(a, b int) bool { return took[a] < took[b] })
	return took[len(took)/2], nil
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

// processor is the mean processor time of forty calls, that of the database not counted.
func processor(f func() error) (time.Duration, error) {
	const calls = 40
	before := used()
	for range calls {
		if err := f(); err != nil {
			return 0, err
		}
	}
	return (used() - before) / calls, nil
}

// used is the processor time that this process has used so far.
func used() time.Duration {
	var r syscall.Rusage
	if err := syscall.Getrusage(syscall.RUSAGE_SELF, &r); err != nil {
		panic(err)
	}
	return time.Duration(r.Utime.Nano() + r.Stime.Nano())
}

// put writes the invented studio into an empty store.
func (s invented) put(ctx context.Context, st *store.Store) error {
	studio := id("S")
	hash, err := account.HashPassword(password)
	if err != nil {
		return err
	}
	err = st.AddStudio(
		ctx,
		store.Studio{ID: studio, Name: "Bench", Timezone: "UTC"},
		store.Teacher{ID: id("T"), Email: email, Name: "Bench", PasswordHash: hash},
	)
	if err != nil {
		return err
	}
	var bare []material.Material
	for _, p := range s.placed {
		m := s.lib[p.Material]
		if m.Strand != material.Method {
			bare = append(bare, m)
			continue
		}
		// A piece of a book has its score, as most have.
		if _, err := st.AddMaterial(ctx, studio, m, &store.ScoreFile{Name: "score.musicxml", Data: twoHands(m.Bars)}); err != nil {
			return err
		}
	}
	if err := st.Import(ctx, studio, nil, nil, bare); err != nil {
		return err
	}
	for i, p := range s.students {
		l := store.Ladder{
			ID: p.id, StudentID: id("P", i), Name: fmt.Sprintf("Student %d", i+1), Instrument: "piano", Born: s.day.AddDate(-9, 0, 0),
			Lessons:      calendar.Weekly(time.Weekday(1+i%5), 14*60+30*(i/5), 30, s.day.AddDate(-3, 0, 0)),
			PracticeDays: [7]bool{1: true, 2: true, 3: true, 4: true, 5: true, 6: true}, PracticeMinutes: 20,
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
