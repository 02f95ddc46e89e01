// Package localdb runs a private MariaDB server on a free loopback port, with
// its data in a folder of its own. The demo and the tests share it.
package localdb

import (
	"context"
	"crypto/rand"
	"database/sql"
	"encoding/hex"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"syscall"
	"time"

	_ "github.com/go-sql-driver/mysql" // the driver that await pings with
)

// ErrMissing is returned when MariaDB is not installed; its text says what to install.
var ErrMissing = errors.New("MariaDB is not installed: run 'apt-get install mariadb-server' (as root), then try again")

// Server is a running MariaDB.
type Server struct {
	// DSN opens the database "ladder" with the mysql driver.
	DSN  string
	dir  string
	cmd  *exec.Cmd
	done chan error
}

const startWithin = 180 * time.Second

// Start starts a server on the data in dir, which is made on first use. Data
// survive Stop and a crash: the log is flushed at each commit. The server ends
// with this process even if that is killed. One folder serves one server: a
// second Start on it fails with a sentence that says so.
func Start(ctx context.Context, dir string) (*Server, error) { return StartWith(ctx, dir) }

// ForLoading are settings under which much is loaded in minutes, and lost when the machine stops: for measurements.
func ForLoading() []string {
	return []string{
		"--innodb-flush-log-at-trx-commit=0",
		"--innodb-doublewrite=OFF",
		"--innodb-buffer-pool-size=3G",
		"--innodb-log-file-size=2G",
	}
}

// StartWith is Start with settings of the server that come after its own.
func StartWith(ctx context.Context, dir string, more ...string) (*Server, error) {
	daemon, err := find("mariadbd", "mysqld")
	if err != nil {
		return nil, err
	}
	dir, err = filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	data := filepath.Join(dir, "data")
	secret, err := prepare(ctx, dir, data)
	if err != nil {
		return nil, err
	}
	if err := refuseSecond(dir); err != nil {
		return nil, err
	}
	port, err := freePort()
	if err != nil {
		return nil, err
	}
	// The init file sets the account at each start, so that a folder from an
	// interrupted first start heals itself.
	initFile := filepath.Join(dir, "init.sql")
	account := fmt.Sprintf("CREATE DATABASE IF NOT EXISTS ladder CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;\n"+
		"CREATE USER IF NOT EXISTS 'ladder'@'127.0.0.1';\n"+
		"SET PASSWORD FOR 'ladder'@'127.0.0.1' = PASSWORD('%s');\n"+
		"GRANT ALL ON *.* TO 'ladder'@'127.0.0.1';\n", secret)
	if err := os.WriteFile(initFile, []byte(account), 0o600); err != nil {
		return nil, err
	}
	args := []string{
		"--no-defaults", "--datadir=" + data, "--bind-address=127.0.0.1", "--port=" + strconv.Itoa(port),
		"--socket=" + socketPath(dir), "--pid-file=" + filepath.Join(dir, "pid"), "--log-error=" + filepath.Join(dir, "error.log"),
		"--skip-name-resolve", "--tmpdir=" + temporary(dir), "--init-file=" + initFile, "--innodb-flush-log-at-trx-commit=1",
		"--innodb-buffer-pool-size=128M", "--max-allowed-packet=32M", "--performance-schema=OFF",
	}
	args = append(args, more...)
	if os.Getuid() == 0 {
		args = append(args, "--user=root")
	}
	s := &Server{dir: dir, done: make(chan error, 1), cmd: exec.Command(daemon, args...)}
	s.cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGTERM, Setpgid: true}
	if err := s.launch(); err != nil {
		return nil, fmt.Errorf("MariaDB does not start: %w", err)
	}
	s.DSN = fmt.Sprintf("ladder:%s@tcp(127.0.0.1:%d)/ladder", secret, port)
	if err := s.await(ctx); err != nil {
		s.Stop()
		return nil, err
	}
	return s, nil
}

// launch starts the process from a thread that lives as long as it does: the
// signal on the parent's death is tied to that thread.
func (s *Server) launch() error {
	started := make(chan error)
	go func() {
		runtime.LockOSThread()
		defer runtime.UnlockOSThread()
		if err := s.cmd.Start(); err != nil {
			started <- err
			return
		}
		started <- nil
		s.done <- s.cmd.Wait()
	}()
	return <-started
}

// await returns once the server answers.
func (s *Server) await(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, startWithin)
	defer cancel()
	db, err := sql.Open("mysql", s.DSN)
	if err != nil {
		return err
	}
	defer db.Close()
	for {
		if err = db.PingContext(ctx); err == nil {
			return nil
		}
		select {
		case <-ctx.Done():
			return fmt.Errorf("MariaDB did not answer within %s: %w", startWithin, err)
		case died := <-s.done:
			s.done <- died
			return fmt.Errorf("MariaDB stopped while starting; the end of its log:\n%s", tail(filepath.Join(s.dir, "error.log"), 8))
		case <-time.After(50 * time.Millisecond):
		}
	}
}

