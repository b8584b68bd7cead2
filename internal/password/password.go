// Package password hashes passwords with argon2id and checks them.
package password

import (
	"context"
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"fmt"
	"strings"

	"golang.org/x/crypto/argon2"
)

// The cost of a hash: the second recommended option of the OWASP password storage
// cheat sheet (19 MiB, two passes, one lane), from memory.
const (
	memory  = 19 * 1024 // KiB
	passes  = 2
	lanes   = 1
	saltLen = 16
	keyLen  = 32
)

// MinLength and MaxLength bound a password, in letters: long enough to resist
// guessing against the rate limit, short enough not to be a burden to hash.
const MinLength, MaxLength = 10, 200

// Blank tells whether a password is nothing but blanks: long, and no secret.
func Blank(password string) bool { return strings.TrimSpace(password) == "" }

// turns bounds how many hashes are worked out at once, and so the memory they take.
var turns = make(chan struct{}, 2)

// Hash is the password's hash in PHC form, with a new salt. It waits for its turn, and
// fails when ctx ends first.
func Hash(ctx context.Context, password string) (string, error) {
	salt := make([]byte, saltLen)
	_, _ = rand.Read(salt) // never fails
	key, err := derive(ctx, password, salt, memory, passes, lanes)
	if err != nil {
		return "", err
	}
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=%d$%s$%s", argon2.Version, memory, passes, lanes,
		base64.RawStdEncoding.EncodeToString(salt), base64.RawStdEncoding.EncodeToString(key)), nil
}

// Matches tells whether hash, as [Hash] wrote it, is that of the password. A hash
// it cannot read matches nothing. It waits for its turn, and fails when ctx ends
// first.
func Matches(ctx context.Context, hash, password string) (bool, error) {
	parts := strings.Split(hash, "$")
	if len(parts) != 6 || parts[1] != "argon2id" {
		return false, nil
	}
	var version int
	var m, t uint32
	var p uint8
	if _, err := fmt.Sscanf(parts[2], "v=%d", &version); err != nil || version != argon2.Version {
		return false, nil
	}
	if _, err := fmt.Sscanf(parts[3], "m=%d,t=%d,p=%d", &m, &t, &p); err != nil || t == 0 || p == 0 || m > 1<<20 {
		return false, nil
	}
	salt, err := base64.RawStdEncoding.DecodeString(parts[4])
	if err != nil {
		return false, nil
	}
	want, err := base64.RawStdEncoding.DecodeString(parts[5])
	if err != nil || len(want) != keyLen {
		return false, nil
	}
	key, err := derive(ctx, password, salt, m, t, p)
	return err == nil && subtle.ConstantTimeCompare(want, key) == 1, err
}

func derive(ctx context.Context, password string, salt []byte, m, t uint32, p uint8) ([]byte, error) {
	select {
	case turns <- struct{}{}:
	case <-ctx.Done():
		return nil, fmt.Errorf("waiting to hash a password: %w", ctx.Err())
	}
	defer func() { <-turns }()
	if err := ctx.Err(); err != nil { // it ended while both were possible
		return nil, fmt.Errorf("waiting to hash a password: %w", err)
	}
	return argon2.IDKey([]byte(password), salt, t, m, p, keyLen), nil
}
