package main

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/base64"
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"os"
	"os/exec"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/library/skill"
	"patientladder/store"
	"patientladder/store/localdb"
)

// crowdAddr is where the server that is crowded listens.
const crowdAddr = "127.0.0.1:7391"

// crowd prints what a crowd does to a server of its own (bin/ladder serve): how much memory the process takes, how it is
// answered, and how long a signed-in teacher waits for the page of a lesson meanwhile.
func crowd(w io.Writer, skills skill.Catalogue) error {
	if _, err := os.Stat("bin/ladder"); err != nil {
		return errors.New("build the program first: make build")
	}
	dir, err := os.MkdirTemp("", "ladder-crowd-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	ctx := context.Background()
	db, err := localdb.StartWith(ctx, dir)
	if err != nil {
		return err
	}
	defer db.Stop()
	st, err := store.Open(ctx, db.DSN)
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.Migrate(ctx); err != nil {
		return err
	}
	s := invent(skills, 4)
	if err := s.put(ctx, st); err != nil {
		return err
	}
	if err := sizes(ctx, w, st); err != nil {
		return err
	}
	serve := exec.Command("bin/ladder", "serve", "--dsn", db.DSN, "--addr", crowdAddr)
	serve.Stderr = os.Stderr
	if err := serve.Start(); err != nil {
		return err
	}
	defer func() {
		serve.Process.Signal(os.Interrupt)
		serve.Wait()
	}()
	c := &crowded{pid: serve.Process.Pid}
	if err := c.signIn(); err != nil {
		return err
	}
	stop := make(chan struct{})
	defer close(stop)
	go c.watch(stop)
	lesson := "/api/ladders/" + s.students[7].id + "/lesson"
	upload := scoreOfTenMegabytes()
	type share struct {
		n  int
		do func(i int) int
	}
	guess := share{24, func(i int) int {
		return c.send(http.DefaultClient, "POST", "/api/session", map[string]any{"email": fmt.Sprintf("x%d@example.org", i), "password": "guess"})
	}}
	bring := share{24, func(int) int {
		return c.send(c.http, "POST", "/api/scores/read", map[string]any{"fileName": "x.musicxml", "score": upload, "instrument": "piano"})
	}}
	long := base64.StdEncoding.EncodeToString(midiOf(200_000))
	piece := map[string]any{
		"id":         ulid.Make().String(),
		"title":      "Long",
		"strand":     "repertoire",
		"instrument": "piano",
		"fileName":   "x.mid",
		"score":      base64.StdEncoding.EncodeToString(midiOf(11_500)),
	}
	if status := c.send(c.http, "POST", "/api/materials", piece); status != http.StatusCreated {
		return fmt.Errorf("the longest piece was answered with %d", status)
	}
	tooLong := share{6, func(i int) int {
		return c.send(
			c.http,
			"POST",
			"/api/materials",
			map[string]any{"id": ulid.Make().String(), "strand": "repertoire", "instrument": "piano", "fileName": "x.mid", "score": long},
		)
	}}
	longest := share{6, func(int) int { return c.send(c.http, "GET", "/api/materials/"+piece["id"].(string), nil) }}
	look := share{32, func(int) int { return c.send(c.http, "GET", "/api/overview", nil) }}
	fmt.Fprintln(w, "crowd\tanswers\tslowest\tmost memory\ta lesson page meanwhile\t")
	for _, p := range []struct {
		name   string
		shares []share
	}{
		{"nobody", nil}, {"24 sign-ins", []share{guess}}, {"24 scores of 10 MB", []share{bring}}, {"6 files of 200,000 notes", []share{tooLong}},
		{"6 pages of the longest piece", []share{longest}},
		{"32 studio pages", []share{look}}, {"all of these", []share{guess, bring, tooLong, longest, look}},
	} {
		c.begin()
		var all sync.WaitGroup
		began := time.Now()
		for _, x := range p.shares {
			for i := range x.n {
				all.Go(func() { c.answered(x.do(i), time.Since(began)) })
			}
		}
		done := make(chan struct{})
		go func() { all.Wait(); close(done) }()
		var waits []time.Duration
		for going := true; going || len(waits) < 10; {
			asked := time.Now()
			if status := c.send(c.http, "GET", lesson, nil); status != http.StatusOK {
				return fmt.Errorf("the lesson was answered with %d", status)
			}
			waits = append(waits, time.Since(asked))
			select {
			case <-done:
				going = false
			case <-time.After(100 * time.Millisecond):
			}
		}
		fmt.Fprintf(
			w,
			"%s\t%s\t%.1f s\t%d MB\t%s for 95 of 100, %s at most, of %d\t\n",
			p.name,
			c.summary(),
			c.slowest.Seconds(),
			c.most>>20,
			centile(waits, 95).Round(time.Millisecond),
			slices.Max(waits).Round(time.Millisecond),
			len(waits),
		)
	}
	return nil
}

// centile is the time that so many of a hundred do not exceed (the nearest rank).
func centile(waits []time.Duration, n int) time.Duration {
	sorted := slices.Sorted(slices.Values(waits))
	return sorted[(len(sorted)*n+99)/100-1]
}

// midiOf is a MIDI file of so many semiquavers in each of two hands' reach, one after the other (Standard MIDI File 1.0).
func midiOf(notes int) []byte {
	var track []byte
	for i := range notes {
		key := byte(60 + i*7%24)
		track = append(track, 0, 0x90, key, 80, 24, 0x80, key, 0)
	}
	track = append(track, 0, 0xFF, 0x2F, 0)
	out := binary.BigEndian.AppendUint32([]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk"), uint32(len(track)))
	return append(out, track...)
}

// sizes prints how large the studio is in the database and as a backup.
func sizes(ctx context.Context, w io.Writer, st *store.Store) error {
	for _, t := range []string{"entry", "snapshot", "material", "score_file", "demand", "rung"} { // the sizes that are said are estimates until then
		if _, err := st.DB().ExecContext(ctx, "ANALYZE TABLE "+t); err != nil {
			return err
		}
	}
	var tables float64
	if err := st.DB().QueryRowContext(ctx, "SELECT SUM(data_length + index_length) FROM information_schema.tables WHERE table_schema = DATABASE()").Scan(&tables); err != nil {
		return err
	}
	var small bytes.Buffer
	z := gzip.NewWriter(&small)
	began := time.Now()
	rows, err := st.Backup(ctx, z, began)
	if err := errors.Join(err, z.Close()); err != nil {
		return err
	}
	fmt.Fprintf(
		w,
		"60 students, three years\t%.0f MB of tables\t%d rows\t%.1f MB as a backup\t%.1f s to write it\t\n\n",
		tables/(1<<20),
		rows,
		float64(small.Len())/(1<<20),
		time.Since(began).Seconds(),
	)
	return nil
}

// crowded is a server under a crowd.
type crowded struct {
	pid  int
	http *http.Client

	mu      sync.Mutex
	most    int64
	count   map[int]int
	slowest time.Duration
}

func (c *crowded) begin() {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.most, c.count, c.slowest = 0, map[int]int{}, 0
}

func (c *crowded) answered(status int, took time.Duration) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.count[status]++
	c.slowest = max(c.slowest, took)
}

func (c *crowded) summary() string {
	c.mu.Lock()
	defer c.mu.Unlock()
	var out []string
	for status, n := range c.count {
		out = append(out, fmt.Sprintf("%d × %d", n, status))
	}
	slices.Sort(out)
	return strings.Join(out, ", ")
}

// watch looks at the memory of the process fifty times a second.
func (c *crowded) watch(stop chan struct{}) {
	for {
		if data, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", c.pid)); err == nil {
			for line := range strings.Lines(string(data)) {
				if kb, found := strings.CutPrefix(line, "VmRSS:"); found {
					n, _ := strconv.ParseInt(strings.Fields(kb)[0], 10, 64)
					c.mu.Lock()
					c.most = max(c.most, n<<10)
					c.mu.Unlock()
				}
			}
		}
		select {
		case <-stop:
			return
		case <-time.After(20 * time.Millisecond):
		}
	}
}

