package sheet

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/text/unicode/norm"

	"kladotex/core/fall"
	"kladotex/core/hang"
	"kladotex/core/hours"
	"kladotex/core/method"
	"kladotex/core/method/moves"
	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
	"kladotex/core/words"
)

func computed(t testing.TB, in plan.Input) Plan {
	t.Helper()
	res, err := tally.Compute(context.Background(), in)
	require.NoError(t, err)
	return Plan{Title: "Ysolde’s plan, ⅝ in – “façade”", Client: "Ysolde Abarinwe", Cautions: []string{"Fragile edges: leave the tender ones out."}, Updated: time.Date(2026, 5, 31, 9, 30, 0, 0, time.UTC), Input: in, Result: res}
}

// printed rasterises a page of the sheet at a resolution with pdftoppm and tells
// which of its dots are dark.
func printed(t *testing.T, body []byte, number, dpi int) func(x, y int) bool {
	t.Helper()
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "sheet.pdf"), body, 0o600))
	cmd := exec.CommandContext(t.Context(), "pdftoppm", "-r", fmt.Sprint(dpi), "-f", fmt.Sprint(number), "-l", fmt.Sprint(number), "-singlefile", "-gray", "-png", "sheet.pdf", "page")
	cmd.Dir = dir
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, "Debian's poppler-utils: %s", out)
	f, err := os.Open(filepath.Join(dir, "page.png"))
	require.NoError(t, err)
	defer f.Close()
	page, err := png.Decode(f)
	require.NoError(t, err)
	return func(x, y int) bool {
		r, _, _, _ := page.At(x, y).RGBA()
		return r < 0x9000
	}
}

// runs are the middles of the dark runs of a row of dots.
func runs(dark func(x, y int) bool, y, width int) (middles []float64) {
	for x := 0; x < width; x++ {
		if !dark(x, y) {
			continue
		}
		from := x
		for x < width && dark(x, y) {
			x++
		}
		middles = append(middles, float64(from+x-1)/2)
	}
	return middles
}

// PDF's unit is 1/72 in (ISO 32000), so that at 300 dots an inch an inch of the
// ruler is 300 dots, and a card as wide as its section.
func TestGaugeCardIsInTrueScale(t *testing.T) {
	t.Parallel()
	const dpi = 300
	dots := func(mm float64) float64 { return mm / 25.4 * dpi }
	for _, paper := range []string{"letter", "a4"} {
		in := plan.Default()
		in.Parting.Front.Size = parting.Size{Width: 19.05, Height: 25.4}
		in.Parting.Back.Size = parting.Size{Width: 31.75, Height: 28}
		body, err := PDF(t.Context(), computed(t, in), Style{Inches, paper, "USD"})
		require.NoError(t, err)
		dark := printed(t, body, pageWith(t, body, "Gauge cards"), dpi)

		// 7 mm under the ruler's line only the strokes of whole inches reach.
		inches := runs(dark, int(dots(rulerTop+7)), int(dots(margin+6.2*inch)))
		require.GreaterOrEqual(t, len(inches), 7)
		ticks := 0
		for _, x := range inches { // the figures beside the strokes are dark too
			for n := range 7 {
				if math.Abs(x-dots(margin)-float64(n)*dpi) <= 1 {
					ticks++
				}
			}
		}
		assert.Equal(t, 7, ticks, "%s: strokes 300 dots apart: %v", paper, inches)

		centimetres := runs(dark, int(dots(rulerTop+18+7)), int(dots(margin+151)))
		ticks = 0
		for _, x := range centimetres {
			if off := (x - dots(margin)) / dots(10); math.Abs(off-math.Round(off))*dots(10) <= 1 {
				ticks++
			}
		}
		assert.GreaterOrEqual(t, ticks, 16, "%s: 0 to 15 cm", paper)

		// The cards stand in one line: the strokes of both pairs of edges.
		edges := runs(dark, int(dots(cutTop+20)), int(dots(margin+150)))
		require.Len(t, edges, 4, "%s: two cards have four edges", paper)
		assert.InDelta(t, dots(in.Parting.Back.Width), edges[1]-edges[0], 1)
		assert.InDelta(t, dots(in.Parting.Front.Width), edges[3]-edges[2], 1)
	}
}

