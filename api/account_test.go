package api_test

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"hash/fnv"
	"io"
	"net/http"
	"net/http/httptest"
	"regexp"
	"slices"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api"
	"patientladder/api/contract"
	"patientladder/api/people"
	"patientladder/store"
	"patientladder/store/dump"
	"patientladder/store/storetest"
)

// school is a studio of its own behind a server that sends mail, with a clock that a test moves and an address that a test
// gives itself.
type school struct {
	t            *testing.T
	url, email   string
	studio       string
	mu           sync.Mutex
	now          time.Time
	letterPieces *regexp.Regexp
}

func (s *school) clock() time.Time {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.now
}

func (s *school) later(d time.Duration) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.now = s.now.Add(d)
}

const ropes = "gull fog seven ropes"

func newSchool(t *testing.T) *school {
	s := &school{t: t, now: may4(), studio: storetest.ID(), email: fmt.Sprintf("owner-%s@example.org", storetest.ID()), letterPieces: regexp.MustCompile(`http\S+#(\S+)`)}
	_, handler, err := api.New(api.Config{Store: db, Page: fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}}, Now: s.clock, Mails: true, URL: "https://ladder.example", TrustedProxies: []string{"127.0.0.1/32"}})
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(server.Close)
	s.url = server.URL
	hash, err := account.HashPassword(ropes)
	require.NoError(t, err)
	require.NoError(t, db.AddStudio(context.Background(), store.Studio{ID: s.studio, Name: "School", Timezone: "UTC"}, store.Teacher{ID: storetest.ID(), Email: s.email, Name: "Olga Berg", PasswordHash: hash}))
	return s
}

// address is one that no other school has: 2001:db8 is for examples (RFC 3849).
func (s *school) address(from string) string {
	h := fnv.New64a()
	h.Write([]byte(s.studio + from))
	n := h.Sum64()
	return fmt.Sprintf("2001:db8:%x:%x::1", n&0xffff, n>>16&0xffff)
}

// browser is a new one, at an address of its own.
func (s *school) browser() *user {
	u := anyone(s.t)
	u.url = s.url
	return u
}

func (s *school) signIn(u *user, from, password string, more ...string) (int, map[string]any, http.Header) {
	body := map[string]string{"email": s.email, "password": password}
	if len(more) > 0 {
		body["code"] = more[0]
	}
	res := u.raw("POST", "/api/session", body, http.Header{"X-Forwarded-For": {s.address(from)}})
	defer res.Body.Close()
	var out map[string]any
	if res.StatusCode != http.StatusAccepted {
		require.NoError(s.t, json.NewDecoder(res.Body).Decode(&out))
	}
	return res.StatusCode, out, res.Header
}

// letter is the secret of the link in the letter to an address.
func (s *school) letter(to string) string {
	s.t.Helper()
	for range 20 {
		l, err := db.TakeAccountLetter(context.Background(), s.clock(), s.clock().Add(time.Hour))
		require.NoError(s.t, err, "a letter to %s", to)
		require.NoError(s.t, db.DropAccountLetter(context.Background(), l.ID))
		if found := s.letterPieces.FindStringSubmatch(l.Body); strings.EqualFold(l.To, to) && found != nil {
			return found[1]
		}
	}
	s.t.Fatal("no letter")
	return ""
}

// A stranger tries a hundred passwords from one address and from many: the teacher signs in on her own tablet all the while,
// and the stranger waits longer and longer.
func TestAStrangerTriesAHundredPasswords(t *testing.T) {
	s := newSchool(t)
	tablet := s.browser()
	status, _, _ := s.signIn(tablet, "203.0.113.5", ropes)
	require.Equal(t, http.StatusOK, status)
	stranger := s.browser()
	through := 0
	for i := range 100 {
		status, body, header := s.signIn(stranger, "198.51.100.7", fmt.Sprint("guess ", i))
		if status == http.StatusUnauthorized {
			through++
			require.Equal(t, "The e-mail address or the password is not right.", body["detail"])
			continue
		}
		require.Equal(t, http.StatusTooManyRequests, status)
		require.Equal(t, "Too many tries. Wait one second, then try again.", body["detail"])
		require.Equal(t, "1", header.Get("Retry-After"))
	}
	require.Equal(t, 5, through)
	status, _, _ = s.signIn(tablet, "198.51.100.7", ropes)
	require.Equal(t, http.StatusOK, status, "on her tablet, even at the stranger's address")
	status, _, _ = s.signIn(s.browser(), "203.0.113.6", ropes)
	require.Equal(t, http.StatusOK, status, "and on a new one elsewhere")
	s.later(time.Second)
	status, _, _ = s.signIn(stranger, "198.51.100.7", "once more")
	require.Equal(t, http.StatusUnauthorized, status)
	status, body, _ := s.signIn(stranger, "198.51.100.7", "and again")
	require.Equal(t, http.StatusTooManyRequests, status)
	require.Equal(t, "Too many tries. Wait two seconds, then try again.", body["detail"])
	// From a hundred other addresses: the account itself slows down, and the tablet still passes.
	for i := range 120 {
		s.signIn(s.browser(), fmt.Sprint("192.0.2.", i), "guess")
	}
	status, _, _ = s.signIn(s.browser(), "192.0.2.250", ropes)
	require.Equal(t, http.StatusTooManyRequests, status)
	status, _, _ = s.signIn(tablet, "203.0.113.5", ropes)
	require.Equal(t, http.StatusOK, status)
}

