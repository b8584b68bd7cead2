package e2e

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// atTheHead opens the parting of a demo plan in a window of the given size.
func atTheHead(t *testing.T, title string, width, height int, flags ...string) tab {
	t.Helper()
	b := open(t, width, height, flags...)
	address := start(t, "demo", "-db", filepath.Join(t.TempDir(), "demo.db"))
	b.enterDemo(address, "")
	b.openPlan(address, title, "parting")
	return b
}

// place is the middle of the first element that a selector finds, in the window.
func (b tab) place(selector string) (x, y float64) {
	b.t.Helper()
	b.waitFor(`document.querySelector(` + strconv.Quote(selector) + `)`)
	at := value[[]float64](b, `(() => { const r = document.querySelector(`+strconv.Quote(selector)+`).getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`)
	return at[0], at[1]
}

// drag moves the mouse through points with its button down.
func (b tab) drag(points ...[2]float64) {
	b.t.Helper()
	first, last := points[0], points[len(points)-1]
	b.do(chromedp.MouseEvent(chromedp.MousePressed, first[0], first[1], chromedp.ButtonLeft))
	for i := 1; i < len(points); i++ {
		from, to := points[i-1], points[i]
		const steps = 6
		for k := 1; k <= steps; k++ {
			f := float64(k) / steps
			b.do(chromedp.MouseEvent(chromedp.MouseMoved, from[0]+f*(to[0]-from[0]), from[1]+f*(to[1]-from[1]), chromedp.ButtonLeft))
		}
	}
	b.do(chromedp.MouseEvent(chromedp.MouseReleased, last[0], last[1], chromedp.ButtonLeft))
}

// pick taps a section of the big head.
func (b tab) pick(id string) {
	b.t.Helper()
	at := `document.querySelector('[data-section="` + id + `"]')`
	b.waitFor(at)
	value[bool](b, `(`+at+`.dispatchEvent(new MouseEvent("click", {bubbles: true})), true)`)
}

// choose takes a structure.
func (b tab) choose(structure string) {
	b.t.Helper()
	value[bool](b, `(document.querySelector("input[name=structure][value='`+structure+`']").click(), true)`)
}

func (b tab) sections() int {
	b.t.Helper()
	n, err := strconv.Atoi(b.tally("sections"))
	require.NoError(b.t, err)
	return n
}

func (b tab) waitForSections(n int) {
	b.t.Helper()
	b.waitFor(fmt.Sprintf(`document.querySelector('[data-tally=sections] dd span')?.innerText === "%d"`, n))
}

const (
	says  = `document.body.innerText.includes`
	notes = `[...document.querySelectorAll("h2")].find((h) => h.innerText === "By hand").parentElement.innerText`
)