// Stop shuts the server down and waits for it.
func (s *Server) Stop() error {
	s.cmd.Process.Signal(syscall.SIGTERM)
	select {
	case <-s.done:
		return nil
	case <-time.After(startWithin):
		s.cmd.Process.Kill()
		return errors.New("MariaDB did not stop in time and was killed")
	}
}

// Kill ends the server at once, as a crash would. For tests of durability.
func (s *Server) Kill() {
	s.cmd.Process.Kill()
	<-s.done
}

// Remove throws the data in dir away. It refuses while a server runs on them.
func Remove(dir string) error {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return err
	}
	if err := refuseSecond(dir); err != nil {
		return err
	}
	return os.RemoveAll(dir)
}

// prepare makes the folder with its system tables on first use and returns the account's secret.
func prepare(ctx context.Context, dir, data string) (string, error) {
	if err := os.MkdirAll(temporary(dir), 0o700); err != nil {
		return "", err
	}
	secretFile := filepath.Join(dir, "secret")
	if _, err := os.Stat(filepath.Join(dir, "ready")); err != nil {
		if err := install(ctx, data); err != nil {
			return "", err
		}
		random := make([]byte, 16)
		if _, err := rand.Read(random); err != nil {
			return "", err
		}
		if err := os.WriteFile(secretFile, []byte(hex.EncodeToString(random)), 0o600); err != nil {
			return "", err
		}
		if err := os.WriteFile(filepath.Join(dir, "ready"), nil, 0o600); err != nil {
			return "", err
		}
	}
	secret, err := os.ReadFile(secretFile)
	return string(secret), err
}

func temporary(dir string) string { return filepath.Join(dir, "tmp") }

func install(ctx context.Context, data string) error {
	tool, err := find("mariadb-install-db", "mysql_install_db")
	if err != nil {
		return err
	}
	if err := os.RemoveAll(data); err != nil { // left by an interrupted first start
		return err
	}
	me, err := user.Current()
	if err != nil {
		return err
	}
	// The tool is a script that takes a folder's name apart at spaces: it works in the folder above and is given the name alone.
	cmd := exec.CommandContext(ctx, tool, "--no-defaults", "--datadir=./"+filepath.Base(data), "--user="+me.Username,
		"--auth-root-authentication-method=normal", "--skip-test-db")
	cmd.Dir = filepath.Dir(data)
	// A server clears its temporary folder when it starts: in a shared one it
	// would take the tables of another that is just being installed.
	cmd.Env = append(os.Environ(), "TMPDIR="+temporary(filepath.Dir(data)))
	out, err := cmd.CombinedOutput()
	if err != nil {
		return fmt.Errorf("MariaDB's tables cannot be made: %w\n%s", err, out)
	}
	return nil
}

// settle is how long a server may take to end after its program was killed.
const settle = 5 * time.Second

// refuseSecond reports a server that still runs on the folder. One whose
// program was killed is about to end, so it is given a moment.
func refuseSecond(dir string) error {
	for end := time.Now().Add(settle); ; time.Sleep(50 * time.Millisecond) {
		pid, runs := running(dir)
		if !runs {
			return nil
		}
		if time.Now().After(end) {
			return fmt.Errorf("the database in %s is in use by another start of the program (process %d): stop that one first", dir, pid)
		}
	}
}

// running finds the server on a folder by its pid file.
func running(dir string) (pid int, runs bool) {
	text, err := os.ReadFile(filepath.Join(dir, "pid"))
	if err != nil {
		return 0, false
	}
	if pid, err = strconv.Atoi(strings.TrimSpace(string(text))); err != nil {
		return 0, false
	}
	line, err := os.ReadFile(fmt.Sprintf("/proc/%d/cmdline", pid))
	return pid, err == nil && strings.Contains(string(line), dir)
}

func find(names ...string) (string, error) {
	for _, n := range names {
		if p, err := exec.LookPath(n); err == nil {
			return p, nil
		}
		for _, dir := range []string{"/usr/sbin", "/usr/bin", "/usr/local/sbin", "/usr/local/bin"} {
			p := filepath.Join(dir, n)
			if info, err := os.Stat(p); err == nil && info.Mode()&0o111 != 0 {
				return p, nil
			}
		}
	}
	return "", ErrMissing
}

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

// socketPath keeps the socket in the temporary folder: its path may have no more than 107 bytes.
func socketPath(dir string) string {
	path := filepath.Join(dir, "socket")
	if len(path) < 100 {
		return path
	}
	return filepath.Join(os.TempDir(), "ladder-"+strconv.Itoa(os.Getpid())+".sock")
}

func tail(file string, lines int) string {
	text, err := os.ReadFile(file)
	if err != nil {
		return err.Error()
	}
	all := strings.Split(strings.TrimSpace(string(text)), "\n")
	return strings.Join(all[max(0, len(all)-lines):], "\n")
}