// Of 24 guesses at the same moment all are counted: no more go through than one after the other.
func TestGuessesAtTheSameMoment(t *testing.T) {
	s := newSchool(t)
	var mu sync.Mutex
	count := map[int]int{}
	var all sync.WaitGroup
	for range 24 {
		all.Go(func() {
			status, _, _ := s.signIn(s.browser(), "198.51.100.9", "guess")
			mu.Lock()
			defer mu.Unlock()
			count[status]++
		})
	}
	all.Wait()
	require.Equal(t, map[int]int{http.StatusUnauthorized: 5, http.StatusTooManyRequests: 19}, count)
}

// Only a proxy that is trusted is believed where a request comes from.
func TestWhoseWordAboutAddressesIsTaken(t *testing.T) {
	u := anyone(t)
	email := storetest.ID() + "@example.org"
	try := func(from string) int {
		res := u.raw("POST", "/api/session", map[string]string{"email": email, "password": "x"}, http.Header{"X-Forwarded-For": {from}})
		res.Body.Close()
		return res.StatusCode
	}
	for i := range 5 {
		require.Equal(t, http.StatusUnauthorized, try(fmt.Sprint("203.0.113.", i)))
	}
	require.Equal(t, http.StatusTooManyRequests, try("203.0.113.200"), "nobody makes up an address")
}

// A session that was ended stays ended, whatever is under way.
func TestASessionThatWasEndedStaysEnded(t *testing.T) {
	s := newSchool(t)
	for range 5 {
		u := s.browser()
		status, _, _ := s.signIn(u, "203.0.113.5", ropes)
		require.Equal(t, http.StatusOK, status)
		cookie := u.raw("GET", "/api/session", nil, nil)
		cookie.Body.Close()
		old := u.http.Jar.Cookies(cookie.Request.URL)
		ask := func() int {
			req, err := http.NewRequest("GET", s.url+"/api/overview", nil)
			require.NoError(t, err)
			for _, c := range old {
				req.AddCookie(c)
			}
			res, err := http.DefaultClient.Do(req)
			require.NoError(t, err)
			res.Body.Close()
			return res.StatusCode
		}
		var all sync.WaitGroup
		for i := range 100 {
			all.Go(func() {
				if i == 50 {
					status, _ := u.call("DELETE", "/api/session", nil)
					require.Equal(t, http.StatusNoContent, status)
					return
				}
				ask()
			})
		}
		all.Wait()
		require.Equal(t, http.StatusUnauthorized, ask())
	}
}

// Forgotten: a letter with a link that sets a new password once; every device is signed out, the old password opens nothing.
func TestAForgottenPassword(t *testing.T) {
	s := newSchool(t)
	tablet := s.browser()
	s.signIn(tablet, "203.0.113.5", ropes)
	u := s.browser()
	status, told := u.call("POST", "/api/recovery", map[string]any{"email": " " + s.email})
	require.Equal(t, http.StatusAccepted, status)
	status, same := u.call("POST", "/api/recovery", map[string]any{"email": storetest.ID() + "@example.org"})
	require.Equal(t, http.StatusAccepted, status)
	require.Equal(t, told, same, "whether there is an account is not said")
	secret := s.letter(s.email)
	set := func(password string) (int, map[string]any) {
		return u.call("PUT", "/api/recovery", map[string]any{"token": secret, "password": password})
	}
	status, body := set("password1")
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, body["detail"], "too easy to guess")
	status, body = set("nine boats under slate")
	require.Equal(t, http.StatusNoContent, status, body)
	status, body = set("nine boats under slates")
	require.Equal(t, http.StatusNotFound, status)
	require.Equal(t, "This link opens nothing any more. Ask for a new one.", body["detail"])
	status, _ = tablet.call("GET", "/api/session", nil)
	require.Equal(t, http.StatusUnauthorized, status, "the other tablet is out")
	status, _, _ = s.signIn(s.browser(), "203.0.113.5", ropes)
	require.Equal(t, http.StatusUnauthorized, status)
	status, _, _ = s.signIn(s.browser(), "203.0.113.5", "nine boats under slate")
	require.Equal(t, http.StatusOK, status)
	// A link that was not used runs out.
	u.call("POST", "/api/recovery", map[string]any{"email": s.email})
	secret = s.letter(s.email)
	s.later(31 * time.Minute)
	status, _ = set("seven gulls in the ferry")
	require.Equal(t, http.StatusNotFound, status)
	// Letters slow down as well.
	last := 0
	for range 5 {
		last, _ = u.call("POST", "/api/recovery", map[string]any{"email": s.email})
	}
	require.Equal(t, http.StatusTooManyRequests, last)
	status, body = teacher(t).call("POST", "/api/recovery", map[string]any{"email": s.email})
	require.Equal(t, http.StatusServiceUnavailable, status)
	require.Contains(t, body["detail"], "ladder account reset")
}

