// Package password hashes passwords with argon2id and checks them.
package password

import (
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

// MinLength and MaxLength bound a password, in bytes: long enough to resist
// guessing against the rate limit, short enough not to be a burden to hash.
const MinLength, MaxLength = 10, 200

// turns bounds how many hashes are worked out at once, and so the memory they take.
var turns = make(chan struct{}, 2)

// Hash is the password's hash in PHC form, with a new salt.
func Hash(password string) string {
	salt := make([]byte, saltLen)
	_, _ = rand.Read(salt) // never fails
	key := derive(password, salt, memory, passes, lanes)
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=%d$%s$%s", argon2.Version, memory, passes, lanes,
		base64.RawStdEncoding.EncodeToString(salt), base64.RawStdEncoding.EncodeToString(key))
}

// Matches tells whether hash, as [Hash] wrote it, is that of the password. A hash
// it can not read matches nothing.
func Matches(hash, password string) bool {
	parts := strings.Split(hash, "$")
	if len(parts) != 6 || parts[1] != "argon2id" {
		return false
	}
	var version int
	var m, t uint32
	var p uint8
	if _, err := fmt.Sscanf(parts[2], "v=%d", &version); err != nil || version != argon2.Version {
		return false
	}
	if _, err := fmt.Sscanf(parts[3], "m=%d,t=%d,p=%d", &m, &t, &p); err != nil || t == 0 || p == 0 || m > 1<<20 {
		return false
	}
	salt, err := base64.RawStdEncoding.DecodeString(parts[4])
	if err != nil {
		return false
	}
	key, err := base64.RawStdEncoding.DecodeString(parts[5])
	if err != nil || len(key) != keyLen {
		return false
	}
	return subtle.ConstantTimeCompare(key, derive(password, salt, m, t, p)) == 1
}

func derive(password string, salt []byte, m, t uint32, p uint8) []byte {
	turns <- struct{}{}
	defer func() { <-turns }()
	return argon2.IDKey([]byte(password), salt, t, m, p, keyLen)
}
