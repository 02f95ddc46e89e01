package api_test

import (
	"cmp"
	"context"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api"
	"patientladder/store"
	"patientladder/store/storetest"
)

// lived is a studio that is lived day by day on a clock of its own, with a truth about its students that the program does
// not know.
type lived struct {
	*user
	zone *time.Location
	mu   sync.Mutex
	at   time.Time
	rng  *rand.Rand
	// promises are the rules that were looked at, how often each was kept, and where each was broken.
	promises map[string]*promise
	pupils   []*pupil
}

type promise struct {
	kept   int
	broken []string
}

// pupil is one student, with what really happened.
type pupil struct {
	name, instrument, ladder, student, token string
	weekday, every                           int
	startsAt                                 string
	minutes                                  int
	// quick is how likely a point that is heard holds in a lesson.
	quick float64
	// given are the days on which a lesson was entered, set those on which practice was set, ticked those on which it was ticked.
	given, set, ticked map[string]bool
	cancelled          map[string]bool
	forgotten          []string
	published          string
	played             map[string]string
	n                  int
}

func (s *lived) now() time.Time { s.mu.Lock(); defer s.mu.Unlock(); return s.at }

func (s *lived) turn(day time.Time, clock string) {
	t, err := time.Parse("15:04", clock)
	require.NoError(s.t, err)
	s.mu.Lock()
	s.at = time.Date(day.Year(), day.Month(), day.Day(), t.Hour(), t.Minute(), 0, 0, s.zone)
	s.mu.Unlock()
}

// holds notes whether a promise was kept.
func (s *lived) holds(what string, kept bool, where string, args ...any) {
	p := s.promises[what]
	if p == nil {
		p = &promise{}
		s.promises[what] = p
	}
	if kept {
		p.kept++
	} else {
		p.broken = append(p.broken, s.now().Format("2006-01-02 15:04")+" "+fmt.Sprintf(where, args...))
	}
}

func (s *lived) ok(method, path string, body any) map[string]any {
	s.t.Helper()
	status, got := s.call(method, path, body)
	require.Less(s.t, status, 300, "%s %s on %s: %v", method, path, s.now(), got)
	return got
}

// enter adds entries, a second apart from a time on.
func (s *lived) enter(p *pupil, at time.Time, entries ...entry) {
	for i, e := range entries {
		e["at"] = at.Add(time.Duration(i) * time.Second).UTC().Format(time.RFC3339)
	}
	status, got := s.append(p.ladder, entries...)
	require.Equal(s.t, http.StatusOK, status, "%s: %v", p.name, got)
}

func livedFrom(t *testing.T, first time.Time) *lived {
	s := &lived{user: anyone(t), rng: rand.New(rand.NewPCG(7, 31)), promises: map[string]*promise{}}
	var err error
	s.zone, err = time.LoadLocation("Europe/Berlin")
	require.NoError(t, err)
	s.turn(first, "08:00")
	_, handler, err := api.New(api.Config{Store: db, Page: fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}}, Now: s.now})
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(server.Close)
	hash, err := account.HashPassword(strangerPassword)
	require.NoError(t, err)
	email, studio := storetest.ID()+"@example.org", storetest.ID()
	require.NoError(t, db.AddStudio(context.Background(), store.Studio{ID: studio, Name: "A school year", Timezone: "Europe/Berlin"},
		store.Teacher{ID: storetest.ID(), Email: email, Name: "N", PasswordHash: hash}))

	s.url, s.studio = server.URL, studio
	s.ok("POST", "/api/session", map[string]string{"email": email, "password": strangerPassword})
	return s
}

// yearBook are the pieces of a book: each asks for one skill more than most before it.
var yearBook = []string{
	"steady-beat",
	"quarter-notes",
	"half-notes",
	"four-in-a-bar",
	"repeated-notes",
	"reads-steps",
	"rests",
	"reads-skips",
	"three-in-a-bar",
	"dotted-half-notes",
	"eighth-notes",
	"ties",
	"pickup",
	"dotted-quarter-notes",
}

