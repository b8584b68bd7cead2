package api

import (
	"io"
	"log/slog"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/internal/store"
)

// The bar of docs/performance.md: previews of a 300-section head over HTTP for
// fifty people at once, who wait for an answer before they ask again, at
// once or after a pause. The clients share the machine with the server.
func BenchmarkPreviewForFifty(b *testing.B) {
	s, err := store.Open(b.Context(), filepath.Join(b.TempDir(), "studio.db"))
	require.NoError(b, err)
	defer s.Close()
	server := httptest.NewServer(served(b, s, slog.New(slog.DiscardHandler), Options{}))
	defer server.Close()
	jar, err := cookiejar.New(nil)
	require.NoError(b, err)
	const people = 50
	client := &http.Client{Jar: jar, Transport: &http.Transport{MaxIdleConnsPerHost: people}}
	ask := func(path, body string) int {
		req, err := http.NewRequest("POST", server.URL+path, strings.NewReader(body))
		require.NoError(b, err)
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("Sec-Fetch-Site", "same-origin")
		res, err := client.Do(req)
		require.NoError(b, err)
		defer res.Body.Close()
		_, err = io.Copy(io.Discard, res.Body)
		require.NoError(b, err)
		return res.StatusCode
	}
	require.Equal(b, http.StatusCreated, ask("/api/v1/owner", `{"name":"Odalys","password":"`+secret+`"}`))
	in := plan.Default()
	size := parting.Size{Width: 0.6 * 25.4, Height: 0.6 * 25.4}
	in.Parting.Front.Size, in.Parting.Back.Size = size, size
	body := text(b, in)

	b.Run("one person alone", func(b *testing.B) {
		for b.Loop() {
			ask("/api/v1/preview", body)
		}
	})
	for name, pause := range map[string]time.Duration{"each a second apart": time.Second, "without a pause": 0} {
		b.Run(name, func(b *testing.B) {
			var lock sync.Mutex
			var times []time.Duration
			b.SetParallelism(people / 2) // times GOMAXPROCS, two here
			b.RunParallel(func(pb *testing.PB) {
				var own []time.Duration
				for pb.Next() {
					if pause > 0 { // a second on average, no two people in step
						time.Sleep(rand.N(2 * pause))
					}
					from := time.Now()
					if status := ask("/api/v1/preview", body); status != http.StatusOK {
						b.Errorf("status %d", status)
					}
					own = append(own, time.Since(from))
				}
				lock.Lock()
				times = append(times, own...)
				lock.Unlock()
			})
			slices.Sort(times)
			b.ReportMetric(float64(times[len(times)*95/100].Microseconds())/1000, "p95-ms")
			b.ReportMetric(float64(times[len(times)/2].Microseconds())/1000, "median-ms")
		})
	}
}