// textOf is what is written on a sheet, as pdftotext reads it: as it stands on the page.
func textOf(t *testing.T, body []byte) string { return readBy(t, body, "-layout") }

// readOf is what is written on a sheet in the order in which it is read, column after column.
func readOf(t *testing.T, body []byte, pages ...string) string {
	return strings.Join(strings.Fields(readBy(t, body, append(pages, "-raw")...)), " ")
}

func readBy(t *testing.T, body []byte, how ...string) string {
	t.Helper()
	cmd := exec.CommandContext(t.Context(), "pdftotext", append(how, "-", "-")...)
	cmd.Stdin = bytes.NewReader(body)
	text, err := cmd.Output()
	require.NoError(t, err)
	return string(text)
}

func TestSheetSaysWhatThePlanSays(t *testing.T) {
	t.Parallel()
	in := plan.Default()
	in.Ways[0] = plan.NewWay("w1", method.CollarAndWrap)
	p := computed(t, in)
	body, err := PDF(t.Context(), p, Style{Inches, "letter", "EUR"})
	require.NoError(t, err)
	again, err := PDF(t.Context(), p, Style{Inches, "letter", "EUR"})
	require.NoError(t, err)
	assert.True(t, bytes.Equal(body, again), "the same plan makes the same sheet")

	text := readOf(t, body)
	for _, says := range []string{
		p.Title, "For Ysolde Abarinwe", "Collar and wrap", "Back right", "Gauge card", "To buy",
		fmt.Sprint(p.Result.Tally.Sections), money(p.Result.Tally.Cost, "EUR"), words.Minutes(p.Result.Hours.Total.Likely),
		"leave a tail of 2½ in", "Fragile edges", "Row guide", "wrapping hair", "ask a clinician",
	} {
		assert.Contains(t, text, says)
	}
	assert.NotContains(t, text, "{", "every length is put in")
}

// Names of every alphabet are printed as they are written, and what no font has is left
// out: a name never keeps a sheet from being made.
func TestNamesOfManyAlphabetsOnPaper(t *testing.T) {
	t.Parallel()
	names := map[string]string{
		"Yoruba": "Ọlá Ṣadé Ẹ̀bùn", "Vietnamese": "Nguyễn Thảo Hường", "Hawaiian": "Kaʻiulani Māhealani", "Hausa": "Ɗan ƙarami Ɓala",
		"Greek": "Ζωή Παπαδάκη", "Cyrillic": "Ольга Žižková", "arrows": "A → B", "Icelandic": "Þórdís Æsa",
	}
	for alphabet, name := range names {
		p := computed(t, plan.Default())
		p.Title, p.Client = name, name+" 👩🏾‍🦱🎉"
		body, err := PDF(t.Context(), p, Style{Inches, "a4", "EUR"})
		require.NoError(t, err, alphabet)
		text := textOf(t, body)
		assert.Contains(t, norm.NFC.String(text), norm.NFC.String(name), alphabet)
		assert.Contains(t, norm.NFC.String(text), norm.NFC.String("For "+name), alphabet)
		// A letter without a glyph is drawn as a box: none is.
		for _, r := range runsOf(name) {
			for _, letter := range r.text {
				glyph, err := glyphs()[r.face].GlyphIndex(new(sfnt.Buffer), letter)
				require.NoError(t, err)
				assert.NotZero(t, glyph, "%s: %c", alphabet, letter)
			}
		}
	}
	for _, title := range []string{"🎉", "👩🏾‍🦱 the cellist 🎻", "漢字", "\u0000\u202e", "a\nb\tc", strings.Repeat("ễ", 120), strings.Repeat("🎉", 120)} {
		p := computed(t, plan.Default())
		p.Title, p.Client = title, title
		p.Input.Pieces[0].Name = title
		body, err := PDF(t.Context(), p, Style{Centimetres, "letter", "GBP"})
		require.NoError(t, err, "%q", title)
		assert.Greater(t, len(body), 10_000)
	}
	// From right to left: the first letter stands on the right.
	assert.Equal(t, []run{{1, "הנח"}}, runsOf("חנה"))
}

