package api_test

import (
	"context"
	"encoding/json"
	"fmt"
	"hash/fnv"
	"net/http"
	"net/http/httptest"
	"regexp"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api"
	"patientladder/store"
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
	s := &school{
		t:            t,
		now:          may4(),
		studio:       storetest.ID(),
		email:        fmt.Sprintf("owner-%s@example.org", storetest.ID()),
		letterPieces: regexp.MustCompile(`http\S+#(\S+)`),
	}
	_, handler, err := api.New(
		api.Config{
			Store:          db,
			Page:           fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}},
			Now:            s.clock,
			Mails:          true,
			URL:            "https://ladder.example",
			TrustedProxies: []string{"127.0.0.1/32"},
		},
	)
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(server.Close)
	s.url = server.URL
	hash, err := account.HashPassword(ropes)
	require.NoError(t, err)
	require.NoError(
		t,
		db.AddStudio(
			context.Background(),
			store.Studio{ID: s.studio, Name: "School", Timezone: "UTC"},
			store.Teacher{ID: storetest.ID(), Email: s.email, Name: "Olga Berg", PasswordHash: hash},
		),
	)
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

// lastLetter is what the letter says that was written next to an address.
func (s *school) lastLetter(to string) string {
	s.t.Helper()
	for range 20 {
		l, err := db.TakeAccountLetter(context.Background(), s.clock(), s.clock().Add(time.Hour))
		require.NoError(s.t, err, "a letter to %s", to)
		require.NoError(s.t, db.DropAccountLetter(context.Background(), l.ID))
		if strings.EqualFold(l.To, to) {
			return l.Body
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
	status, body := u.call("PUT", "/api/account/second", map[string]any{"secret": secret, "code": "000000", "password": ropes})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	used := code()
	status, kept := u.call("PUT", "/api/account/second", map[string]any{"secret": secret, "code": used, "password": ropes})
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

// A tablet that was left alone lets nobody put another second factor in the place of the one there is, nor a passkey beside
// the password; a new password by a link takes both away, with a letter that says so.
func TestATabletLeftAlone(t *testing.T) {
	s := newSchool(t)
	u := s.browser()
	s.signIn(u, "203.0.113.5", ropes)
	begun := func() (secret, code string) {
		_, b := u.call("POST", "/api/account/second", nil)
		secret = b["secret"].(string)
		code, err := totp.GenerateCode(secret, s.clock())
		require.NoError(t, err)
		return secret, code
	}
	secret, code := begun()
	status, body := u.call("PUT", "/api/account/second", map[string]any{"secret": secret, "code": code, "password": ropes})
	require.Equal(t, http.StatusOK, status, body)
	other, code := begun()
	for _, password := range []any{nil, "a guess at ropes"} {
		sent := map[string]any{"secret": other, "code": code}
		if password != nil {
			sent["password"] = password
		}
		status, body = u.call("PUT", "/api/account/second", sent)
		require.Contains(t, []int{http.StatusForbidden, http.StatusUnprocessableEntity}, status, body)
	}
	s.later(time.Minute)
	code, err := totp.GenerateCode(secret, s.clock())
	require.NoError(t, err)
	status, _, _ = s.signIn(s.browser(), "203.0.113.8", ropes, code)
	require.Equal(t, http.StatusOK, status, "the first one still holds")

	status, body = u.call("POST", "/api/account/passkeys", map[string]any{"password": "a guess at ropes"})
	require.Equal(t, http.StatusForbidden, status, body)
	require.Equal(t, "Your password is not right; nothing was changed.", body["detail"])
	status, body = u.call("POST", "/api/account/passkeys", nil)
	require.Equal(t, http.StatusUnprocessableEntity, status, body)

	me, err := db.TeacherByEmail(context.Background(), s.email)
	require.NoError(t, err)
	require.NoError(
		t,
		db.AddPasskey(
			context.Background(),
			me.ID,
			store.Passkey{ID: strings.Repeat("b", 64), Name: "Tablet", Body: []byte("{}"), Made: s.clock()},
		),
	)
	u.call("POST", "/api/recovery", map[string]any{"email": s.email})
	status, body = u.call("PUT", "/api/recovery", map[string]any{"token": s.letter(s.email), "password": "nine boats under slate"})
	require.Equal(t, http.StatusNoContent, status, body)
	status, _, _ = s.signIn(s.browser(), "203.0.113.9", "nine boats under slate")
	require.Equal(t, http.StatusOK, status, "no code is asked for")
	keys, err := db.Passkeys(context.Background(), me.ID)
	require.NoError(t, err)
	require.Empty(t, keys)
	require.Contains(
		t,
		s.lastLetter(s.email),
		"The code of an app is not asked for any more, and passkeys sign in no more: set both up again on the account page.",
	)
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
