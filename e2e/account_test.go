package e2e_test

import (
	"context"
	"net"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/webauthn"
	"github.com/chromedp/chromedp"
	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/web"
)

// Forgotten: a letter, a new password. A code of an app beside it, recovery codes. A colleague is invited and joins; everything
// about a student is taken out or goes in a day.
func TestAnAccountOfOnesOwn(t *testing.T) {
	ctx, email := context.Background(), strings.ToLower(storetest.ID())+"@example.org"
	hash, err := account.HashPassword("an old password")
	require.NoError(t, err)
	require.NoError(
		t,
		data.AddStudio(
			ctx,
			store.Studio{ID: storetest.ID(), Name: "By the sea", Timezone: "UTC"},
			store.Teacher{ID: storetest.ID(), Email: email, Name: "Olga Berg", PasswordHash: hash},
		),
	)
	server := httptest.NewUnstartedServer(nil)
	_, h, err := api.New(api.Config{Store: data, Page: web.Page(), Now: now, Mails: true, URL: "http://" + server.Listener.Addr().String()})
	require.NoError(t, err)
	server.Config.Handler = h
	server.Start()
	t.Cleanup(server.Close)
	b := open(t, 1280, 800)
	b.at = server.URL
	link := func(path string) string {
		for {
			l, err := data.TakeAccountLetter(ctx, now().Add(time.Minute), now().Add(time.Hour))
			require.NoError(t, err, "a letter with a link to %s", path)
			require.NoError(t, data.DropAccountLetter(ctx, l.ID))
			if _, rest, found := strings.Cut(l.Body, b.at+path); found {
				secret, _, _ := strings.Cut(rest, "\n")
				return path + secret
			}
		}
	}

	b.visit("/sign-in")
	b.click(button("I forgot the password"))
	b.fill(`form:nth-of-type(2) input[name=email]`, email)
	b.accessible("a forgotten password")
	b.click(button("Send me a link"))
	b.says("a letter is on its way")
	b.visit(link("/new-password"))
	b.says("A new password")
	b.accessible("a new password")
	b.fill(`input[name=password]`, "password1")
	b.click(button("Keep it"))
	b.says("too easy to guess")
	b.retype(`//input[@name="password"]`, "gull fog seven ropes")
	b.click(button("Keep it"))
	b.says("It holds now.")
	b.click(button("Sign in"))
	b.signIn(email, "gull fog seven ropes")
	b.until(`location.pathname === "/"`)

	b.visit("/account")
	b.says("Where you are signed in")
	b.says("this one")
	for _, font := range []string{"Atkinson Hyperlegible Next", "Brygada 1918"} {
		require.Contains(
			t,
			eval[string](b, `fetch([...document.querySelectorAll("a")].find(a => a.textContent === "`+font+`").href).then(r => r.text())`),
			"SIL OPEN FONT LICENSE",
		)
	}
	b.click(button("Set it up"))
	b.see(`img[alt="What the app scans to know the secret"]`)
	b.accessible("an account")
	code, err := totp.GenerateCode(eval[string](b, `document.querySelector("section code").textContent`), now())
	require.NoError(t, err)
	b.fill(`input[name=code]`, code)
	b.fill(`section[aria-label="A code beside the password"] input[name=password]`, "gull fog seven ropes")
	b.click(button("Switch it on"))
	b.says("Write these down now")
	recovery := eval[string](b, `document.querySelector("section ul.figures li").textContent`)
	require.Len(t, recovery, 17)

	b.click(`//summary[contains(., "Invite somebody")]`)
	b.fill(`section[aria-label="People of the studio"] input[name=name]`, "Per Vik")
	b.fill(`section[aria-label="People of the studio"] input[name=email]`, "per-"+email)
	b.click(button("Send the invitation"))
	b.says("The link holds for three days")
	b.click(button("Sign out"))
	b.until(`location.pathname === "/sign-in"`)

	b.fill(`input[name=email]`, email)
	b.fill(`input[name=password]`, "gull fog seven ropes")
	b.click(button("Sign in"))
	b.says("The code of your app")
	b.fill(`input[name=code]`, recovery)
	b.click(button("Sign in"))
	b.until(`location.pathname === "/"`)
	b.visit("/account")
	b.says("9 recovery codes are left")
	b.quiet()

	other := open(t, 820, 1180)
	other.at = server.URL
	other.visit(link("/invitation"))
	other.says("Your account")
	other.fill(`input[name=password]`, "nine boats under slate")
	other.click(button("Keep it"))
	other.says("It holds now.")
	other.click(button("Sign in"))
	other.signIn("per-"+email, "nine boats under slate")
	other.until(`location.pathname === "/"`)
	other.visit("/account")
	other.says("Per Vik")
	other.fits("an account on a tablet")
	require.False(t, eval[bool](other, `!!document.querySelector('section[aria-label="People of the studio"]')`))
}

// A passkey is made on a device (Chromium's virtual authenticator), signs in without a password, and signs in no more when it is
// taken away.
func TestAPasskey(t *testing.T) {
	ctx, email := context.Background(), strings.ToLower(storetest.ID())+"@example.org"
	hash, err := account.HashPassword("gull fog seven ropes")
	require.NoError(t, err)
	require.NoError(
		t,
		data.AddStudio(
			ctx,
			store.Studio{ID: storetest.ID(), Name: "By the sea", Timezone: "UTC"},
			store.Teacher{ID: storetest.ID(), Email: email, Name: "Olga Berg", PasswordHash: hash},
		),
	)
	server := httptest.NewUnstartedServer(nil)
	_, port, err := net.SplitHostPort(server.Listener.Addr().String())
	require.NoError(t, err)
	_, h, err := api.New(api.Config{Store: data, Page: web.Page(), Now: now, URL: "http://localhost:" + port})
	require.NoError(t, err)
	server.Config.Handler = h
	server.Start()
	t.Cleanup(server.Close)
	b := open(t, 1280, 800)
	b.at = "http://localhost:" + port
	_, err = chromedp.Call(b.ctx, webauthn.Enable, webauthn.EnableParams{})
	require.NoError(t, err)
	_, err = chromedp.Call(
		b.ctx,
		webauthn.AddVirtualAuthenticator,
		webauthn.AddVirtualAuthenticatorParams{Options: &webauthn.VirtualAuthenticatorOptions{
			Protocol: webauthn.AuthenticatorProtocolCtap2, Transport: webauthn.AuthenticatorTransportInternal, HasResidentKey: true,
			HasUserVerification: true,
			IsUserVerified:      true, AutomaticPresenceSimulation: true,
		}},
	)
	require.NoError(t, err)
	b.signIn(email, "gull fog seven ropes")
	b.until(`location.pathname === "/"`)
	b.visit("/account")
	b.enter(`section[aria-label="Passkeys"] input[name=password]`, "gull fog seven ropes")
	b.click(button("Make one on this device"))
	b.says("Take away")
	b.accessible("passkeys")
	b.click(button("Sign out"))
	b.until(`location.pathname === "/sign-in"`)
	b.click(button("Use a passkey"))
	b.until(`location.pathname === "/"`)
	b.visit("/account")
	b.says("Olga Berg added a passkey")
	b.click(`//button[starts-with(@aria-label, "Take away")]`)
	b.until(`!document.querySelector('button[aria-label^="Take away"]')`)
	b.click(button("Sign out"))
	b.until(`location.pathname === "/sign-in"`)
	b.click(button("Use a passkey"))
	b.says("The passkey was not accepted")
}