func (s *lived) joins(name, instrument string, weekday, every int, startsAt string, minutes int, quick float64) {
	p := &pupil{
		name:       name,
		instrument: instrument,
		ladder:     storetest.ID(),
		student:    storetest.ID(),
		weekday:    weekday,
		every:      every,
		startsAt:   startsAt,
		minutes:    minutes,
		quick:      quick,
		given:      map[string]bool{},
		set:        map[string]bool{},
		ticked:     map[string]bool{},
		cancelled:  map[string]bool{},
		played:     map[string]string{},
	}
	s.ok(
		"POST",
		"/api/students",
		map[string]any{"student": p.student, "ladder": p.ladder, "name": name, "born": "2015-03-04", "instrument": instrument,
			"slots": []any{map[string]any{"id": storetest.ID(), "weekday": weekday, "startsAt": startsAt, "minutes": minutes, "every": every}}},
	)
	rows := []string{"Title;Skills;Focus;Bars;Distinct bars"}
	for i, skill := range yearBook {
		rows = append(rows, fmt.Sprintf("%s's tune %d;%s;steady|even|loud enough;%d;%d", name, i+1, skill, 8+i, 4+i/2))
	}
	source := storetest.ID()
	s.ok(
		"POST",
		"/api/library/import",
		map[string]any{
			"kind":       "csv",
			"data":       []byte(strings.Join(rows, "\n")),
			"source":     source,
			"title":      name + "'s book",
			"instrument": instrument,
			"strand":     "method",
			"fields":     []string{"title", "skills", "focusPoints", "bars", "distinctBars"},
			"try":        false,
			"leaveOut":   false,
		},
	)
	for _, m := range s.list("/api/materials?instrument=" + instrument) {
		if strings.HasPrefix(m["title"].(string), name+"'s") {
			s.ok("PUT", "/api/ladders/"+p.ladder+"/rungs/"+m["id"].(string), nil)
		}
	}
	s.pupils = append(s.pupils, p)
}

// lesson gives a lesson as it goes: what is open is heard, what is ready is run, the next piece is begun, what is to be prepared
// is prepared, learned pieces are heard, and the week is published.
func (s *lived) lesson(p *pupil, day time.Time, at string) {
	t, url := s.t, "/api/ladders/"+p.ladder
	today := day.Format(time.DateOnly)
	plan := s.ok("GET", url+"/plan", nil)
	total := 0
	for _, seg := range items(t, plan, "segments") {
		total += int(seg["minutes"].(float64))
	}
	s.holds("a lesson plan stays in its minutes", total <= p.minutes, "%s: %d of %d", p.name, total, p.minutes)
	lesson := s.ok("GET", url+"/lesson", nil)
	s.fromHome(p, today, lesson)
	begun := s.now()
	var out []entry
	working := false
	for _, piece := range items(t, lesson, "pieces") {
		id := piece["material"].(string)
		if piece["state"] != "working" {
			continue
		}
		p.played[id] = today
		open := 0
		for _, f := range items(t, piece, "points") {
			if f["mark"] == "full" {
				continue
			}
			mark := "part"
			if s.rng.Float64() < p.quick {
				mark = "full"
			} else {
				open++
			}
			out = append(out, entry{"kind": "mark", "material": id, "focus": f["id"], "mark": mark})
		}
		if open == 0 && s.rng.Float64() < 0.8 {
			var met []string
			for _, x := range items(t, lesson, "standard") {
				met = append(met, x["id"].(string))
			}
			out = append(out, entry{"kind": "run", "material": id, "met": met})
			continue
		}
		working = true
	}
	bites := items(t, lesson, "bites")
	for _, b := range bites[:min(2, len(bites))] {
		if b["skill"] != nil && b["step"] != nil {
			out = append(out, entry{"kind": "stepDone", "skill": b["skill"], "step": b["step"]})
		}
	}
	reviews := items(t, lesson, "reviews")
	for _, r := range reviews[:min(2, len(reviews))] {
		id := r["material"].(string)
		p.played[id] = today
		out = append(out, entry{"kind": "hearing", "material": id, "rating": 2 + s.rng.IntN(3)})
	}
	out = append(out, entry{"kind": "note", "text": fmt.Sprint("lesson ", p.n)})
	s.enter(p, begun, out...)
	if !working {
		next := s.ok("GET", url+"/next?strand=method", nil)
		if chosen, ok := next["chosen"].(map[string]any); ok {
			s.enter(p, begun.Add(20*time.Minute), entry{"kind": "assigned", "material": chosen["material"]})
		}
	}
	p.given[today] = true
	s.turn(day, at)
	s.publish(p, day)
}

