package password

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func hashOf(t *testing.T, password string) string {
	t.Helper()
	hash, err := Hash(t.Context(), password)
	require.NoError(t, err)
	return hash
}

func matches(t *testing.T, hash, password string) bool {
	t.Helper()
	fits, err := Matches(t.Context(), hash, password)
	require.NoError(t, err)
	return fits
}

// Who hangs up does not keep others waiting: a turn is taken only by those who wait.
func TestWaitingForATurnEndsWithItsContext(t *testing.T) {
	for range cap(turns) {
		turns <- struct{}{}
	}
	ctx, stop := context.WithCancel(t.Context())
	stop()
	_, err := Hash(ctx, "lantern regatta")
	assert.ErrorIs(t, err, context.Canceled)
	for range cap(turns) {
		<-turns
	}
	hash := hashOf(t, "lantern regatta")
	_, err = Matches(ctx, hash, "lantern regatta")
	assert.ErrorIs(t, err, context.Canceled, "nothing is hashed for those who are gone")
}

func TestOnlyThePasswordMatchesItsHash(t *testing.T) {
	hash := hashOf(t, "lantern regatta")
	assert.True(t, matches(t, hash, "lantern regatta"))
	assert.False(t, matches(t, hash, "lantern regattA"))
	assert.NotEqual(t, hash, hashOf(t, "lantern regatta"), "every hash has its own salt")
	assert.NotContains(t, hash, "lantern")
	for _, broken := range []string{"", "$argon2id$", strings.Replace(hash, "argon2id", "argon2i", 1), hash[:len(hash)-4], strings.Replace(hash, "t=2", "t=0", 1)} {
		assert.False(t, matches(t, broken, "lantern regatta"), broken)
	}
}

// Made by Debian's argon2 command: echo -n "tide wheel" | argon2 merrowsound12345 -id -t 2 -k 19456 -p 1 -l 32 -e
func TestHashOfAnotherProgramMatches(t *testing.T) {
	assert.True(t, matches(t, "$argon2id$v=19$m=19456,t=2,p=1$bWVycm93c291bmQxMjM0NQ$E8FhKAQNRWqzeMxmUd6XyneJzKjf4ut2EweL90qC+JI", "tide wheel"))
}
