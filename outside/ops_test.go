package outside_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// Debian's own nginx takes the shipped example as it stands, with a certificate made for the test in the place of the real one.
func TestDebiansNginxTakesTheExample(t *testing.T) {
	dir := t.TempDir()
	site, err := os.ReadFile("../ops/nginx.conf")
	require.NoError(t, err)
	made, err := exec.Command("openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=ladder.example",
		"-keyout", filepath.Join(dir, "key.pem"), "-out", filepath.Join(dir, "cert.pem")).CombinedOutput()
	require.NoError(t, err, "%s", made)
	text := regexp.MustCompile(`/etc/letsencrypt/live/ladder\.example/fullchain\.pem`).
		ReplaceAllString(string(site), filepath.Join(dir, "cert.pem"))
	text = strings.ReplaceAll(text, "/etc/letsencrypt/live/ladder.example/privkey.pem", filepath.Join(dir, "key.pem"))
	require.NotContains(t, text, "letsencrypt")
	conf := "pid " + dir + "/pid;\nerror_log " + dir + "/error.log;\nevents {}\nhttp {\naccess_log " + dir + "/access.log;\n" + text + "}\n"
	file := filepath.Join(dir, "nginx.conf")
	require.NoError(t, os.WriteFile(file, []byte(conf), 0o600))
	said, err := exec.Command("/usr/sbin/nginx", "-t", "-q", "-c", file).CombinedOutput()
	require.NoError(t, err, "%s", said)
	require.NotContains(t, string(said), "warn")
}

// systemd reads the shipped units without a complaint but that the program is not installed where the test runs.
func TestSystemdTakesTheUnits(t *testing.T) {
	if _, err := exec.LookPath("systemd-analyze"); err != nil {
		t.Skip("systemd-analyze is not on this machine")
	}
	dir := t.TempDir()
	program := filepath.Join(dir, "ladder")
	require.NoError(t, os.WriteFile(program, []byte("#!/bin/sh\n"), 0o700))
	var units []string
	for _, name := range []string{"patient-ladder.service", "patient-ladder-backup.service", "patient-ladder-backup.timer"} {
		data, err := os.ReadFile("../ops/" + name)
		require.NoError(t, err)
		file := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(file, []byte(strings.ReplaceAll(string(data), "/usr/local/bin/ladder", program)), 0o600))
		units = append(units, file)
	}
	said, err := exec.Command("systemd-analyze", append([]string{"verify", "--man=no"}, units...)...).CombinedOutput()
	require.NoError(t, err, "%s", said)
	for _, line := range strings.Split(string(said), "\n") {
		require.NotContains(t, line, "patient-ladder", "a complaint about a unit")
	}
}

// Each file that the page on operations names is shipped, and the unit's user and folder are made by files beside it.
func TestOperationsNamesWhatShips(t *testing.T) {
	page, err := os.ReadFile("../docs/operations.md")
	require.NoError(t, err)
	named := regexp.MustCompile(`ops/[\w.-]+`).FindAllString(string(page), -1)
	require.NotEmpty(t, named)
	for _, n := range named {
		_, err := os.Stat("../" + n)
		require.NoError(t, err)
	}
	unit, err := os.ReadFile("../ops/patient-ladder-backup.service")
	require.NoError(t, err)
	user := regexp.MustCompile(`(?m)^User=(\S+)`).FindStringSubmatch(string(unit))[1]
	folder := regexp.MustCompile(`(?m)^ReadWritePaths=(\S+)`).FindStringSubmatch(string(unit))[1]
	users, err := os.ReadFile("../ops/patient-ladder-backup.sysusers")
	require.NoError(t, err)
	require.Regexp(t, `(?m)^u `+user+` `, string(users))
	folders, err := os.ReadFile("../ops/patient-ladder-backup.tmpfiles")
	require.NoError(t, err)
	require.Regexp(t, `(?m)^d `+folder+` 0750 `+user+` `, string(folders))
}
