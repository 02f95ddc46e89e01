// Package pagetest serves a demo studio to the tests that ask its pages over and over.
package pagetest

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"testing"
	"testing/fstest"
	"time"

	"patientladder/account"
	"patientladder/api"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
)

// Site is a demo studio that is served, with its teacher signed in.
type Site struct {
	// URL is where it is served, without a slash at the end.
	URL    string
	Client *http.Client
}

// Monday is the time at which it is asked: Monday, 4 May 2026, half past three in UTC, between two lessons.
func Monday() time.Time { return time.Date(2026, 5, 4, 15, 30, 0, 0, time.UTC) }

// Main serves the demo studio, as it is on Monday, to the tests of a package through site, and returns the code to leave
// with. Of the options the seed and the number of students are taken.
func Main(m *testing.M, o demo.Options, site *Site) int {
	slog.SetDefault(slog.New(slog.DiscardHandler))
	return storetest.Main(m, func(s *store.Store) {
		served, err := serve(s, o)
		if err != nil {
			panic(err)
		}
		*site = served
	})
}

func serve(s *store.Store, o demo.Options) (Site, error) {
	var err error
	if o.PasswordHash, err = account.HashPassword(demo.Password); err != nil {
		return Site{}, err
	}
	o.Day, o.Timezone = clock.Day(Monday(), "UTC"), "UTC"
	if err := demo.Make(context.Background(), s, o); err != nil {
		return Site{}, err
	}
	url, err := Serve(s)
	if err != nil {
		return Site{}, err
	}
	client, err := SignIn(url, demo.Email)
	return Site{URL: url, Client: client}, err
}

// Serve begins a server that has nothing in memory, as it is on Monday, and returns where it is.
func Serve(s *store.Store) (string, error) {
	_, handler, err := api.New(api.Config{Store: s, Page: fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}}, Now: Monday})
	if err != nil {
		return "", err
	}
	return httptest.NewServer(handler).URL, nil
}

// SignIn signs somebody in at a server with the password of the demo.
func SignIn(url, email string) (*http.Client, error) {
	jar, err := cookiejar.New(nil)
	if err != nil {
		return nil, err
	}
	client := &http.Client{Jar: jar}
	data, err := json.Marshal(map[string]string{"email": email, "password": demo.Password})
	if err != nil {
		return nil, err
	}
	res, err := client.Post(url+"/api/session", "application/json", bytes.NewReader(data))
	if err != nil {
		return nil, err
	}
	if res.StatusCode != http.StatusOK {
		return nil, fmt.Errorf("signing in as %s: %s", email, res.Status)
	}
	return client, res.Body.Close()
}
