package compare_test

import (
	"context"
	"math/rand/v2"
	"os"
	"os/exec"
	"runtime"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/attach"
	"kladotex/core/care"
	"kladotex/core/compare"
	"kladotex/core/fall"
	"kladotex/core/freeze"
	"kladotex/core/hang"
	"kladotex/core/hours"
	"kladotex/core/judge"
	"kladotex/core/need"
	"kladotex/core/pace"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/plan/plantest"
	"kladotex/core/quote"
	"kladotex/core/scalp"
	"kladotex/core/tally"
)

// hard is a random input that the program accepts or nearly does, drawn where work is
// most: small sections, rows that cross the middle, many changes by hand, dense nets.
func hard(r *rand.Rand) plan.Input {
	in := plan.Default()
	presets := scalp.Presets()
	in.Head = presets[r.IntN(len(presets))].Tapes
	s := &in.Parting
	s.Structure = parting.Structures[r.IntN(len(parting.Structures))]
	rule := parting.Rules()[r.IntN(len(parting.Rules()))]
	for _, have := range parting.Rules() {
		if have.Structure == s.Structure {
			rule = have
		}
	}
	s.Part.Kind = rule.Parts[r.IntN(len(rule.Parts))]
	s.Part.Offset, s.Part.EndOffset = float64(5+r.IntN(30)), float64(r.IntN(30))
	if r.IntN(3) == 0 {
		s.Part.Stop = float64(80 + r.IntN(160))
	}
	patterns := []parting.Pattern{parting.Brick, parting.FreeHand, parting.Grid, parting.Triangle}
	size := func() parting.Size {
		w := 5 + r.ExpFloat64()*4
		return parting.Size{Width: min(76, w), Height: min(76, w*(0.5+r.Float64()))}
	}
	for _, wish := range []*parting.Wish{&s.Front, &s.Back} {
		wish.Pattern, wish.Size = patterns[min(3, r.IntN(6))], size()
		wish.Height = max(5, wish.Height)
		wish.Ramp, wish.Along = 0.5+1.5*r.Float64(), 0.5+1.5*r.Float64()
	}
	s.Rows, s.PerSide, s.NapeGuard = 1+r.IntN(6), 1+r.IntN(30), r.IntN(2) == 0 && rule.NapeGuard
	s.Base.Kind = []parting.BaseKind{parting.Cornrows, parting.LinkedPlaits, parting.Net}[r.IntN(3)]
	s.Base.Run = []parting.Run{parting.Horizontal, parting.StraightBack, parting.Curved}[r.IntN(3)]
	s.Base.Cornrows, s.Base.SideCornrows, s.Base.Spacing = 1+r.IntN(24), 1+r.IntN(12), 5+r.ExpFloat64()*5
	place := func() parting.Direction {
		return parting.Toward(scalp.Head{A: 1, B: 1, C: 1}, scalp.Point{r.NormFloat64(), r.NormFloat64(), 0.2 + r.Float64()})
	}
	if r.IntN(2) == 0 {
		kinds := []parting.EditKind{parting.MoveRow, parting.MovePart, parting.Merge, parting.Split, parting.LeaveOut, parting.Lock}
		only := r.IntN(2 * len(kinds))
		for range 600 {
			e := parting.Edit{Kind: kinds[r.IntN(len(kinds))], At: place()}
			if only < len(kinds) {
				e.Kind = kinds[only]
			}
			switch e.Kind {
			case parting.MoveRow, parting.MovePart, parting.Merge, parting.Split:
				near := parting.Toward(scalp.Head{A: 1, B: 1, C: 1}, scalp.Point{
					e.At[0] + 0.06*r.NormFloat64(), e.At[1] + 0.06*r.NormFloat64(), e.At[2] + 0.06*r.NormFloat64()})
				e.With = &near
			}
			s.Edits = append(s.Edits, e)
		}
	}
	for range r.IntN(3) * 30 {
		s.LeftOut = append(s.LeftOut, parting.Spot{At: place(), Radius: 3 + 8*r.Float64()})
	}
	in.Pieces[0].Pack.Units, in.Uses[0].Count = 1+r.IntN(3), 6
	hands := []plan.Hand{{Key: "a", Name: "A", Hand: pace.Beginner, Does: plan.DoesBoth}, {Key: "b", Name: "B", Hand: pace.Beginner, Does: []plan.Does{plan.DoesBoth, plan.PlaitsFirst, plan.DoesPlaits}[r.IntN(3)]}}
	sittings := in.UsualSittings()
	sittings.Longest = []float64{plan.LeastSitting, 180, 480, 14 * 60}[r.IntN(4)]
	sittings.Breaks.After, sittings.Breaks.Long = float64(15+r.IntN(225)), 2
	in.OwnHead = r.IntN(2) == 0
	in.Day = &plan.Day{Within: 60, Hands: hands[:1+r.IntN(2)], Sittings: &sittings}
	return in
}

// processor is the processor time this process has used, its garbage collector's too.
func processor(b *testing.B) time.Duration {
	var used syscall.Rusage
	if err := syscall.Getrusage(syscall.RUSAGE_SELF, &used); err != nil {
		b.Fatal(err)
	}
	return time.Duration(used.Utime.Nano() + used.Stime.Nano())
}