// A changed password ends the other sessions; sessions are listed and ended one by one.
func TestSessionsAndAChangedPassword(t *testing.T) {
	s := newSchool(t)
	one, two, three := s.browser(), s.browser(), s.browser()
	for _, u := range []*user{one, two, three} {
		s.signIn(u, "203.0.113.5", ropes)
		s.later(time.Minute)
	}
	sessions := func() []any {
		status, a := three.call("GET", "/api/account", nil)
		require.Equal(t, http.StatusOK, status, a)
		return a["sessions"].([]any)
	}
	list := sessions()
	require.Len(t, list, 3)
	first := list[0].(map[string]any)
	require.Equal(t, []any{true, "another program", "since 4 May, used 15:32"}, []any{first["here"], first["device"], first["words"]})
	status, _ := three.call("DELETE", "/api/account/sessions/"+list[2].(map[string]any)["id"].(string), nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Len(t, sessions(), 2)
	status, _ = one.call("GET", "/api/session", nil)
	require.Equal(t, http.StatusUnauthorized, status)
	status, body := three.call("PUT", "/api/account/password", map[string]any{"current": "wrong", "password": "nine boats under slate"})
	require.Equal(t, http.StatusForbidden, status)
	require.Equal(t, "Your password is not right; nothing was changed.", body["detail"])
	status, body = three.call("PUT", "/api/account/password", map[string]any{"current": ropes, "password": "nine boats under slate"})
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, "Your new password holds. One other device is signed out.", body["words"])
	status, _ = two.call("GET", "/api/session", nil)
	require.Equal(t, http.StatusUnauthorized, status)
	status, body = three.call("DELETE", "/api/account/sessions", nil)
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, "No other device was signed in.", body["words"])
	_, a := three.call("GET", "/api/account", nil)
	require.Equal(t, "4 May 15:33, Olga Berg changed the password.", a["done"].([]any)[0].(map[string]any)["name"])
}

// A second factor: a code of the app is asked for, works once, and recovery codes work once each.
func TestASecondFactor(t *testing.T) {
	s := newSchool(t)
	u := s.browser()
	s.signIn(u, "203.0.113.5", ropes)
	status, begun := u.call("POST", "/api/account/second", nil)
	require.Equal(t, http.StatusOK, status)
	secret := begun["secret"].(string)
	require.Regexp(t, "^data:image/png;base64,", begun["picture"])
	code := func() string {
		c, err := totp.GenerateCode(secret, s.clock())
		require.NoError(t, err)
		return c
	}
	status, body := u.call("PUT", "/api/account/second", map[string]any{"secret": secret, "code": "000000"})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	used := code()
	status, kept := u.call("PUT", "/api/account/second", map[string]any{"secret": secret, "code": used})
	require.Equal(t, http.StatusOK, status)
	codes := kept["codes"].([]any)
	require.Len(t, codes, 10)

	other := s.browser()
	status, _, _ = s.signIn(other, "203.0.113.8", ropes)
	require.Equal(t, http.StatusAccepted, status, "a code is needed")
	status, _ = other.call("GET", "/api/session", nil)
	require.Equal(t, http.StatusUnauthorized, status)
	status, _, _ = s.signIn(other, "203.0.113.8", ropes, used)
	require.Equal(t, http.StatusUnauthorized, status, "no code works twice")
	s.later(30 * time.Second)
	status, _, _ = s.signIn(other, "203.0.113.8", ropes, code())
	require.Equal(t, http.StatusOK, status)
	status, _, _ = s.signIn(s.browser(), "203.0.113.8", ropes, codes[3].(string))
	require.Equal(t, http.StatusOK, status)
	status, _, _ = s.signIn(s.browser(), "203.0.113.9", ropes, codes[3].(string))
	require.Equal(t, http.StatusUnauthorized, status)
	_, a := u.call("GET", "/api/account", nil)
	require.Equal(t, []any{true, 9.0}, []any{a["second"], a["codes"]})
	status, _ = u.call("POST", "/api/account/second/off", map[string]any{"password": ropes})
	require.Equal(t, http.StatusNoContent, status)
	status, _, _ = s.signIn(s.browser(), "203.0.113.9", ropes)
	require.Equal(t, http.StatusOK, status)
}