// From individuals all over to a horseshoe with merged tracks: the structure, its part
// line and its base are chosen, and what it saves is seen.
func TestChoosingAStructure(t *testing.T) {
	b := atTheHead(t, "The lighthouse technician, long thick hair", 1280, 800)
	whole := b.sections()
	b.waitFor(says + `("What a structure saves against individuals all over")`)

	b.choose("horseshoe")
	b.waitFor(says + `("Rows on each side")`)
	b.waitFor(says + `("tails are left to tuck or stitch")`)
	assert.Less(t, b.sections(), whole/2)
	b.press(".ant-segmented-item", "Curved")
	b.press(".ant-segmented-item", "Straight back")
	value[bool](b, `([...document.querySelectorAll("label")].find((l) => l.innerText.includes("merge into fewer")).querySelector("[role=switch]").click(), true)`)
	b.waitFor(says + `(" into T")`)
	b.press(".ant-segmented-item", "Chained")
	b.waitFor(says + `("3 tails are left")`) // one behind, one on each side

	// Levels leave no room for a base: it is said, with what works.
	b.press(".ant-segmented-item", "Levels")
	b.waitFor(says + `("levels go with individuals all over")`)
	b.press(".ant-segmented-item", "Side")
	b.waitFor(says + `("1 in to her left")`)
	b.waitFor(`!` + says + `("levels go with individuals all over")`)
	b.waitFor(isSaved)

	// More tracks than fit are refused with the number that does.
	b.write("Tracks behind", "40")
	b.waitFor(`/up to \d+ fit on this head/.test(document.body.innerText)`)
	b.write("Tracks behind", "9")
	b.waitFor(`!/up to \d+ fit on this head/.test(document.body.innerText)`)
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.waitFor(says + `("3 tails are left")`)

	b.choose("perimeter")
	b.waitFor(says + `("Hairline ring")`)
	b.choose("all")
	b.press(".ant-segmented-item", "Levels")
	b.waitFor(says + `("Rings")`)
	b.press(".ant-segmented-item", "Stagger")
	b.waitFor(says + `("A quarter off or more")`)
	b.press("button", "At the mirror: row guide")
	b.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("From the front centre, along the scalp")`)
}

// A head is changed by hand: joined, dragged, painted and locked; the changes are kept,
// hold when the size changes, and are reported when they do not.
func TestWorkingByHand(t *testing.T) {
	b := atTheHead(t, "The lighthouse technician, long thick hair", 1280, 800, "force-prefers-reduced-motion")
	n := b.sections()
	b.press(".ant-segmented-item", "Sections")

	// Two sections joined, on both sides.
	b.pick("BL3.2")
	b.pick("BL3.3")
	b.waitFor(says + `("2 picked")`)
	b.press("button", "Join")
	b.waitForSections(n - 2)
	b.waitFor(notes + `.includes("Sections joined")`)
	b.press("button", "Pick none")

	// The line above the third row dragged up, by mouse and by key.
	row := `g[aria-label="Back left: line above row 3"]`
	x, y := b.place(row)
	b.drag([2]float64{x, y}, [2]float64{x, y - 14})
	b.waitFor(notes + `.includes("Row line moved")`)
	b.waitFor(isSaved)
	_, moved := b.place(row)
	assert.InDelta(t, y-14, moved, 9, "the line follows the mouse")
	value[bool](b, `(document.querySelector('`+row+`').focus(), true)`)
	b.do(chromedp.KeyEvent(kb.ArrowDown))
	b.waitFor(fmt.Sprintf(`(() => { const r = document.querySelector('%s').getBoundingClientRect(); return r.y + r.height / 2 > %v })()`, row, moved+0.5))

	// Several picked by drawing round them, then locked: they stay.
	x, y = b.place(`[data-section="BL5.2"]`)
	b.drag([2]float64{x - 50, y - 45}, [2]float64{x + 50, y - 45}, [2]float64{x + 50, y + 40}, [2]float64{x - 50, y + 40}, [2]float64{x - 50, y - 40})
	b.waitFor(`/[1-9]\d* picked/.test(document.body.innerText)`)
	b.press("button", "Lock")
	b.waitFor(notes + `.includes("Locked")`)
	b.press("button", "Leave out")
	b.waitFor(says + `("is locked; unlock it first")`)
	b.do(chromedp.Click(chromedp.CSS(`[aria-label="Undo"]`)))
	b.waitFor(`!` + says + `("is locked; unlock it first")`)

	// By key: the section in focus picked, given two pieces, split.
	pieces := b.tally("pieces")
	value[bool](b, `(document.querySelector('[data-section="BL2.2"]').focus(), true)`)
	b.do(chromedp.KeyEvent(kb.Enter))
	b.waitFor(says + `("1 picked")`)
	b.do(chromedp.KeyEvent("+"))
	b.waitFor(`document.querySelector('[data-tally=pieces] dd span').innerText !== "` + pieces + `"`)
	b.do(chromedp.KeyEvent("s"))
	b.waitForSections(n)
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.waitForSections(n)
	b.waitFor(notes + `.includes("Section split")`)

	// A spot painted out, on one side.
	b.press(".ant-segmented-item", "Leave out")
	b.waitFor(says + `("Other side too")`)
	x, y = b.place(`[data-section="BL4.2"]`)
	b.drag([2]float64{x, y}, [2]float64{x + 12, y}, [2]float64{x + 12, y + 14}, [2]float64{x - 14, y + 14}, [2]float64{x - 14, y - 14}, [2]float64{x + 12, y - 14})
	b.waitFor(`/[1-9]\d* sections? (is|are) left out/.test(document.body.innerText)`)
	assert.Less(t, b.sections(), n)
	b.waitFor(notes + `.includes("Spot left out")`)

	// Larger sections keep the changes; with tracks behind, what no longer fits is told,
	// with a choice.
	b.write("Back section size", "1 3/8")
	b.waitFor(isSaved)
	assert.Contains(t, value[string](b, notes), "Row line moved")
	b.choose("ear-to-ear")
	b.waitFor(notes + `.includes("No section lies here any more")`)
	value[bool](b, `([...document.querySelectorAll("button")].find((e) => /^Take (it|them) out$/.test(e.innerText)).click(), true)`)
	b.waitFor(`!/changes? no longer fits?/.test(document.body.innerText)`)
	b.choose("all")
	b.press("button", "Take all back")
	b.waitFor(notes + `.includes("Nothing yet")`)

	// The hairline lifted at the front centre: another scalp under hair.
	scalp := `[...document.querySelectorAll("dt")].find((e) => e.innerText === "Scalp in sections").nextSibling.innerText`
	before := value[string](b, scalp)
	b.press(".ant-segmented-item", "Hairline")
	value[bool](b, `(document.querySelectorAll("button[class*=still]")[4].click(), true)`)
	time.Sleep(300 * time.Millisecond) // the head turns to the front
	x, y = b.place(`g[aria-label="Front centre"]`)
	b.drag([2]float64{x, y}, [2]float64{x, y - 25})
	b.waitFor(scalp + ` !== "` + before + `"`)
	b.waitFor(says + `("Her hairline is drawn as it was dragged")`)
	b.waitFor(isSaved)
}

// The same without a mouse, on a tablet with its keyboard: the tool taken, sections
// found, picked, joined, left out, locked, lines and hairline moved, and all undone.
func TestWorkingByHandWithKeysAlone(t *testing.T) {
	b := atTheHead(t, "The lighthouse technician, long thick hair", 820, 1180, "force-prefers-reduced-motion")
	n := b.sections()
	keys := func(list ...string) {
		for _, key := range list {
			b.do(chromedp.KeyEvent(key))
		}
	}
	in := func(selector string) { b.waitFor(`document.activeElement.matches('` + selector + `')`) }
	// walk goes on with Tab, or with Shift back, until it stands on what selector finds.
	walk := func(selector string, held ...chromedp.KeyOption) {
		for range 60 {
			if value[bool](b, `document.activeElement.matches('`+selector+`')`) {
				return
			}
			b.do(chromedp.KeyEvent(kb.Tab, held...))
		}
		t.Fatalf("Tab does not lead to %s", selector)
	}
	back := chromedp.KeyModifiers(chromedp.ModifierShift)
	const tool = `[aria-label="What a finger on the head does"] input`
	walk(tool)
	keys(kb.ArrowRight)
	b.waitFor(says + `("Other side too")`)
	walk("[data-head]")
	keys("2")
	walk("[data-section]")

	// To the third row, where a section and its neighbour are joined.
	here := func() string { return value[string](b, `document.activeElement.dataset.section ?? ""`) }
	first := here()
	keys(kb.ArrowUp, kb.ArrowUp)
	b.waitFor(`document.activeElement.dataset.section !== ` + strconv.Quote(first))
	picked := here()
	keys(kb.Enter)
	b.waitFor(says + `("1 picked")`)
	keys(kb.ArrowLeft) // away from the middle
	b.waitFor(`document.activeElement.dataset.section !== ` + strconv.Quote(picked))
	keys(kb.Enter)
	b.waitFor(says + `("2 picked")`)
	keys("j")
	b.waitForSections(n - 2)
	b.waitFor(notes + `.includes("Sections joined")`)

	// A whole row locked: what is locked is not left out.
	in("[data-section]")
	keys("r")
	b.waitFor(`/[3-9] picked/.test(document.body.innerText)`)
	keys("l")
	b.waitFor(notes + `.includes("Locked")`)
	keys("o")
	b.waitFor(says + `("is locked; unlock it first")`)
	assert.Equal(t, n-2, b.sections())
	for range 3 { // the refused, the lock and the join
		undo := value[string](b, notes)
		b.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
		b.waitFor(notes + ` !== ` + strconv.Quote(undo) + ` || ` + notes + `.includes("Nothing yet")`)
	}
	b.waitForSections(n)
	b.waitFor(notes + `.includes("Nothing yet")`)

	// A row line, by its dot.
	walk("[data-section]")
	keys(kb.Enter)
	walk(`[data-handle="row"]`)
	keys(kb.ArrowUp, kb.ArrowUp)
	b.waitFor(notes + `.includes("Row line moved")`)
	b.waitFor(isSaved)

	// The hairline at the front.
	walk(tool, back)
	keys(kb.ArrowRight, kb.ArrowRight)
	walk("[data-head]")
	keys("5")
	b.waitFor(`document.querySelector('g[aria-label="Front centre"]')`)
	walk(`g[aria-label="Front centre"]`)
	keys(kb.ArrowUp, kb.ArrowUp)
	b.waitFor(says + `("Her hairline is drawn as it was dragged")`)
	b.waitFor(isSaved)
}

// touch moves a finger through points of the window.
func (b tab) touch(points ...[2]float64) {
	b.t.Helper()
	send := func(kind input.DispatchTouchEventType, at ...*input.TouchPoint) {
		_, err := chromedp.Call(b.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: at})
		require.NoError(b.t, err)
	}
	first := points[0]
	send("touchStart", &input.TouchPoint{X: first[0], Y: first[1]})
	for i := 1; i < len(points); i++ {
		from, to := points[i-1], points[i]
		const steps = 6
		for k := 1; k <= steps; k++ {
			f := float64(k) / steps
			send("touchMove", &input.TouchPoint{X: from[0] + f*(to[0]-from[0]), Y: from[1] + f*(to[1]-from[1])})
		}
	}
	send("touchEnd")
}

// At the chair, with a finger on a tablet: the head is turned, sections are picked and
// joined, a line is dragged, a sore spot is painted out.
func TestWorkingByHandWithAFinger(t *testing.T) {
	b := atTheHead(t, "The lighthouse technician, long thick hair", 820, 1180, "force-prefers-reduced-motion", "touch-events")
	_, err := chromedp.Call(b.ctx, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true})
	require.NoError(t, err)
	n := b.sections()
	at := func(selector string) [2]float64 {
		x, y := b.place(selector)
		return [2]float64{x, y}
	}
	section := func(id string) [2]float64 { return at(`[data-section="` + id + `"]`) }

	// Turned under the finger; the page does not scroll with it.
	before := section("BL4.2")
	b.touch(before, [2]float64{before[0] - 60, before[1] + 30})
	b.waitFor(fmt.Sprintf(`document.querySelector('[data-section="BL4.2"]').getBoundingClientRect().x < %v`, before[0]-60))
	assert.Zero(t, value[float64](b, `window.scrollY + [...document.querySelectorAll("*")].reduce((sum, e) => sum + e.scrollTop, 0)`))
	b.press("button", "Back 2")

	b.press(".ant-segmented-item", "Sections")
	b.waitFor(says + `("Other side too")`)
	time.Sleep(400 * time.Millisecond) // the head comes to rest
	still := section("BL3.3")
	b.touch(section("BL3.2"))
	b.waitFor(says + `("1 picked")`)
	assert.Equal(t, still, section("BL3.3"), "the head stays where it is under the finger")
	b.touch(section("BL3.3"))
	b.waitFor(says + `("2 picked")`)
	for _, name := range []string{"Join", "Leave out", "Lock", "Whole row"} {
		size := value[[]float64](b, `(() => { const r = [...document.querySelectorAll("[role=toolbar] button")].find((e) => e.innerText === "`+name+`").getBoundingClientRect(); return [r.width, r.height] })()`)
		assert.GreaterOrEqual(t, min(size[0], size[1]), 44.0, "%s is as large as a fingertip", name)
	}
	b.press("button", "Join")
	b.waitForSections(n - 2)

	line := at(`g[aria-label="Back left: line above row 3"]`)
	b.touch(line, [2]float64{line[0], line[1] - 14})
	b.waitFor(notes + `.includes("Row line moved")`)

	b.press(".ant-segmented-item", "Leave out")
	b.waitFor(says + `("Paint what stays loose")`)
	spot := section("BL5.2")
	b.touch(spot, [2]float64{spot[0] + 12, spot[1]}, [2]float64{spot[0] - 12, spot[1] + 10}, [2]float64{spot[0] - 12, spot[1] - 10}, [2]float64{spot[0] + 12, spot[1] - 10})
	b.waitFor(`/[1-9]\d* sections? (is|are) left out/.test(document.body.innerText)`)
	assert.Less(t, b.sections(), n-2)
	b.waitFor(isSaved)
}

// A head is read before it is parted: by what its colours and marks say, by the numbers
// at the rows' ends and side by side, and by what there is to look at.
func TestReadingALayout(t *testing.T) {
	b := atTheHead(t, "The cellist, a hairline that shows", 1280, 800, "force-prefers-reduced-motion")
	n := b.sections()
	const legend = `[...document.querySelectorAll("[class*=legend] li")].filter((e) => e.querySelector("small"))`
	for _, reading := range []string{"Size", "Zone", "Row", "Stagger", "Neatness"} {
		b.press(".ant-segmented-item", reading)
		b.waitFor(legend + `.length > 0`)
		sum := value[int](b, legend+`.reduce((sum, e) => sum + Number(e.querySelector("small").innerText), 0)`)
		assert.Equal(t, n, sum, "every section has one meaning by %s", reading)
		marks := value[[]string](b, `[...new Set([...document.querySelectorAll("[data-head] text[class*=mark]")].map((e) => e.textContent))]`)
		told := value[[]string](b, legend+`.map((e) => e.querySelector("span").innerText)`)
		assert.NotEmpty(t, marks, reading)
		assert.Subset(t, told, marks, "what is written on the head by %s stands in the legend", reading)
		slices.Sort(told)
		assert.Len(t, slices.Compact(told), value[int](b, legend+`.length`), "no mark means two things by %s", reading)
	}

	// The numbers at the rows' ends are those of the table, on both sides.
	rows := value[[]string](b, `[...document.querySelectorAll("td[class*=rows]")].map((e) => e.innerText)`)
	require.GreaterOrEqual(t, len(rows), 4)
	assert.Equal(t, rows[0], rows[1], "left and right alike")
	ends := value[[]string](b, `[...document.querySelectorAll("[data-head] g > title")].filter((e) => e.textContent.startsWith("Back left")).map((e) => e.parentElement.querySelector("text").textContent)`)
	assert.NotEmpty(t, ends)
	assert.Subset(t, strings.Split(rows[0], " · "), ends)

	// A side part: left and right are counted apart.
	const balance = `[...[...document.querySelectorAll("tr")].find((e) => e.cells[0].innerText === "Front").cells].slice(1).map((e) => parseInt(e.innerText))`
	even := value[[]int](b, balance)
	assert.Equal(t, even[0], even[len(even)-1])
	b.press(".ant-segmented-item", "Side")
	b.waitFor(says + `("to her left")`)
	b.waitFor(`(() => { const counts = ` + balance + `; return counts[0] !== counts[counts.length - 1] })()`)

	// What there is to look at is shown where it is, and turned to.
	b.press("button", "Front 5")
	value[bool](b, `(document.querySelector("[data-tally=warnings]").click(), true)`)
	b.waitFor(says + `("Small sections")`)
	value[bool](b, `([...document.querySelectorAll("[class*=warnings] li")].find((e) => e.innerText.includes("Small sections")).querySelector("button").click(), true)`)
	b.waitFor(`document.querySelectorAll("[data-head] [class*=marked] path").length > 0`)
	b.press("button", "Hide the marks")
	b.waitFor(`document.querySelectorAll("[data-head] [class*=marked] path").length === 0`)
}

// What can not be is said at its control, with what would work; the head stays as it was
// and the plan is saved again once it can be.
func TestWishesThatContradict(t *testing.T) {
	b := atTheHead(t, "The cellist, a hairline that shows", 1280, 800, "force-prefers-reduced-motion")
	n := b.sections()
	refused := func(part string) {
		t.Helper()
		b.waitFor(`[...document.querySelectorAll("main [role=alert]")].some((e) => e.innerText.includes("` + part + `"))`)
		assert.Equal(t, n, b.sections(), "the head stays")
		b.waitFor(`document.querySelector("[data-save=refused]")`)
	}
	undo := func() {
		t.Helper()
		b.do(chromedp.Click(chromedp.CSS(`[aria-label="Undo"]`)))
		b.waitForSections(n)
		b.waitFor(isSaved)
	}

	// A zone left out whole: its last section stays, and it is said.
	b.press(".ant-segmented-item", "Sections")
	b.pick("BL2.1")
	b.press("button", "Whole zone")
	b.press("button", "Leave out")
	b.waitFor(says + `("2 changes no longer fit")`)
	b.waitFor(notes + `.includes("the last of its zone; something must stay")`)
	b.waitFor(isSaved)
	undo()

	// More rows than a ring has room for.
	b.choose("perimeter")
	b.waitFor(says + `("Hairline ring")`)
	before := b.tally("sections")
	b.write("Section size", "1 1/2")
	b.waitFor(`document.querySelector("[data-tally=sections] dd span").innerText !== "` + before + `"`)
	b.waitFor(isSaved)
	n = b.sections()
	b.write("Rows round the hairline", "4")
	refused("fit on this head")
	undo()
}

// Her own hairline: a high forehead and receding temples are set on the head, the nape
// with its tape, fragile edges left out; all of it is kept, and taken back.
func TestHerOwnHairline(t *testing.T) {
	b := atTheHead(t, "The cellist, a hairline that shows", 1280, 800, "force-prefers-reduced-motion")
	const scalp = `[...document.querySelectorAll("dt")].find((e) => e.innerText === "Scalp in sections").nextSibling.innerText`
	area := func() float64 {
		v, err := strconv.ParseFloat(strings.Fields(value[string](b, scalp))[0], 64)
		require.NoError(t, err)
		return v
	}
	smaller := func(than float64) {
		t.Helper()
		b.waitFor(fmt.Sprintf(`parseFloat(%s) < %v`, scalp, than))
	}
	drag := func(label string, dx, dy float64) {
		t.Helper()
		x, y := b.place(`g[aria-label^="` + label + `"]`)
		b.drag([2]float64{x, y}, [2]float64{x + dx, y + dy})
	}
	told := func(label string) string {
		return value[string](b, `document.querySelector('g[aria-label^="`+label+`"]').getAttribute("aria-valuetext")`)
	}
	before := area()
	b.press("button", "Front 5")
	b.press(".ant-segmented-item", "Hairline")
	b.waitFor(`document.querySelector('g[aria-label="Front centre"]')`)
	time.Sleep(300 * time.Millisecond) // the head turns to the front
	assert.Contains(t, told("Front centre"), "as usual")
	drag("Front centre", 0, -14)
	b.waitFor(fmt.Sprintf(`parseFloat(%s) !== %v`, scalp, before)) // the tape runs from it still, so the nape moves too
	assert.Regexp(t, `^Front centre: .* in higher$`, told("Front centre"))
	high := area()
	drag("Temple corner, left", -4, -12)
	smaller(high)
	left, right := told("Temple corner, left"), told("Temple corner, right")
	assert.Contains(t, left, "higher")
	assert.Equal(t, strings.ReplaceAll(left, "left", ""), strings.ReplaceAll(right, "right", ""), "both sides move")

	// The nape goes with the tape.
	b.press("button", "Back 2")
	b.waitFor(`document.querySelector('g[aria-label="Nape centre"]')`)
	time.Sleep(300 * time.Millisecond)
	tape := told("Nape centre")
	drag("Nape centre", 0, 10)
	b.waitFor(`document.querySelector('g[aria-label="Nape centre"]').getAttribute("aria-valuetext") !== ` + strconv.Quote(tape))

	// Fragile edges stay out all round.
	last := area()
	value[bool](b, `(document.querySelector("[aria-label='Edges left out all round']").focus(), true)`)
	b.do(chromedp.KeyEvent(kb.ArrowRight), chromedp.KeyEvent(kb.ArrowRight))
	b.waitFor(says + `("of edges left out all round")`)
	smaller(last)
	edged := area()
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.waitFor(says + `("Her hairline is drawn as it was dragged")`)
	assert.InDelta(t, edged, area(), 0.011)
	b.press("button", "Back to the usual hairline")
	b.waitFor(says + `("The usual hairline.")`)
	b.waitFor(fmt.Sprintf(`parseFloat(%s) !== %v`, scalp, edged))
	b.waitFor(isSaved)
}

// Every guide a head is parted by: where it lies, where it stops, what stands behind the
// stop, and what the row guide then measures from.
func TestPartLinesOfEveryKind(t *testing.T) {
	b := atTheHead(t, "The lighthouse technician, long thick hair", 1280, 800, "force-prefers-reduced-motion")
	zones := func(names ...string) {
		t.Helper()
		for _, name := range names {
			b.waitFor(`[...document.querySelectorAll("tbody th")].some((e) => e.innerText === "` + name + `")`)
		}
	}
	slide := func(label string, key string, times int) {
		t.Helper()
		value[bool](b, `(document.querySelector("[role=slider][aria-label='`+label+`']").focus(), true)`)
		for range times {
			b.do(chromedp.KeyEvent(key))
		}
	}
	zones("Back left", "Back right")

	// It stops at the crown: the back is one zone, with a section straight behind.
	value[bool](b, `([...document.querySelectorAll("label")].find((e) => e.innerText.includes("It stops before the nape")).querySelector("[role=switch]").click(), true)`)
	b.waitFor(says + `("from the front hairline")`)
	zones("Back")
	stop := value[string](b, `[...document.querySelectorAll("#parting-part strong, #parting-part b, #parting-part span")].map((e) => e.innerText).find((s) => s.endsWith("from the front hairline"))`)
	slide("Stops", kb.ArrowRight, 4)
	b.waitFor(`!` + says + `(` + strconv.Quote(stop) + `)`)
	b.waitFor(isSaved)

	// Beside the middle on her right, then on her left.
	b.press(".ant-segmented-item", "Side")
	b.waitFor(says + `("to her left")`)
	slide("Off the middle", kb.ArrowRight, 14)
	b.waitFor(says + `("to her right")`)
	b.press(".ant-segmented-item", "Diagonal")
	b.waitFor(says + `("It starts and ends at different distances from the middle.")`)
	slide("Ends", kb.ArrowLeft, 6)
	b.waitFor(isSaved)

	// None, and levels: nothing stands at the middle.
	b.press(".ant-segmented-item", "None")
	zones("Front", "Back")
	b.press("button", "At the mirror: row guide")
	b.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("From the middle")`)
	b.do(chromedp.KeyEvent(kb.Escape))
	b.waitFor(`!document.querySelector("[role=dialog]")?.checkVisibility()`)
	b.press(".ant-segmented-item", "Levels")
	zones("Rings")
	assert.Zero(t, value[int](b, `[...document.querySelectorAll("tbody th")].filter((e) => /^(Back|Front) (left|right)$/.test(e.innerText)).length`))
	b.press(".ant-segmented-item", "Middle")
	zones("Front left", "Front right")
	b.waitFor(isSaved)
}