// publish publishes the week that begins tomorrow, and holds it to the calendar.
func (s *lived) publish(p *pupil, day time.Time) {
	url, start := "/api/ladders/"+p.ladder, day.AddDate(0, 0, 1)
	week := s.ok("GET", url+"/week?day="+start.Format(time.DateOnly), nil)
	status, got := s.call(
		"POST",
		url+"/week/publish?day="+start.Format(time.DateOnly),
		map[string]any{"version": version(week), "plan": week["plan"]},
	)
	s.holds("a week is published, however long", status == http.StatusOK, "%s: %d %v", p.name, status, got["detail"])
	if status != http.StatusOK {
		return
	}
	p.token = strings.TrimPrefix(got["family"].(map[string]any)["link"].(string), "/home/")
	p.published = start.Format(time.DateOnly)
	for _, d := range daysOf(got) {
		limit := got["minutes"].(float64)
		minutes := 0.0
		for _, it := range itemsOf(d) {
			minutes += it["minutes"].(float64)
		}
		s.holds("a day of practice stays in its minutes", minutes <= limit+1e-9, "%s on %s: %.1f of %.0f", p.name, d["date"], minutes, limit)
	}
	if next := s.next(p, start); next != "" {
		days := daysOf(got)
		end := min(next, start.AddDate(0, 0, 27).Format(time.DateOnly))
		s.holds(
			"a week lasts to the next lesson",
			days[len(days)-1]["date"] == end,
			"%s: to %s, the next lesson is on %s",
			p.name,
			days[len(days)-1]["date"],
			next,
		)
	}
}

// next is the day of the next lesson that takes place, by the calendar; empty where none is in sight.
func (s *lived) next(p *pupil, from time.Time) string {
	agenda := s.ok("GET", "/api/calendar?days=62&from="+from.Format(time.DateOnly), nil)
	for _, d := range items(s.t, agenda, "days") {
		for _, l := range items(s.t, d, "lessons") {
			if l["ladder"] == p.ladder && l["state"] != "cancelled" && l["state"] != "break" {
				return l["day"].(string)
			}
		}
	}
	return ""
}

// fromHome holds what a lesson says of home against what was ticked since the last one.
func (s *lived) fromHome(p *pupil, today string, lesson map[string]any) {
	set, done := 0, 0
	for day := range p.set {
		if day >= p.published && day < today && p.published != "" {
			set++
			if p.ticked[day] {
				done++
			}
		}
	}
	last, _ := lesson["last"].(map[string]any)
	if last == nil || p.published == "" {
		return
	}
	for day := range p.given {
		if day > p.published {
			return // after that lesson no week was published, so nothing was set
		}
	}
	said := fmt.Sprint(last["lines"])
	want := "Nothing was reported from home"
	if done > 0 {
		want = fmt.Sprintf("Practised on %s of %s day", numberWord(done), numberWord(set))
	}
	s.holds(
		"the lesson says on how many of the set days there was practice",
		strings.Contains(said, want),
		"%s: %q, and it was %d of %d",
		p.name,
		said,
		done,
		set,
	)
}