// The owner invites a colleague and an assistant; an assistant sees and notes, and changes nothing else; who leaves is out.
func TestASchoolOfSeveral(t *testing.T) {
	s := newSchool(t)
	owner := s.browser()
	s.signIn(owner, "203.0.113.5", ropes)
	_, student := owner.call("POST", "/api/students", map[string]any{"student": storetest.ID(), "ladder": storetest.ID(), "name": "Nell", "born": "2015-01-01", "instrument": "piano", "weekday": 1, "startsAt": "10:00", "minutes": 30})
	_ = student
	ladder := owner.list("/api/students")[0]["ladder"].(string)
	join := func(name, role string) *user {
		email := storetest.ID() + "@example.org"
		status, told := owner.call("POST", "/api/account/people", map[string]any{"email": email, "name": name, "role": role})
		require.Equal(t, http.StatusOK, status, told)
		require.Regexp(t, `^https://ladder\.example/invitation#`, told["link"])
		u := s.browser()
		secret := s.letter(email)
		status, body := u.call("PUT", "/api/invitation", map[string]any{"token": secret, "password": "nine boats under slate"})
		require.Equal(t, http.StatusNoContent, status, body)
		status, _ = u.call("PUT", "/api/invitation", map[string]any{"token": secret, "password": "nine boats under slate"})
		require.Equal(t, http.StatusNotFound, status, "once")
		status, me := u.call("POST", "/api/session", map[string]string{"email": email, "password": "nine boats under slate"})
		require.Equal(t, http.StatusOK, status, me)
		require.Equal(t, []any{name, role}, []any{me["teacher"], me["role"]})
		return u
	}
	colleague, helper := join("Per Vik", "teacher"), join("Ida Holm", "assistant")
	status, body := colleague.call("POST", "/api/account/people", map[string]any{"email": "x@example.org", "name": "X", "role": "teacher"})
	require.Equal(t, http.StatusForbidden, status)
	require.Equal(t, "Only the owner of the studio may do this.", body["detail"])
	status, body = helper.append(ladder, entry{"kind": "note", "text": "sang along", "at": may4().Format(time.RFC3339)})
	require.Equal(t, http.StatusOK, status, body)
	for _, call := range [][2]string{{"POST", "/api/students"}, {"PUT", "/api/ladders/" + ladder + "/week"}, {"GET", "/api/library/export?format=json"}, {"PUT", "/api/words"}} {
		status, body := helper.call(call[0], call[1], map[string]any{})
		require.Equal(t, http.StatusForbidden, status, call)
		require.Equal(t, "An assistant sees and notes; this is for a teacher. Nothing was changed.", body["detail"])
	}
	_, a := owner.call("GET", "/api/account", nil)
	people := a["people"].([]any)
	require.Len(t, people, 3)
	ida := people[0].(map[string]any)
	require.Equal(t, "Ida Holm", ida["name"])
	status, _ = owner.call("PUT", "/api/account/people/"+ida["id"].(string), map[string]any{"role": "teacher"})
	require.Equal(t, http.StatusNoContent, status)
	status, _ = helper.call("GET", "/api/session", nil)
	require.Equal(t, http.StatusUnauthorized, status, "with another role one signs in again")
	status, _ = owner.call("DELETE", "/api/account/people/"+ida["id"].(string), nil)
	require.Equal(t, http.StatusNoContent, status)
	status, _ = owner.call("DELETE", "/api/account/people/"+ida["id"].(string), nil)
	require.Equal(t, http.StatusNotFound, status)
	me := people[1].(map[string]any)
	require.Equal(t, true, me["here"])
	status, _ = owner.call("DELETE", "/api/account/people/"+me["id"].(string), nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	_, a = owner.call("GET", "/api/account", nil)
	require.Equal(t, "4 May 15:30, Olga Berg ended an account.", a["done"].([]any)[0].(map[string]any)["name"])
}

// Who guesses at family links must wait, whatever is opened next; a page that keeps asking with an old link counts once.
func TestGuessesAtLinksSlowDown(t *testing.T) {
	s := newSchool(t)
	u := s.browser()
	open := func(token string) int {
		res := u.raw("GET", "/api/family/"+token, nil, http.Header{"X-Forwarded-For": {s.address("x")}})
		res.Body.Close()
		return res.StatusCode
	}
	for range 50 {
		require.Equal(t, http.StatusNotFound, open("an-old-link"))
	}
	for range 19 {
		require.Equal(t, http.StatusNotFound, open(storetest.ID()))
	}
	require.Equal(t, http.StatusTooManyRequests, open(storetest.ID()))
	s.later(time.Second)
	require.Equal(t, http.StatusNotFound, open(storetest.ID()))
	require.Equal(t, http.StatusTooManyRequests, open("an-old-link"))
}

// Every route of the contract as an assistant: what is seen is seen, what is noted is noted, and everything else is refused
// before it is read.
func TestEveryRouteAsAnAssistant(t *testing.T) {
	s := newSchool(t)
	hash, err := account.HashPassword(ropes)
	require.NoError(t, err)
	ctx, email, secret := context.Background(), storetest.ID()+"@example.org", storetest.ID()
	require.NoError(t, db.AddOnceLink(ctx, store.OnceLink{Token: account.Hash(secret), Kind: store.InviteLink, Studio: s.studio, Email: email, Name: "A", Role: string(account.Assistant), Made: may4(), Until: may4().Add(time.Hour)}))
	require.NoError(t, db.Accept(ctx, account.Hash(secret), store.Teacher{ID: storetest.ID(), StudioID: s.studio, Email: email, Name: "A", PasswordHash: hash, Role: string(account.Assistant)}))
	u := s.browser()
	status, _ := u.call("POST", "/api/session", map[string]string{"email": email, "password": ropes})
	require.Equal(t, http.StatusOK, status)
	spec, err := contract.GetSpec()
	require.NoError(t, err)
	var free []string
	for path, item := range spec.Paths.Map() {
		for method := range item.Operations() {
			if strings.HasPrefix(path, "/family/") || strings.HasPrefix(path, "/teacher/") || path == "/recovery" || path == "/invitation" || path == "/session" || path == "/session/passkey" || path == "/account/sessions" {
				continue // opened by a link, or by nobody's role
			}
			url := "/api" + regexp.MustCompile(`\{\w+\}`).ReplaceAllString(path, storetest.ID())
			res := u.raw(method, url, map[string]any{}, nil)
			res.Body.Close()
			if res.StatusCode != http.StatusForbidden && method != "GET" {
				free = append(free, method+" "+path)
			}
			if method == "GET" {
				require.Equal(t, strings.HasSuffix(path, "/export") || strings.HasSuffix(path, "/data"), res.StatusCode == http.StatusForbidden, path)
			}
		}
	}
	slices.Sort(free)
	require.Equal(t, []string{
		"DELETE /account/passkeys/{passkey}", "DELETE /account/sessions/{session}", "POST /account/passkeys", "POST /account/second", "POST /account/second/off", "POST /ladders/{ladder}/entries", "PUT /account/passkeys", "PUT /account/password", "PUT /account/second",
	}, free, "the own account, and notes; inviting and roles are refused by their handlers")
}

// A family asks for everything about a child, then for its deletion: a day to regret, then it is gone from every table.
func TestEverythingAboutAChild(t *testing.T) {
	ctx := context.Background()
	s := newSchool(t)
	u := s.browser()
	s.signIn(u, "203.0.113.5", ropes)
	child := func(name string) (string, string) {
		student, ladder := storetest.ID(), storetest.ID()
		status, body := u.call("POST", "/api/students", map[string]any{"student": student, "ladder": ladder, "name": name, "born": "2015-01-01", "instrument": "piano", "weekday": 1, "startsAt": "10:00", "minutes": 30})
		require.Equal(t, http.StatusCreated, status, body)
		return student, ladder
	}
	student, ladder := child("Nell Farrow")
	other, otherLadder := child("Tom Farrow")
	piece := storetest.ID()
	status, body := u.call("POST", "/api/materials", scoreBody(piece, "x.musicxml", tune))
	require.Equal(t, http.StatusCreated, status, body)
	for _, l := range []string{ladder, otherLadder} {
		status, body = u.append(l, entry{"kind": "assigned", "material": piece, "at": may4().Add(-time.Hour).Format(time.RFC3339)}, entry{"kind": "note", "text": "a secret of " + l, "at": may4().Format(time.RFC3339)})
		require.Equal(t, http.StatusOK, status, body)
	}
	res := u.raw("GET", "/api/students/"+student+"/data", nil, nil)
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	res.Body.Close()
	require.Equal(t, http.StatusOK, res.StatusCode, "%s", data)
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	var names []string
	for _, f := range z.File {
		names = append(names, f.Name)
	}
	require.Len(t, names, 2)
	require.Equal(t, "student.json", names[0])
	require.Regexp(t, `^scores/.+ \w{4}\.musicxml$`, names[1])
	f, err := z.Open("student.json")
	require.NoError(t, err)
	var doc struct {
		Format string
		Tables map[string][]map[string]any
	}
	text, err := io.ReadAll(f)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &doc))
	require.Equal(t, "patient-ladder student", doc.Format)
	schema, err := jsonschema.NewCompiler().Compile("../docs/student.schema.json")
	require.NoError(t, err)
	whole, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	require.NoError(t, err)
	require.NoError(t, schema.Validate(whole))
	require.Equal(t, "Nell Farrow", doc.Tables["student"][0]["name"])
	require.Len(t, doc.Tables["entry"], 2)
	require.NotContains(t, string(text), "Tom")

	erased := func() any {
		_, page := u.call("GET", "/api/students/"+student, nil)
		return page["erased"]
	}
	require.Nil(t, erased())
	says := "On 5 May at 15:30 everything about Nell is deleted for good: lessons, weeks, reports, messages and contacts. What stays are counts without a name."
	status, told := u.call("DELETE", "/api/students/"+student+"/data", nil)
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, says, told["words"])
	require.Equal(t, says, erased())
	status, _ = u.call("PUT", "/api/students/"+student+"/data", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Nil(t, erased())
	s.later(25 * time.Hour)
	sweep := func() int {
		n, err := db.Sweep(ctx, s.clock(), people.Regret)
		require.NoError(t, err)
		return n
	}
	require.Zero(t, sweep(), "it was taken back")
	u.call("DELETE", "/api/students/"+student+"/data", nil)
	require.Zero(t, sweep(), "a day to regret")
	s.later(25 * time.Hour)
	require.Equal(t, 1, sweep())
	for _, path := range []string{"/api/students/" + student, "/api/ladders/" + ladder + "/entries", "/api/ladders/" + ladder + "/lesson", "/api/ladders/" + ladder + "/plan", "/api/students/" + student + "/data"} {
		status, _ = u.call("GET", path, nil)
		require.Equal(t, http.StatusNotFound, status, path)
	}
	var all bytes.Buffer
	_, err = db.Backup(ctx, &all, may4())
	require.NoError(t, err)
	for _, left := range []string{"Nell Farrow", student, ladder} {
		require.NotContains(t, all.String(), left)
	}
	require.Contains(t, all.String(), "Tom Farrow")
	status, _ = u.call("GET", "/api/students/"+other, nil)
	require.Equal(t, http.StatusOK, status)
	require.Len(t, u.list("/api/ladders/"+otherLadder+"/entries"), 2)
	_, a := u.call("GET", "/api/account", nil)
	require.Equal(t, "6 May 17:30, A student was erased.", a["done"].([]any)[0].(map[string]any)["name"])

	// Who left longer ago than the studio keeps data is marked, and goes a day later; for ever is for ever.
	status, _ = u.call("PUT", "/api/students/"+other+"/left", map[string]any{"from": "2026-05-05"})
	require.Equal(t, http.StatusNoContent, status)
	set := func(years int) {
		status, body := u.call("PUT", "/api/account/studio", map[string]any{"name": "School", "timezone": "Europe/Lisbon", "keepYears": years})
		require.Equal(t, http.StatusNoContent, status, body)
	}
	set(0)
	s.later(3 * 366 * 24 * time.Hour)
	require.Zero(t, sweep())
	s.later(25 * time.Hour)
	require.Zero(t, sweep())
	set(2)
	require.Zero(t, sweep())
	s.later(25 * time.Hour)
	require.Equal(t, 1, sweep())
}

