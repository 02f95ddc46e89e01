package store

import (
	"context"
	"crypto/aes"
	"crypto/cipher"
	"crypto/hkdf"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
	"errors"
	"fmt"
	"strings"
)

// Secret seals what opens something (links of families, calendars, the secrets of second factors, letters with links), so that
// whoever reads the tables cannot use it. It is AES-256 in Galois/Counter Mode (NIST SP 800-38D) with a key derived by HKDF
// (RFC 5869). A nil one seals nothing.
type Secret struct {
	aead cipher.AEAD
	// print tells two secrets apart and nothing of either.
	print string
}

const (
	secretBegins = "PATIENT-LADDER-SECRET-"
	// sealedBegins begins what is sealed; no token, secret or letter begins with it.
	sealedBegins = "sealed:"
	secretBytes  = 32
)

// NewSecret is the text of a secret file with a new secret.
func NewSecret() string {
	b := make([]byte, secretBytes)
	rand.Read(b) // never fails (crypto/rand)
	return "# Give this file to every server of one database; without it links and second factors must be made anew.\n" +
		secretBegins + base64.RawStdEncoding.EncodeToString(b) + "\n"
}

// ParseSecret reads a secret file: lines that begin with # are left out.
func ParseSecret(text string) (*Secret, error) {
	for line := range strings.Lines(text) {
		rest, is := strings.CutPrefix(strings.TrimSpace(line), secretBegins)
		if !is {
			continue
		}
		raw, err := base64.RawStdEncoding.DecodeString(rest)
		if err != nil || len(raw) != secretBytes {
			return nil, errors.New("the secret in the file is not whole; 'ladder secret' makes a file")
		}
		key, err := hkdf.Key(sha256.New, raw, nil, "patient ladder: what opens something", secretBytes)
		if err != nil {
			return nil, err
		}
		block, err := aes.NewCipher(key)
		if err != nil {
			return nil, err
		}
		print, err := hkdf.Key(sha256.New, raw, nil, "patient ladder: the print of a secret", secretBytes)
		if err != nil {
			return nil, err
		}
		aead, err := cipher.NewGCM(block)
		return &Secret{aead, hex.EncodeToString(print)}, err
	}
	return nil, errors.New("it is no secret file; 'ladder secret' makes one")
}

// close seals a text; "" stays what it is, and so does what is sealed.
func (x *Secret) close(text string) string {
	if x == nil || text == "" || strings.HasPrefix(text, sealedBegins) {
		return text
	}
	nonce := make([]byte, x.aead.NonceSize())
	rand.Read(nonce)
	return sealedBegins + base64.RawStdEncoding.EncodeToString(x.aead.Seal(nonce, nonce, []byte(text), nil))
}

// ErrSealed is what is sealed with another secret, or with one where there is none.
var ErrSealed = errors.New(
	"what opens links and second factors is sealed with another secret: give the server's own with --secret, or make all of them anew with 'ladder secret --forget'",
)

// open reads what may be sealed.
func (x *Secret) open(text string) (string, error) {
	rest, is := strings.CutPrefix(text, sealedBegins)
	if !is {
		return text, nil
	}
	if x == nil {
		return "", ErrSealed
	}
	data, err := base64.RawStdEncoding.DecodeString(rest)
	if n := x.aead.NonceSize(); err == nil && len(data) >= n {
		var out []byte
		if out, err = x.aead.Open(nil, data[:n], data[n:], nil); err == nil {
			return string(out), nil
		}
	}
	return "", ErrSealed
}

// sealedColumns are where something is kept sealed; key are two columns that tell its rows apart.
var sealedColumns = []struct{ table, column, key string }{
	{"family", "token", "studio_id, ladder_id"}, {"studio_feed", "token", "studio_id, studio_id"},
	{"teacher", "second_secret", "studio_id, id"},
	{"message", "stop", "studio_id, id"}, {"message", "body", "studio_id, id"},
}