// A client has half a day: two quicker structures are set against individuals all over,
// the quickest is chosen, and the sheet that is taken along tells its tracks.
func TestAQuickerHeadForAClient(t *testing.T) {
	b := open(t, 1280, 800, "force-prefers-reduced-motion")
	files := t.TempDir()
	b.downloadsTo(files)
	address := start(t, "demo", "-db", filepath.Join(t.TempDir(), "demo.db"))
	b.enterDemo(address, "Tamsin Okoro-Vale stylist")
	b.openPlan(address, "The baker, four evenings at home", "parting")
	whole := b.sections()
	b.press("button", "Pin this state")
	b.choose("ear-to-ear")
	b.waitFor(says + `("Tracks behind")`)
	b.press(".ant-segmented-item", "Side to side")
	b.waitFor(`!document.querySelector('[data-tally=sections] dd span').innerText.includes("` + strconv.Itoa(whole) + `")`)
	half := b.sections()
	time.Sleep(400 * time.Millisecond) // a state is pinned once it has come to rest
	b.press("button", "Pin this state")
	b.choose("part-line")
	b.waitFor(says + `("Individuals on each side")`)
	b.write("Individuals on each side", "8")
	b.waitForSections(16)
	assert.Less(t, 16, half)

	// What each saves, and what differs.
	b.press("button", "Compare")
	b.waitFor(`document.querySelectorAll("[role=dialog] h3").length === 3`)
	b.waitFor(`/Structure: part line only → (all over|ear to ear)/.test(document.querySelector("[role=dialog]").innerText)`)
	texts := value[[]string](b, `[...document.querySelectorAll("[role=dialog] h3")].map((e) => e.innerText)`)
	require.Len(t, texts, 3)
	assert.Contains(t, texts[1]+texts[2], "Ear to ear, ")
	b.do(chromedp.KeyEvent(kb.Escape))
	b.waitFor(`!document.querySelector("[role=dialog]")?.checkVisibility()`)
	b.waitFor(isSaved)

	value[bool](b, `(document.activeElement.blur(), true)`)
	b.do(chromedp.KeyEvent("p"))
	sheet := filepath.Join(files, "sheet.pdf")
	require.NoError(t, os.WriteFile(sheet, downloaded(t, files, ".pdf"), 0o600))
	words, err := exec.CommandContext(t.Context(), "pdftotext", "-layout", sheet, "-").Output()
	require.NoError(t, err, "pdftotext is part of poppler-utils")
	assert.Contains(t, string(words), "part line only")
	assert.Contains(t, string(words), "tails are left to tuck or stitch")

	// What goes on the tracks has steps of its own.
	b.press("[role=tab]", "4 Attach")
	b.waitFor(says + `("On the tracks")`)
	b.waitFor(says + `("Hook the next one ¾ in further")`)

	// The list names the plan by what it is now.
	b.visit(address+"/plans", says+`("part line only, brick")`)
}