// The owner changes the studio and takes all of it out; nobody else does.
func TestTheStudioItself(t *testing.T) {
	s := newSchool(t)
	u := s.browser()
	s.signIn(u, "203.0.113.5", ropes)
	status, body := u.call("PUT", "/api/account/studio", map[string]any{"name": "School by the sea", "timezone": "Mars/Base", "keepYears": 2})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "“Mars/Base” is not a time zone such as Europe/Lisbon. Nothing was changed.", body["detail"])
	status, body = u.call("PUT", "/api/account/studio", map[string]any{"name": " School by the sea ", "timezone": "Asia/Tokyo", "keepYears": 5})
	require.Equal(t, http.StatusNoContent, status, body)
	_, me := u.call("GET", "/api/session", nil)
	require.Equal(t, []any{"School by the sea", "Asia/Tokyo", "2026-05-05"}, []any{me["studio"], me["timezone"], me["today"]})
	_, a := u.call("GET", "/api/account", nil)
	require.Equal(t, map[string]any{"name": "School by the sea", "timezone": "Asia/Tokyo", "keepYears": 5.0}, a["studio"])
	text := u.read("/api/account/studio/export")
	h, err := dump.Check(strings.NewReader(text))
	require.NoError(t, err)
	require.Equal(t, s.studio, h.Studio)
	require.Contains(t, text, "School by the sea")
	require.NotContains(t, text, "argon2id")
}