// whole is a plan with all that a sheet has parts for.
func whole(t testing.TB, in plan.Input) Plan {
	t.Helper()
	p, sol := computed(t, in), solved(t, in)
	day, err := hours.DayOf(sol)
	require.NoError(t, err)
	drape, err := hang.Of(t.Context(), sol, fall.Down)
	require.NoError(t, err)
	landings, err := hang.Land(t.Context(), sol)
	require.NoError(t, err)
	p.Day, p.Drape, p.Landings = &day, &drape, &landings
	return p
}

// dense is a head of 116 sections whose hairline is woven more closely than the rest.
func dense() plan.Input {
	in := plan.Default()
	in.Parting.Front.Pattern, in.Parting.Front.Size = parting.Grid, parting.Size{Width: 19.05, Height: 19.05}
	in.Parting.Back.Pattern, in.Parting.Back.Size = parting.Grid, parting.Size{Width: 25.4, Height: 25.4}
	closer := plan.NewWay("closer", method.HitchAndWeave)
	closer.Settings["pitchMm"] = 25.4
	in.Ways = append(in.Ways, closer)
	in.Uses = append(in.Uses, plan.Use{Where: plan.Where{Kind: plan.AtHairline}, Way: closer.Key})
	return in
}

// A sheet one would pay for: eight pages at the most, each at least a third full, no heading at a
// foot, no sum alone on top; all for the chair on the first; a method told once.
func TestThePlanSheetIsWorthItsPaper(t *testing.T) {
	t.Parallel()
	plans := map[string]plan.Input{"dense": dense(), "default": plan.Default()}
	for _, s := range []parting.Structure{parting.EarToEar, parting.NetCap, parting.Linked} {
		in := plan.Default()
		in.Parting = in.Parting.On(s)
		plans[string(s)] = in
	}
	family := map[method.Family]bool{}
	for i, m := range method.Catalogue {
		if m.On(method.OnPlait) && !family[m.Family] {
			family[m.Family] = true
			in := plan.Default()
			in.Ways[0] = plan.NewWay("w1", m.ID)
			in.Pieces[0].Form = m.Takes[0]
			in.Parting.Front.Ramp = 1.2
			in.OwnHead = i%2 == 0
			plans[string(m.ID)] = in
		}
	}
	titles := regexp.MustCompile(`^(To buy|Before|Sittings|Hours|Parting: .*|Before the first piece|To take it off|After the last piece|How it hangs|Row guide|.*, each side|Look out for|What goes where|Rows, in working order|[A-Z]?.*, \d+ pieces)$`)
	for name, in := range plans {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			p := whole(t, in)
			style := Style{Inches, "letter", "USD"}
			if in.OwnHead {
				style = Style{Centimetres, "a4", "GBP"}
			}
			body, err := PDF(t.Context(), p, style)
			require.NoError(t, err)
			pages := strings.Split(strings.TrimSuffix(textOf(t, body), "\f"), "\f")
			assert.LessOrEqual(t, len(pages), 8)
			assert.Contains(t, pages[1], "To buy", "what the chair needs is one page")
			for n, page := range pages {
				lines := slices.DeleteFunc(strings.Split(page, "\n"), func(l string) bool { return strings.TrimSpace(l) == "" })
				last := strings.TrimSpace(lines[len(lines)-2]) // above the footer
				assert.NotRegexp(t, titles, last, "page %d ends with a heading", n+1)
				assert.NotRegexp(t, `^(All, without breaks|In all)`, strings.TrimSpace(lines[0]), "page %d begins with a sum", n+1)
			}
			for n, full := range fullness(t, body) {
				assert.Greater(t, full, 1.0/3, "page %d", n+1)
			}
			chair := readOf(t, body, "-l", "1")
			for _, says := range []string{"What goes where", "Hours", "Look out for", "Rows, in working order", "ask a clinician", fmt.Sprint(p.Result.Tally.Pieces)} {
				assert.Contains(t, chair, says)
			}
			for _, r := range p.Day.Rows {
				assert.Contains(t, chair, fmt.Sprintf("%d %s", r.Number, r.Name))
			}
			assert.LessOrEqual(t, strings.Count(strings.Join(pages, ""), "Usual mistake"), 2, "a method is told once")
		})
	}
}

