package password

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestOnlyThePasswordMatchesItsHash(t *testing.T) {
	hash := Hash("lantern regatta")
	assert.True(t, Matches(hash, "lantern regatta"))
	assert.False(t, Matches(hash, "lantern regattA"))
	assert.NotEqual(t, hash, Hash("lantern regatta"), "every hash has its own salt")
	assert.NotContains(t, hash, "lantern")
	for _, broken := range []string{"", "$argon2id$", strings.Replace(hash, "argon2id", "argon2i", 1), hash[:len(hash)-4], strings.Replace(hash, "t=2", "t=0", 1)} {
		assert.False(t, Matches(broken, "lantern regatta"), broken)
	}
}

// Made by Debian's argon2 command: echo -n "tide wheel" | argon2 merrowsound12345 -id -t 2 -k 19456 -p 1 -l 32 -e
func TestHashOfAnotherProgramMatches(t *testing.T) {
	assert.True(t, Matches("$argon2id$v=19$m=19456,t=2,p=1$bWVycm93c291bmQxMjM0NQ$E8FhKAQNRWqzeMxmUd6XyneJzKjf4ut2EweL90qC+JI", "tide wheel"))
}
