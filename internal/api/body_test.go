package api

import (
	"bufio"
	"fmt"
	"io"
	"net"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A stranger who sends half of many bodies keeps nobody else waiting.
func TestHalfSentBodiesKeepNobodyWaiting(t *testing.T) {
	t.Parallel()
	s := open(t)
	address := strings.TrimPrefix(s.url, "http://")
	for range 3 * mostServed {
		half, err := net.Dial("tcp", address)
		require.NoError(t, err)
		t.Cleanup(func() { half.Close() })
		_, err = fmt.Fprintf(half, "POST /api/v1/session HTTP/1.1\r\nHost: %s\r\nContent-Type: application/json\r\nContent-Length: 4000\r\n\r\n{\"name\":", address)
		require.NoError(t, err)
	}
	begun := time.Now()
	assert.Equal(t, http.StatusOK, s.send("GET", "/api/v1/plans", "").StatusCode)
	assert.Equal(t, http.StatusUnprocessableEntity, s.send("POST", "/api/v1/plans", `{"title":""}`).StatusCode)
	assert.Less(t, time.Since(begun), longestWait)
}

// Bodies longer than their operation takes are refused, whole ones are not; a connection that ends within
// one is no answer at all.
func TestBodiesAreBounded(t *testing.T) {
	t.Parallel()
	s := open(t)
	assert.Equal(t, http.StatusRequestEntityTooLarge, s.send("POST", "/api/v1/session", `{"name":"`+strings.Repeat("x", usualMaxBody)+`"}`).StatusCode)
	address := strings.TrimPrefix(s.url, "http://")
	short, err := net.Dial("tcp", address)
	require.NoError(t, err)
	_, err = fmt.Fprintf(short, "POST /api/v1/session HTTP/1.1\r\nHost: %s\r\nContent-Type: application/json\r\nContent-Length: 40\r\n\r\n{}", address)
	require.NoError(t, err)
	require.NoError(t, short.(*net.TCPConn).CloseWrite())
	res, err := http.ReadResponse(bufio.NewReader(short), nil)
	require.NoError(t, err)
	said, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	assert.Equal(t, http.StatusRequestTimeout, res.StatusCode)
	assert.Contains(t, string(said), "Send it again")
}

// Room for bodies is given by network, and given back.
func TestRoomForBodies(t *testing.T) {
	t.Parallel()
	r := &room{of: map[string]int{}}
	require.True(t, r.take("one", bodiesShare))
	assert.False(t, r.take("one", 1))
	for _, other := range []string{"two", "three", "four"} {
		assert.True(t, r.take(other, bodiesShare))
	}
	assert.False(t, r.take("five", 1), "all is taken")
	r.give("one", bodiesShare)
	assert.True(t, r.take("five", bodiesShare))
	assert.NotContains(t, r.of, "one")
}