// Two teachers and an owner: each sees the own students; a student is handed over; a lesson is covered for a day and not
// longer; what is private stays with its teacher; who leaves gives the students back.
func TestStudentsOfSeveralTeachers(t *testing.T) {
	s := newSchool(t)
	ctx := context.Background()
	hash, err := account.HashPassword(ropes)
	require.NoError(t, err)
	owner := s.browser()
	s.signIn(owner, "203.0.113.5", ropes)
	join := func(name string, role account.Role) (string, *user) {
		email, secret, id := storetest.ID()+"@example.org", storetest.ID(), storetest.ID()
		require.NoError(t, db.AddOnceLink(ctx, store.OnceLink{Token: account.Hash(secret), Kind: store.InviteLink, Studio: s.studio, Email: email, Name: name, Role: string(role), Made: may4(), Until: may4().Add(time.Hour)}))
		require.NoError(t, db.Accept(ctx, account.Hash(secret), store.Teacher{ID: id, StudioID: s.studio, Email: email, Name: name, PasswordHash: hash, Role: string(role)}))
		u := s.browser()
		status, body := u.call("POST", "/api/session", map[string]string{"email": email, "password": ropes})
		require.Equal(t, http.StatusOK, status, body)
		return id, u
	}
	per, u1 := join("Per Vik", account.Teacher)
	ida, u2 := join("Ida Holm", account.Teacher)
	_, helper := join("Siv Lund", account.Assistant)
	add := func(u *user, name string) (string, string) {
		student, ladder := storetest.ID(), storetest.ID()
		status, body := u.call("POST", "/api/students", map[string]any{"student": student, "ladder": ladder, "name": name, "born": "2015-01-01", "instrument": "piano", "weekday": 1, "startsAt": "10:00", "minutes": 45})
		require.Equal(t, http.StatusCreated, status, body)
		return student, ladder
	}
	hers, hersLadder := add(owner, "Olga’s")
	his, hisLadder := add(u1, "Per’s")
	today := func(u *user) (out []string) {
		status, body := u.call("GET", "/api/today", nil)
		require.Equal(t, http.StatusOK, status)
		for _, x := range body["lessons"].([]any) {
			out = append(out, x.(map[string]any)["student"].(map[string]any)["name"].(string))
		}
		return out
	}
	opens := func(u *user, student, ladder string) []int {
		var out []int
		for _, path := range []string{"/api/students/" + student, "/api/ladders/" + ladder + "/lesson", "/api/ladders/" + ladder + "/entries", "/api/ladders/" + ladder + "/plan", "/api/students/" + student + "/data"} {
			res := u.raw("GET", path, nil, nil)
			res.Body.Close()
			out = append(out, res.StatusCode)
		}
		return out
	}
	all, none := []int{200, 200, 200, 200, 200}, []int{404, 404, 404, 404, 404}
	require.Equal(t, all, opens(owner, his, hisLadder), "an owner may open all")
	require.Equal(t, all, opens(u1, his, hisLadder))
	require.Equal(t, none, opens(u1, hers, hersLadder))
	require.Equal(t, none, opens(u2, his, hisLadder))
	require.Equal(t, []int{200, 200, 200, 200, 403}, opens(helper, his, hisLadder), "an assistant sees all and takes nothing out")
	require.Equal(t, []string{"Olga’s"}, today(owner))
	require.Equal(t, []string{"Per’s"}, today(u1))
	require.Empty(t, today(u2))
	require.ElementsMatch(t, []string{"Olga’s", "Per’s"}, today(helper))

	// Private notes are for the own teacher, and stay when somebody else saves the page.
	status, _ := u1.call("GET", "/api/students/"+his, nil)
	require.Equal(t, http.StatusOK, status)
	save := func(u *user, notes string) {
		status, page := u.call("GET", "/api/students/"+his, nil)
		require.Equal(t, http.StatusOK, status)
		if notes == "" {
			notes = page["notes"].(string)
		}
		status, body := u.call("PUT", "/api/students/"+his, map[string]any{"name": "Per’s", "called": "", "born": "2015-01-01", "bornAbout": false, "notes": notes, "contacts": []any{}, "version": page["version"]})
		require.Equal(t, http.StatusNoContent, status, body)
	}
	save(u1, "for Per only")
	_, page := owner.call("GET", "/api/students/"+his, nil)
	require.Equal(t, "", page["notes"])
	save(owner, "")
	_, page = u1.call("GET", "/api/students/"+his, nil)
	require.Equal(t, "for Per only", page["notes"])

	give := func(u *user, ladder, to, day string) (int, any) {
		as := map[string]any{"teacher": to}
		if day != "" {
			as["day"] = day
		}
		status, body := u.call("PUT", "/api/ladders/"+ladder+"/teacher", as)
		return status, body["detail"]
	}
	status, _ = give(u2, hisLadder, ida, "")
	require.Equal(t, http.StatusNotFound, status)
	status, detail := give(u1, hisLadder, storetest.ID(), "")
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "Nobody of this studio who teaches was named. Nothing was changed.", detail)
	// Covered today: Ida sees and notes, and hands nothing over; tomorrow it is Per's alone again.
	status, _ = give(u1, hisLadder, ida, "2026-05-04")
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, all, opens(u2, his, hisLadder))
	require.Equal(t, []string{"Per’s"}, today(u2))
	status, _ = give(u2, hisLadder, ida, "")
	require.Equal(t, http.StatusForbidden, status)
	status, body := u2.append(hisLadder, entry{"kind": "note", "text": "for Per", "at": may4().Format(time.RFC3339)})
	require.Equal(t, http.StatusOK, status, body)
	_, page = u1.call("GET", "/api/students/"+his, nil)
	line := page["ladders"].([]any)[0].(map[string]any)
	require.Equal(t, []any{map[string]any{"id": "2026-05-04", "name": "Monday, 4 May: Ida Holm"}}, line["covers"])
	require.Equal(t, per, line["teacher"])
	require.Len(t, page["colleagues"], 3)
	s.later(24 * time.Hour)
	require.Equal(t, none, opens(u2, his, hisLadder))
	require.Empty(t, today(u2))

	// Handed over by the owner, for good; who leaves gives the students back.
	status, _ = give(owner, hisLadder, ida, "")
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, none, opens(u1, his, hisLadder))
	require.Equal(t, all, opens(u2, his, hisLadder))
	_, a := owner.call("GET", "/api/account", nil)
	var load []string
	for _, p := range a["people"].([]any) {
		load = append(load, p.(map[string]any)["name"].(string)+": "+p.(map[string]any)["load"].(string))
	}
	require.Equal(t, []string{"Ida Holm: 1 student, 45 minutes a week", "Olga Berg: 1 student, 45 minutes a week", "Per Vik: ", "Siv Lund: "}, load)
	status, _ = owner.call("DELETE", "/api/account/people/"+ida, nil)
	require.Equal(t, http.StatusNoContent, status)
	s.later(6 * 24 * time.Hour)
	require.ElementsMatch(t, []string{"Olga’s", "Per’s"}, today(owner))
}