// fullness is how far down each page is written on, as a share of what is between its margins.
func fullness(t *testing.T, body []byte) (shares []float64) {
	t.Helper()
	const dpi = 30
	dots := func(mm float64) int { return int(mm / 25.4 * dpi) }
	from, to := dots(margin), dots(279.4-margin-6)
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "sheet.pdf"), body, 0o600))
	cmd := exec.CommandContext(t.Context(), "pdftoppm", "-r", fmt.Sprint(dpi), "-gray", "-png", "sheet.pdf", "page")
	cmd.Dir = dir
	require.NoError(t, cmd.Run())
	files, err := filepath.Glob(filepath.Join(dir, "page*.png"))
	require.NoError(t, err)
	for _, file := range files {
		f, err := os.Open(file)
		require.NoError(t, err)
		page, err := png.Decode(f)
		require.NoError(t, err)
		require.NoError(t, f.Close())
		y := to
		for y > from && !inked(page, y) {
			y--
		}
		shares = append(shares, float64(y-from)/float64(to-from))
	}
	return shares
}

// inked tells whether anything stands in a row of dots.
func inked(page image.Image, y int) bool {
	for x := range page.Bounds().Dx() {
		if r, _, _, _ := page.At(x, y).RGBA(); r < 0xb000 {
			return true
		}
	}
	return false
}

// What is not asked for is not printed, and what is stands as in the whole.
func TestPartsOfTheSheetArePrintedAlone(t *testing.T) {
	t.Parallel()
	p := whole(t, plan.Default())
	for part, says := range map[Part]string{AtTheChair: "Rows, in working order", ToBuy: "To buy", Steps: "To take it off", Hang: "How it hangs", RowGuide: "Row guide", CutOut: "Gauge cards"} {
		body, err := PDF(t.Context(), p, Style{Inches, "letter", "USD"}, part)
		require.NoError(t, err)
		text := textOf(t, body)
		assert.Contains(t, text, says)
		for other, says := range map[Part]string{AtTheChair: "What goes where", ToBuy: "To buy", Steps: "Usual mistake", Hang: "How it hangs", RowGuide: "Row guide", CutOut: "Row tapes:"} {
			assert.Equal(t, other == part, strings.Contains(text, says), "%s in %s", other, part)
		}
	}
}

// The steps are drawn on paper where they are told: pictures stand in their frames, dark
// hair on light paper, and as many as the steps have.
func TestStepsAreDrawnOnPaper(t *testing.T) {
	t.Parallel()
	body, err := PDF(t.Context(), computed(t, plan.Default()), Style{Inches, "letter", "USD"})
	require.NoError(t, err)
	const dpi = 100
	dark := printed(t, body, pageWith(t, body, "Hitch and weave"), dpi)
	dots := func(mm float64) int { return int(mm / 25.4 * dpi) }
	// The strip of scalp on top of a picture is a dark run as wide as the picture.
	strips := 0
	for y := dots(30); y < dots(260); y++ {
		run := 0
		for x := dots(margin + 9); x < dots(margin+8+moveWide-1); x++ {
			if dark(x, y) {
				run++
			}
		}
		if run > dots(moveWide*0.75) {
			strips++
			y += dots(moveWide*moveShape) - 2 // on to below this picture
		}
	}
	assert.GreaterOrEqual(t, strips, 3, "a row of pictures under each step that is drawn")
}

func TestPicturesOfAStepAreThoseNotYetShown(t *testing.T) {
	t.Parallel()
	hitch := func(first, last int) *moves.Clip {
		return &moves.Clip{Figure: moves.RootHitch, First: first, Last: last}
	}
	assert.Nil(t, stills(nil, nil))
	assert.Equal(t, []int{0, 1}, stills(hitch(0, 1), nil))
	assert.Equal(t, []int{2}, stills(hitch(1, 2), hitch(0, 1)))
	assert.Equal(t, []int{1, 2}, stills(hitch(1, 2), hitch(0, 0)))
	assert.Equal(t, []int{0}, stills(hitch(0, 0), hitch(0, 0)), "a step of one picture keeps it")
	assert.Equal(t, []int{0, 1}, stills(&moves.Clip{Figure: moves.Weave, Last: 1}, hitch(0, 0)))
}