func numberWord(n int) string {
	words := []string{"none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}
	if n < len(words) {
		return words[n]
	}
	return strconv.Itoa(n)
}

// home lets a family tick what it does on a day.
func (s *lived) home(p *pupil, day time.Time) {
	if p.token == "" {
		return
	}
	family, date := anyone(s.t), day.Format(time.DateOnly)
	family.url = s.url
	status, page := family.call("GET", "/api/family/"+p.token, nil)
	s.holds("a family sees its week", status == http.StatusOK, "%s: %d", p.name, status)
	if status != http.StatusOK {
		return
	}
	for _, d := range daysOf(page) {
		if d["date"] != date || len(itemsOf(d)) == 0 || d["rest"] == true {
			continue
		}
		p.set[date] = true
		if s.rng.Float64() > 0.6 {
			continue
		}
		var ticks []any
		for _, it := range itemsOf(d) {
			ticks = append(
				ticks,
				map[string]any{
					"id":   storetest.ID(),
					"at":   s.now().UTC().Format(time.RFC3339),
					"kind": "done",
					"day":  date,
					"item": it["key"],
					"felt": []string{"fine", "hard"}[s.rng.IntN(2)],
				},
			)
		}
		status, got := family.call("POST", "/api/family/"+p.token+"/ticks", map[string]any{"ticks": ticks})
		s.holds("what stands on a day can be ticked on it", status == http.StatusOK, "%s: %v", p.name, got["detail"])
		p.ticked[date] = p.ticked[date] || status == http.StatusOK
	}
}

// weekly looks at what must hold on every day of rest: the same on every page.
func (s *lived) weekly(first, today time.Time) {
	t := s.t
	over := s.ok("GET", "/api/overview", nil)
	byLadder := map[string]map[string]any{}
	for _, x := range items(t, over, "students") {
		byLadder[x["student"].(map[string]any)["ladder"].(string)] = x
	}
	waits := map[string]bool{}
	for _, l := range items(t, s.ok("GET", "/api/not-entered", nil), "lessons") {
		waits[l["ladder"].(string)+" "+l["day"].(string)] = true
	}
	for _, p := range s.pupils {
		for _, day := range p.forgotten {
			key := p.ladder + " " + day
			s.holds("a lesson that was forgotten is said", waits[key], "%s on %s", p.name, day)
			delete(waits, key)
		}
		var onStudio []string
		if byLadder[p.ladder] == nil {
			continue // paused
		}
		for _, w := range items(t, byLadder[p.ladder], "working") {
			onStudio = append(onStudio, w["material"].(string))
		}
		var onLadder []string
		for _, rail := range items(t, s.ok("GET", "/api/ladders/"+p.ladder, nil), "rails") {
			for _, r := range items(t, rail, "rungs") {
				if r["layer"] == "working" {
					onLadder = append(onLadder, r["material"].(string))
				}
			}
		}
		slices.Sort(onStudio)
		slices.Sort(onLadder)
		s.holds("studio and ladder show the same pieces in work", slices.Equal(onStudio, onLadder), "%s: %v and %v", p.name, onStudio, onLadder)
		from := first.Format(time.DateOnly)
		back := s.ok("GET", "/api/ladders/"+p.ladder+"/progress?from="+from+"&to="+today.Format(time.DateOnly), nil)
		lessons, _ := back["lessons"].([]any)
		s.holds(
			"progress counts the lessons that were entered",
			len(lessons) == len(p.given),
			"%s: %d, entered %d",
			p.name,
			len(lessons),
			len(p.given),
		)
		set, done := 0, 0
		for day := range p.set {
			if day < today.Format(time.DateOnly) {
				set++
				if p.ticked[day] {
					done++
				}
			}
		}
		want := fmt.Sprintf("Practised on %s of %s day", numberWord(done), numberWord(set))
		if set == 0 {
			want = "No week was published"
		}
		s.holds(
			"progress counts the days of practice",
			strings.HasPrefix(fmt.Sprint(back["practice"]), want),
			"%s: %q, and it was %s",
			p.name,
			back["practice"],
			want,
		)
		past := s.ok("GET", "/api/ladders/"+p.ladder+"/past", nil)
		cancelled := 0
		for _, l := range items(t, past, "lessons") {
			if l["state"] == "cancelled" {
				cancelled++
			}
		}
		s.holds("a cancelled lesson stays in the list", cancelled == len(p.cancelled), "%s: %d of %d", p.name, cancelled, len(p.cancelled))
	}
	s.holds("nobody asks for a lesson that was entered", len(waits) == 0, "%v", waits)
}

// Six students live through a school year in Berlin, or a month of it with the change of clocks and a holiday in it: weekly and
// every second week, with a pause, lessons that are cancelled and made up, lessons that are forgotten and entered later, and
// families that tick on six days of ten. Every week the promises of the rules are looked at. LADDER_YEAR makes it the whole
// year; a table says how often each was kept.
func TestASchoolYearIsLived(t *testing.T) {
	first, weeks := time.Date(2026, 10, 5, 0, 0, 0, 0, time.UTC), 5
	if os.Getenv("LADDER_YEAR") != "" {
		first, weeks = time.Date(2026, 8, 31, 0, 0, 0, 0, time.UTC), 44
	}
	s := livedFrom(t, first)
	s.joins("Ada", "piano", 1, 1, "15:00", 30, 0.6)
	s.joins("Ben", "cello", 2, 1, "16:00", 45, 0.4)
	s.joins("Cleo", "ukulele", 3, 2, "17:00", 45, 0.5)
	s.joins("Dov", "piano", 4, 1, "15:30", 30, 0.3)
	s.joins("Eve", "piano", 5, 1, "14:00", 30, 0.7)
	s.joins("Finn", "cello", 1, 1, "16:00", 30, 0.5)
	for i, h := range [][2]string{{"2026-10-19", "2026-10-25"}, {"2026-12-21", "2027-01-03"}, {"2027-02-15", "2027-02-21"}, {"2027-03-29", "2027-04-09"}} {
		s.ok("PUT", "/api/holidays/"+storetest.ID(), map[string]any{"name": fmt.Sprint("Holiday ", i), "first": h[0], "last": h[1]})
	}
	if weeks > 20 {
		dov := s.pupils[3]
		s.ok("PUT", "/api/students/"+dov.student+"/pauses/"+storetest.ID(), map[string]any{"first": "2026-11-09", "last": "2026-12-06"})
	}
	for n := range 7 * weeks {
		day := first.AddDate(0, 0, n)
		date := day.Format(time.DateOnly)
		s.turn(day, "08:00")
		agenda := s.ok("GET", "/api/calendar?days=1&from="+date, nil)
		here := items(t, items(t, agenda, "days")[0], "lessons")
		slices.SortFunc(here, func(a, b map[string]any) int { return cmp.Compare(a["startsAt"].(string), b["startsAt"].(string)) })
		for _, l := range here {
			p := s.pupils[slices.IndexFunc(s.pupils, func(p *pupil) bool { return p.ladder == l["ladder"] })]
			if l["state"] == "break" || l["state"] == "cancelled" {
				continue
			}
			if l["state"] == "planned" {
				s.holds("a lesson keeps its local time over the change of clocks", l["startsAt"] == p.startsAt, "%s: %s", p.name, l["startsAt"])
			}
			p.n++
			at := l["startsAt"].(string)
			switch {
			case p.name == "Eve" && p.n%5 == 3 && l["state"] == "planned":
				s.ok("PUT", "/api/ladders/"+p.ladder+"/lessons/"+l["lesson"].(string), map[string]any{"what": "cancel", "by": "student", "late": false})
				p.cancelled[date] = true
				s.ok(
					"PUT",
					"/api/ladders/"+p.ladder+"/lessons/"+storetest.ID(),
					map[string]any{
						"what":     "add",
						"day":      day.AddDate(0, 0, 1).Format(time.DateOnly),
						"startsAt": "10:00",
						"minutes":  30,
						"makesUp":  l["lesson"],
					},
				)
			case p.name == "Finn" && p.n%4 == 2:
				p.forgotten = append(p.forgotten, date) // nobody enters it until Sunday
			default:
				s.turn(day, at)
				s.lesson(p, day, clockAfter(at, p.minutes))
			}
		}
		s.turn(day, "19:30")
		for _, p := range s.pupils {
			s.home(p, day)
		}
		if day.Weekday() != time.Sunday {
			continue
		}
		s.turn(day, "21:00")
		s.weekly(first, day)
		for _, p := range s.pupils { // what was forgotten is entered, under its own day
			for _, forgotten := range p.forgotten {
				past := s.ok("GET", "/api/ladders/"+p.ladder+"/past/"+forgotten, nil)
				at, err := time.Parse(time.RFC3339, past["at"].(string))
				require.NoError(t, err)
				s.enter(p, at, entry{"kind": "note", "text": "entered later"})
				p.given[forgotten] = true
			}
			p.forgotten = nil
		}
	}
	names := make([]string, 0, len(s.promises))
	for name := range s.promises {
		names = append(names, name)
	}
	slices.Sort(names)
	broken := 0
	for _, name := range names {
		p := s.promises[name]
		broken += len(p.broken)
		t.Logf("%-66s kept %5d, broken %d", name, p.kept, len(p.broken))
		for _, where := range p.broken[:min(3, len(p.broken))] {
			t.Logf("    %s", where)
		}
	}
	require.Zero(t, broken)
}

// clockAfter is a time of day so many minutes later.
func clockAfter(at string, minutes int) string {
	t, _ := time.Parse("15:04", at)
	return t.Add(time.Duration(minutes) * time.Minute).Format("15:04")
}