func (c *crowded) signIn() error {
	jar, err := cookiejar.New(nil)
	if err != nil {
		return err
	}
	c.http = &http.Client{Jar: jar, Timeout: 5 * time.Minute}
	for range 100 {
		if c.send(c.http, "POST", "/api/session", map[string]any{"email": email, "password": password}) == http.StatusOK {
			return nil
		}
		time.Sleep(200 * time.Millisecond)
	}
	return errors.New("the server does not let us in")
}

// send returns the status of an answer, 0 for none.
func (c *crowded) send(by *http.Client, method, path string, body any) int {
	var data []byte
	if body != nil {
		data, _ = json.Marshal(body)
	}
	req, err := http.NewRequest(method, "http://"+crowdAddr+path, bytes.NewReader(data))
	if err != nil {
		return 0
	}
	req.Header.Set("Content-Type", "application/json")
	res, err := by.Do(req)
	if err != nil {
		return 0
	}
	defer res.Body.Close()
	io.Copy(io.Discard, res.Body)
	return res.StatusCode
}

// scoreOfTenMegabytes is a score of long words, in base64.
func scoreOfTenMegabytes() string {
	var b bytes.Buffer
	b.WriteString(
		`<?xml version="1.0"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1">`,
	)
	for i := range 4000 {
		fmt.Fprintf(
			&b,
			`<measure number="%d"><note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration><voice>1</voice><type>whole</type><lyric><text>%s</text></lyric></note></measure>`,
			i+1,
			strings.Repeat("a", 2400),
		)
	}
	b.WriteString("</part></score-partwise>")
	return base64.StdEncoding.EncodeToString(b.Bytes())
}