func TestLengthsAsStylistsReadThem(t *testing.T) {
	t.Parallel()
	for mm, want := range map[float64]string{25.4: "1 in", 19.05: "¾ in", 317.5: "12½ in", 0.2: "0 in", 28.575: "1⅛ in"} {
		assert.Equal(t, want, Inches.Length(mm))
	}
	assert.Equal(t, "1⅛", Inches.comb(28))
	assert.Equal(t, "2.8", Centimetres.comb(28.6))
	assert.Equal(t, "31.8 cm", Centimetres.Length(317.5))
	assert.Equal(t, "7 h 5 min", words.Minutes(426))
	assert.Equal(t, "59 min", words.Minutes(59.4))
	assert.Equal(t, "1 h", words.Minutes(59.6))
	// As on the screen; see units.test.ts.
	for mm, want := range map[float64][2]string{8.5: {"0.9 cm", "⅜ in"}, 2.5: {"0.3 cm", "⅛ in"}, 64.5: {"6.5 cm", "2½ in"}, 0.4: {"0 cm", "0 in"}} {
		assert.Equal(t, want, [2]string{Centimetres.Length(mm), Inches.Length(mm)})
	}
	for minutes, want := range map[float64]string{62.4: "1 h", 62.5: "1 h 5 min", 67.4: "1 h 5 min"} {
		assert.Equal(t, want, words.Minutes(minutes))
	}
}

// Currencies have the digits ISO 4217 gives them.
func TestMoneyFollowsItsCurrency(t *testing.T) {
	t.Parallel()
	assert.Equal(t, "€12.50", money(1250, "EUR"))
	assert.Equal(t, "¥1,250", money(1250, "JPY"))
	assert.Equal(t, "-$1.00", money(-100, "USD"))
}

func TestASheetGivenUpIsNotWritten(t *testing.T) {
	t.Parallel()
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	_, err := PDF(ctx, computed(t, plan.Default()), Style{Inches, "letter", "USD"})
	assert.ErrorIs(t, err, context.Canceled)
}

// The sheets with most to draw; goes-on-ms is the longest that one given up somewhere
// on its way went on. docs/performance.md says machine and method.
func BenchmarkSheets(b *testing.B) {
	sections := plan.Default()
	sections.Parting.Front.Size, sections.Parting.Back.Size = parting.Size{Width: 6.2, Height: 6.2}, parting.Size{Width: 6.2, Height: 6.2}
	net := plan.Default()
	net.Parting.Structure, net.Parting.Base.Kind, net.Parting.Base.Spacing = parting.NetCap, parting.Net, 5
	for name, in := range map[string]plan.Input{"sections": sections, "net": net} {
		p := computed(b, in)
		b.Run(name, func(b *testing.B) {
			r := rand.New(rand.NewPCG(8, 26))
			var whole, goesOn time.Duration
			for b.Loop() {
				begun := time.Now()
				_, err := PDF(b.Context(), p, Style{Inches, "letter", "USD"})
				require.NoError(b, err)
				whole = max(whole, time.Since(begun))

				var end time.Time
				ctx, cancel := context.WithCancel(b.Context())
				timer := time.AfterFunc(time.Duration(r.Float64()*float64(whole)), func() {
					end = time.Now()
					cancel()
				})
				_, err = PDF(ctx, p, Style{Inches, "letter", "USD"})
				if done := time.Now(); !timer.Stop() && err != nil {
					<-ctx.Done()
					goesOn = max(goesOn, done.Sub(end))
				}
				cancel()
			}
			b.ReportMetric(float64(len(p.Result.Layout.Sections)), "sections")
			b.ReportMetric(float64(whole.Microseconds())/1000, "whole-ms")
			b.ReportMetric(float64(goesOn.Microseconds())/1000, "goes-on-ms")
			b.ReportMetric(0, "ns/op")
		})
	}
}