// Seal gives the store its secret, nil for none: it makes sure that what is sealed can be opened, and seals what is not.
// It returns how much was sealed now.
func (s *Store) Seal(ctx context.Context, secret *Secret) (int, error) {
	if err := s.Opens(ctx, secret); err != nil {
		return 0, err
	}
	if secret == nil {
		s.secret = nil
		return 0, nil
	}
	// The first server that starts with a secret says which it is; of two at the same moment one is told that it is another.
	if _, err := s.db.ExecContext(ctx, "INSERT IGNORE INTO sealing (id, print) VALUES (1, ?)", secret.print); err != nil {
		return 0, err
	}
	if err := s.shared(ctx, secret); err != nil {
		return 0, err
	}
	s.secret = secret
	n := 0
	for _, c := range sealedColumns {
		list, err := s.unsealed(
			ctx,
			fmt.Sprintf("SELECT %[3]s, %[2]s FROM %[1]s WHERE %[2]s <> '' AND %[2]s NOT LIKE '%[4]s%%'", c.table, c.column, c.key, sealedBegins),
		)
		if err != nil {
			return n, err
		}
		for _, x := range list { // as it was read, to the byte, so that what changes meanwhile is left alone
			res, err := s.db.ExecContext(
				ctx,
				fmt.Sprintf(
					"UPDATE %[1]s SET %[2]s = ? WHERE (%[3]s) = (?, ?) AND CAST(%[2]s AS BINARY) = CAST(? AS BINARY)",
					c.table,
					c.column,
					c.key,
				),
				secret.close(x[2]),
				x[0],
				x[1],
				x[2],
			)
			if err != nil {
				return n, err
			}
			k, err := res.RowsAffected()
			if err != nil {
				return n, err
			}
			n += int(k)
		}
	}
	return n, nil
}

// shared says by an error that a secret, nil for none, is not the one that servers of this database share.
func (s *Store) shared(ctx context.Context, secret *Secret) error {
	prints, err := s.texts(ctx, "SELECT print FROM sealing")
	if err == nil && len(prints) > 0 && (secret == nil || secret.print != prints[0]) {
		err = ErrSealed
	}
	return err
}

// Opens says by an error that a secret, nil for none, does not open what is sealed, or is not the one that servers of this
// database share.
func (s *Store) Opens(ctx context.Context, secret *Secret) error {
	if err := s.shared(ctx, secret); err != nil {
		return err
	}
	for _, c := range sealedColumns {
		list, err := s.texts(ctx, fmt.Sprintf("SELECT %[2]s FROM %[1]s WHERE %[2]s LIKE '%[3]s%%' LIMIT 1", c.table, c.column, sealedBegins))
		if err != nil {
			return err
		}
		for _, text := range list {
			if _, err := secret.open(text); err != nil {
				return err
			}
		}
	}
	return nil
}

// DropSealed drops what is sealed with a secret that is lost: links of families and calendars open nothing any more, second factors
// are off, letters with links are gone.
func (s *Store) DropSealed(ctx context.Context) error {
	for _, q := range []string{
		"UPDATE family SET token = '', token_hash = NULL WHERE token LIKE 'sealed:%'", "DELETE FROM studio_feed WHERE token LIKE 'sealed:%'",
		"DELETE r FROM recovery_code r JOIN teacher t ON t.id = r.teacher_id WHERE t.second_secret LIKE 'sealed:%'",
		"UPDATE teacher SET second_secret = '', second_step = 0 WHERE second_secret LIKE 'sealed:%'",
		"DELETE FROM message WHERE body LIKE 'sealed:%' OR stop LIKE 'sealed:%'", "DELETE FROM sealing",
	} {
		if _, err := s.db.ExecContext(ctx, q); err != nil {
			return err
		}
	}
	return nil
}

// texts are the texts that a query finds.
func (s *Store) texts(ctx context.Context, query string) (out []string, err error) {
	rows, err := s.db.QueryContext(ctx, query)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var text string
		if err := rows.Scan(&text); err != nil {
			return nil, err
		}
		out = append(out, text)
	}
	return out, rows.Err()
}

// unsealed are texts with the key of their row before them.
func (s *Store) unsealed(ctx context.Context, query string) (out [][3]string, err error) {
	rows, err := s.db.QueryContext(ctx, query)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var x [3]string
		if err := rows.Scan(&x[0], &x[1], &x[2]); err != nil {
			return nil, err
		}
		out = append(out, x)
	}
	return out, rows.Err()
}

// opened opens several texts in their places.
func (s *Store) opened(texts ...*string) error {
	for _, t := range texts {
		text, err := s.secret.open(*t)
		if err != nil {
			return err
		}
		*t = text
	}
	return nil
}
