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

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// atTheHead opens the parting of a demo plan in a window of the given size.
func atTheHead(t *testing.T, title string, width, height int, flags ...string) tab {
	t.Helper()
	b := open(t, width, height, flags...)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
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
	b.part("Structure")
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
	notes = `document.querySelector("section[aria-label='By hand']").innerText`
)

// From individuals all over to a horseshoe with merged cornrows: the structure, its part
// line and its base are chosen, and what it saves is seen.
func TestChoosingAStructure(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The lighthouse technician, long thick hair", 1280, 800)
	whole := b.sections()
	b.part("Count")
	b.waitFor(says + `("What a structure saves against individuals all over")`)

	b.choose("horseshoe")
	b.waitFor(says + `("Rows on each side")`)
	b.part("Read")
	b.waitFor(says + `("left to tuck or stitch")`)
	b.part("Structure")
	assert.Less(t, b.sections(), whole/2)
	b.part("Base")
	b.press("radio", "Curved")
	b.press("radio", "Back")
	b.part("Read")
	b.waitFor(says + `(" into T")`) // as a horseshoe starts
	b.part("Base")
	merging := `[...document.querySelectorAll("label")].find((l) => l.innerText.includes("merge into fewer")).querySelector("[role=switch]")`
	value[bool](b, "("+merging+".click(), true)")
	b.waitFor("!" + says + `("After")`)
	value[bool](b, "("+merging+".click(), true)")
	b.part("Read")
	b.waitFor(says + `(" into T")`)
	b.part("Base")
	b.press("radio", "Chained")
	b.part("Read")
	b.waitFor(says + `("3 tails are left")`) // one behind, one on each side
	b.part("Structure")

	// Levels leave no room for a base: it is said, with what works.
	b.press("radio", "Levels")
	b.waitFor(says + `("levels go with individuals all over")`)
	b.press("radio", "Side")
	b.waitFor(says + `("1 in to the client’s left")`)
	b.waitFor(`!` + says + `("levels go with individuals all over")`)
	b.waitFor(isSaved)

	// More cornrows than fit are refused with the number that does.
	b.part("Base")
	b.write("Cornrows", "40")
	b.waitFor(`/up to \d+ are possible on this head/.test(document.body.innerText)`)
	b.write("Cornrows", "9")
	b.waitFor(`!/up to \d+ are possible on this head/.test(document.body.innerText)`)
	b.waitFor(isSaved)
	b.do(chromedp.Reload())
	b.part("Read")
	b.waitFor(says + `("3 tails are left")`)

	b.choose("perimeter")
	b.part("Read")
	b.waitFor(says + `("Hairline ring")`)
	b.choose("all")
	b.press("radio", "Levels")
	b.part("Read")
	b.waitFor(says + `("Rings")`)
	b.press("radio", "Stagger")
	b.waitFor(says + `("A quarter off or more")`)
	b.press("button", "Row guide")
	b.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("From the front centre, along the scalp")`)
}

// A head is read before it is parted: by what its colours and marks say, by the numbers
// at the rows' ends and side by side, and by what there is to look at.
func TestReadingALayout(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The cellist, a hairline that shows", 1280, 800)
	n := b.sections()
	const legend = `[...document.querySelectorAll("[class*=legend] li")].filter((e) => e.querySelector("small"))`
	for _, reading := range []string{"Size", "Zone", "Row", "Stagger", "Neatness"} {
		b.press("radio", reading)
		b.waitFor(legend + `.length > 0`)
		sum := value[int](b, legend+`.reduce((sum, e) => sum + Number(e.querySelector("small").innerText), 0)`)
		assert.Equal(t, n, sum, "every section has one meaning by %s", reading)
		// Every section says its class, and no other, to those who listen.
		b.waitFor(resting)
		names := value[[]string](b, legend+`.map((e) => e.innerText)`)
		spoken := value[[]string](b, `[...document.querySelectorAll("[data-section]")].map((e) => e.getAttribute("aria-label").split("; ").at(-1))`)
		for _, class := range spoken {
			assert.True(t, slices.ContainsFunc(names, func(n string) bool { return strings.Contains(n, class) }), "%q by %s is not in the legend %v", class, reading, names)
		}
		told := value[[]string](b, legend+`.map((e) => e.querySelector("span").innerText)`)
		slices.Sort(told)
		assert.Len(t, slices.Compact(told), value[int](b, legend+`.length`), "no mark means two things by %s", reading)
	}

	// The numbers at the rows' ends are those of the table, on both sides; they stand where the
	// row matters.
	const chips = `[...document.querySelectorAll("[data-head] g > title")].filter((e) => e.textContent.startsWith("Back left"))`
	b.waitFor(chips + `.length === 0`)
	b.press("radio", "Row")
	b.waitFor(chips + `.length > 0`)
	b.part("Read")
	rows := value[[]string](b, `[...document.querySelectorAll("td[class*=rows]")].map((e) => e.innerText)`)
	require.GreaterOrEqual(t, len(rows), 4)
	assert.Equal(t, rows[0], rows[1], "left and right alike")
	ends := value[[]string](b, chips+`.map((e) => e.parentElement.querySelector("text").textContent)`)
	assert.Subset(t, strings.Split(rows[0], " · "), ends)

	// A side part: left and right are counted apart.
	const balance = `[...[...document.querySelectorAll("tr")].find((e) => e.cells[0].innerText === "Front").cells].slice(1).map((e) => parseInt(e.innerText))`
	even := value[[]int](b, balance)
	assert.Equal(t, even[0], even[len(even)-1])
	b.part("Structure")
	b.press("radio", "Side")
	b.waitFor(says + `("to the client’s left")`)
	b.part("Read")
	b.waitFor(`(() => { const counts = ` + balance + `; return counts[0] !== counts[counts.length - 1] })()`)

	// What there is to look at is shown where it is, and turned to.
	b.press("button", "Front 5")
	value[bool](b, `(document.querySelector("[data-tally=notices]").click(), true)`)
	b.waitFor(says + `("Channels behind the crown")`)
	value[bool](b, `([...document.querySelectorAll("li")].find((e) => e.innerText.includes("Channels behind the crown")).querySelector("button").click(), true)`)
	b.waitFor(`document.querySelectorAll("[data-marked]").length > 0`)
	b.press("button", "Hide the marks")
	b.waitFor(`document.querySelectorAll("[data-marked]").length === 0`)
}

// What cannot be is said at its control, with what would work; the head stays as it was
// and the plan is saved again once it can be.
func TestWishesThatContradict(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The cellist, a hairline that shows", 1280, 800)
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
	b.press("radio", "Sections")
	b.pick("BL2.1")
	b.press("button", "Whole zone")
	b.press("button", "Leave out")
	b.part("By hand")
	b.waitFor(says + `("2 changes no longer apply")`)
	b.waitFor(notes + `.includes("the last of its zone; something must stay")`)
	b.waitFor(isSaved)
	undo()

	// More rows than a ring has room for.
	b.choose("perimeter")
	b.waitFor(says + `("Rows round the hairline")`)
	b.waitFor(isSaved)
	before := b.tally("sections")
	b.part("Sizes")
	b.write("Section size", "1 1/2")
	b.waitFor(`document.querySelector("[data-tally=sections] dd span").innerText !== "` + before + `"`)
	b.waitFor(isSaved)
	n = b.sections()
	b.part("Structure")
	b.write("Rows round the hairline", "4")
	refused("are possible on this head")
	undo()
}

// Every guide a head is parted by: where it lies, where it stops, what stands behind the
// stop, and what the row guide then measures from.
func TestPartLinesOfEveryKind(t *testing.T) {
	t.Parallel()
	b := atTheHead(t, "The lighthouse technician, long thick hair", 1280, 800)
	zones := func(names ...string) {
		t.Helper()
		b.part("Read")
		defer b.part("Structure")
		for _, name := range names {
			b.waitFor(`[...document.querySelectorAll("tbody th")].some((e) => e.innerText === "` + name + `")`)
		}
	}
	slide := func(label string, key string, times int) {
		t.Helper()
		value[bool](b, `(document.querySelector("input[type=range][aria-label='`+label+`']").focus(), true)`)
		for range times {
			b.do(chromedp.KeyEvent(key))
		}
	}
	zones("Back left", "Back right")

	// It stops at the crown: the back is one zone, with a section straight behind.
	value[bool](b, `([...document.querySelectorAll("label")].find((e) => e.innerText.includes("It stops before the nape")).querySelector("[role=switch]").click(), true)`)
	b.waitFor(says + `("from the front hairline")`)
	zones("Back")
	stop := value[string](b, `[...document.querySelectorAll("section[aria-label=Structure] strong, section[aria-label=Structure] span")].map((e) => e.innerText).find((s) => s.endsWith("from the front hairline"))`)
	slide("Stops", kb.ArrowRight, 4)
	b.waitFor(`!` + says + `(` + strconv.Quote(stop) + `)`)
	b.waitFor(isSaved)

	// Beside the middle on the right, then on the left.
	b.press("radio", "Side")
	b.waitFor(says + `("to the client’s left")`)
	slide("Off the middle", kb.ArrowRight, 14)
	b.waitFor(says + `("to the client’s right")`)
	b.press("radio", "Diagonal")
	b.waitFor(says + `("It starts and ends at different distances from the middle.")`)
	slide("Ends", kb.ArrowLeft, 6)
	b.waitFor(isSaved)

	// None, and levels: nothing stands at the middle.
	b.press("radio", "None")
	zones("Front", "Back")
	b.part("Read")
	b.press("button", "Row guide")
	b.waitFor(`document.querySelector("[role=dialog]")?.innerText.includes("From the middle")`)
	b.do(chromedp.KeyEvent(kb.Escape))
	b.waitFor(`!document.querySelector("[role=dialog]")?.checkVisibility()`)
	b.part("Structure")
	b.press("radio", "Levels")
	zones("Rings")
	b.part("Read")
	assert.Zero(t, value[int](b, `[...document.querySelectorAll("tbody th")].filter((e) => /^(Back|Front) (left|right)$/.test(e.innerText)).length`))
	b.part("Structure")
	b.press("radio", "Middle")
	zones("Front left", "Front right")
	b.waitFor(isSaved)
}

// A client has half a day: two quicker structures are set against individuals all over,
// the quickest is chosen, and the sheet that is taken along tells its cornrows.
func TestAQuickerHeadForAClient(t *testing.T) {
	t.Parallel()
	b := open(t, 1280, 800)
	files := t.TempDir()
	b.downloadsTo(files)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "Tamsin Okoro-Vale stylist")
	b.openPlan(address, "The baker, four evenings at home", "parting")
	whole := b.sections()
	b.part("Compare")
	b.press("button", "Pin this state")
	b.choose("ear-to-ear")
	b.part("Base")
	b.press("radio", "Sideways")
	b.waitFor(`!document.querySelector('[data-tally=sections] dd span').innerText.includes("` + strconv.Itoa(whole) + `")`)
	half := b.sections()
	time.Sleep(400 * time.Millisecond) // a state is pinned once it has come to rest
	b.part("Compare")
	b.press("button", "Pin this state")
	b.choose("part-line")
	b.waitFor(says + `("Individuals on each side")`)
	b.write("Individuals on each side", "8")
	b.waitForSections(16)
	assert.Less(t, 16, half)

	// What each saves, and what differs.
	b.part("Compare")
	b.press("button", "Side by side")
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
	assert.Contains(t, string(words), "left to tuck or stitch")

	// What goes on the cornrows has steps of its own.
	b.step("4 Attach")
	b.part("Steps")
	b.press("button", "B Cornrow hitch on the cornrows")
	b.waitFor(`/Hook the next one .* in further/.test(document.body.innerText)`)

	// The list names the plan by what it is now.
	b.visit(address+"/plans", says+`("part line only, brick")`)
}