// The slowest input of any operation, found by search among hard ones: each figure is
// the most processor time of all tried, the longest that one given up somewhere on its way
// went on, and the most memory that one asked for in all. docs/performance.md says machine and method.
func BenchmarkSlowestInputs(b *testing.B) {
	type operation = func(context.Context, plan.Input, *rand.Rand)
	of := func(facet func(context.Context, *plan.Solved)) operation {
		return func(ctx context.Context, in plan.Input, _ *rand.Rand) {
			if sol, err := plan.Solve(ctx, in); err == nil {
				facet(ctx, sol)
			}
		}
	}
	operations := map[string]operation{
		"preview":  of(func(_ context.Context, sol *plan.Solved) { _, _ = tally.Of(sol) }),
		"tradeoff": of(func(ctx context.Context, sol *plan.Solved) { _, _ = compare.TradeOff(ctx, sol) }),
		"fit": func(ctx context.Context, in plan.Input, r *rand.Rand) {
			h, err := scalp.FitWith(in.Head, in.Hairline)
			if err != nil {
				return
			}
			keep := []parting.Keep{parting.KeepNone, parting.KeepNone, parting.KeepFront, parting.KeepBack}[r.IntN(4)]
			_, _ = parting.FitCount(ctx, h, in.Parting, parting.Count{Total: 4 + r.IntN(1996), Keep: keep})
		},
		"day":     of(func(_ context.Context, sol *plan.Solved) { _, _ = hours.DayOf(sol) }),
		"quicker": of(func(ctx context.Context, sol *plan.Solved) { _, _ = compare.Quicken(ctx, sol) }),
		"drape":   of(func(ctx context.Context, sol *plan.Solved) { _, _ = hang.Of(ctx, sol, fall.Down) }),
		"landing": of(func(ctx context.Context, sol *plan.Solved) { _, _ = hang.Land(ctx, sol) }),
		"fitting": of(func(ctx context.Context, sol *plan.Solved) { _, _ = judge.Fit(ctx, sol, nil, nil) }),
		"price":   of(func(_ context.Context, sol *plan.Solved) { _, _, _ = freeze.Price(sol, quote.UsualTerms()) }),
		"supply":  of(func(_ context.Context, sol *plan.Solved) { _, _ = need.Supply(sol) }),
		"chair":   of(func(_ context.Context, sol *plan.Solved) { _, _ = freeze.ForChair(sol) }),
		"care":    of(func(_ context.Context, sol *plan.Solved) { care.Brief(sol, attach.Of(sol)) }),
	}
	for name, run := range operations {
		b.Run(name, func(b *testing.B) {
			r := rand.New(rand.NewPCG(8, 26))
			var worst, goesOn time.Duration
			var most uint64
			for b.Loop() {
				in, seed := hard(r), r.Uint64()
				again := func(ctx context.Context) { run(ctx, in, rand.New(rand.NewPCG(seed, 0))) }
				var before, after runtime.MemStats
				runtime.ReadMemStats(&before)
				used, begun := processor(b), time.Now()
				again(b.Context())
				whole := time.Since(begun)
				worst = max(worst, processor(b)-used)
				runtime.ReadMemStats(&after)
				most = max(most, after.TotalAlloc-before.TotalAlloc)

				var end time.Time
				ctx, cancel := context.WithCancel(b.Context())
				timer := time.AfterFunc(time.Duration(r.Float64()*float64(whole)), func() {
					end = time.Now()
					cancel()
				})
				again(ctx)
				if done := time.Now(); !timer.Stop() {
					<-ctx.Done()
					goesOn = max(goesOn, done.Sub(end))
				}
				cancel()
			}
			b.ReportMetric(float64(worst.Microseconds())/1000, "worst-ms")
			b.ReportMetric(float64(goesOn.Microseconds())/1000, "goes-on-ms")
			b.ReportMetric(float64(most)/(1<<20), "most-MiB")
			b.ReportMetric(0, "ns/op")
		})
	}
}

// Plans of very many small sections that two beginners work at are days of bounded work and memory. It runs in
// a process of its own with a limit on it, so that a failure ends that process and not the machine.
func TestManySmallSectionsAreABoundedDay(t *testing.T) {
	const child = "KLADOTEX_SMALL_SECTIONS"
	if os.Getenv(child) == "" {
		cmd := exec.CommandContext(t.Context(), os.Args[0], "-test.run", "^TestManySmallSectionsAreABoundedDay$")
		cmd.Env = append(os.Environ(), child+"=1")
		out, err := cmd.CombinedOutput()
		require.NoError(t, err, strings.TrimSpace(string(out)))
		return
	}
	const limit = 512 << 20
	require.NoError(t, syscall.Setrlimit(syscall.RLIMIT_DATA, &syscall.Rlimit{Cur: limit, Max: limit}))
	for _, x := range []struct {
		mm    float64
		count int
	}{{6, 1}, {7, 3}, {8, 6}} {
		in := plan.Default()
		in.Parting.Front.Size = parting.Size{Width: x.mm, Height: x.mm}
		in.Parting.Back.Size, in.Uses[0].Count = in.Parting.Front.Size, x.count
		for _, does := range []plan.Does{plan.DoesBoth, plan.PlaitsFirst} {
			in.Day = &plan.Day{Within: 60, Hands: []plan.Hand{{Key: "a", Name: "A", Hand: pace.Beginner, Does: plan.DoesBoth}, {Key: "b", Name: "B", Hand: pace.Beginner, Does: does}}}
			day, err := hours.DayOf(plantest.Solve(t, in))
			require.NoError(t, err)
			assert.Less(t, day.Alone, 3*day.Hours.Total.Likely, "breaks and tiredness, and no more")
			_, err = compare.Quicken(t.Context(), plantest.Solve(t, in))
			require.NoError(t, err)
		}
	}
}