// Every route about a student, as a colleague of the same studio: not found, whichever handler it is for.
func TestEveryRouteAsAColleague(t *testing.T) {
	s := newSchool(t)
	ctx := context.Background()
	hash, err := account.HashPassword(ropes)
	require.NoError(t, err)
	owner := s.browser()
	s.signIn(owner, "203.0.113.5", ropes)
	student, ladder := storetest.ID(), storetest.ID()
	status, body := owner.call("POST", "/api/students", map[string]any{"student": student, "ladder": ladder, "name": "Nell", "born": "2015-01-01", "instrument": "piano", "weekday": 1, "startsAt": "10:00", "minutes": 45})
	require.Equal(t, http.StatusCreated, status, body)
	email, secret := storetest.ID()+"@example.org", storetest.ID()
	require.NoError(t, db.AddOnceLink(ctx, store.OnceLink{Token: account.Hash(secret), Kind: store.InviteLink, Studio: s.studio, Email: email, Name: "P", Role: string(account.Teacher), Made: may4(), Until: may4().Add(time.Hour)}))
	require.NoError(t, db.Accept(ctx, account.Hash(secret), store.Teacher{ID: storetest.ID(), StudioID: s.studio, Email: email, Name: "P", PasswordHash: hash, Role: string(account.Teacher)}))
	u := s.browser()
	status, _ = u.call("POST", "/api/session", map[string]string{"email": email, "password": ropes})
	require.Equal(t, http.StatusOK, status)
	spec, err := contract.GetSpec()
	require.NoError(t, err)
	walked := 0
	for path, item := range spec.Paths.Map() {
		if !strings.Contains(path, "{ladder}") && !strings.Contains(path, "{student}") || strings.HasPrefix(path, "/family/") {
			continue
		}
		for method := range item.Operations() {
			walked++
			url := "/api" + regexp.MustCompile(`\{\w+\}`).ReplaceAllString(strings.NewReplacer("{ladder}", ladder, "{student}", student).Replace(path), storetest.ID())
			res := u.raw(method, url, map[string]any{}, nil)
			data, err := io.ReadAll(res.Body)
			require.NoError(t, err)
			res.Body.Close()
			require.Equal(t, http.StatusNotFound, res.StatusCode, "%s %s: %s", method, path, data)
			require.NotContains(t, string(data), "Nell")
		}
	}
	require.Greater(t, walked, 60)
}
