package e2e

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// onePiece is how long a piece of these tests takes: a press sooner after the last is a slip.
const onePiece = 3300 * time.Millisecond

// timer is the large button, projected what the whole head comes to.
const (
	timer     = `document.querySelector("button[data-running]")`
	projected = `document.querySelector("section[aria-label='Try the first piece'] [role=status] strong").innerText`
	sittings  = `[...document.querySelectorAll("[data-sitting]")]`
)

// key focuses what an expression finds and presses a key on it.
func (b tab) key(find, key string) {
	b.t.Helper()
	b.waitFor(find)
	value[bool](b, "("+find+".focus(), true)")
	b.do(chromedp.KeyEvent(key))
}

// A stylist times two pieces by keys, sees what the head comes to, takes what makes it fit, cuts
// it into two sittings, puts them on the calendar and takes the papers along.
func TestFromTheFirstPieceToThePapers(t *testing.T) {
	t.Parallel()
	b := open(t, 1280, 800)
	files := t.TempDir()
	b.downloadsTo(files)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
	b.openPlan(address, "The ferry pilot, a design on the left", "day")

	b.part("What it takes")
	b.waitFor(`document.querySelectorAll("[data-figure]").length === 4`)
	b.judge("what it takes")
	b.part("Try the first piece")
	b.waitFor(timer)
	before := value[string](b, projected)
	b.key(timer, " ")
	b.waitFor(timer + `.dataset.running === "true"`)
	for range 2 {
		time.Sleep(onePiece)
		b.key(timer, " ")
	}
	b.waitFor(`document.querySelectorAll("ol[aria-live] li").length === 2`)
	b.key(named("button", "That is enough"), kb.Enter)
	b.waitFor(`document.body.innerText.includes("2 pieces timed")`)
	b.waitFor(projected + " !== " + "`" + before + "`")
	b.waitFor(isSaved)
	b.judge("the first piece")

	// It is to fit two hours: what would make it fit is offered, each a plan of its own.
	b.part("Within your hours")
	b.write("All of it at the head may take", "2")
	b.waitFor(`document.querySelectorAll("[data-quicker]").length > 2`)
	b.judge("what makes it fit")
	pieces := b.tally("pieces")
	b.key(`document.querySelector("[data-quicker=larger] button")`, kb.Enter)
	b.waitFor(`document.querySelector('[data-tally="pieces"] dd span').innerText !== "` + pieces + `"`)
	b.waitFor(isSaved)
	b.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	b.waitFor(`document.querySelector('[data-tally="pieces"] dd span').innerText === "` + pieces + `"`)

	b.part("Length and breaks")
	b.write("The longest sitting, with breaks", "2")
	b.part("Sittings")
	b.waitFor(sittings + `.length === 2`)
	b.waitFor(isSaved)
	second := value[string](b, sittings+`[1].querySelector("input[type=date]").value`)
	b.key(`document.querySelector("[aria-label='Date of sitting 1']")`, kb.ArrowUp) // a month on
	b.waitFor(sittings + `[1].querySelector("input[type=date]").value !== "` + second + `"`)
	b.judge("sittings")

	first := value[string](b, sittings+`[0].querySelector("input[type=date]").value`)
	// The order: a row goes later by key, and comes back to where it was by dragging.
	b.part("Working order")
	b.waitFor(`document.querySelectorAll("ul[aria-label='Colours of order'] li").length > 2`)
	rows := `[...document.querySelectorAll("li[data-row]")].map((x) => x.dataset.row)`
	order := value[[]string](b, rows)
	b.key(`document.querySelector("li[data-row] button:not(:disabled)")`, kb.Enter)
	b.waitFor(`document.body.innerText.includes("An order of your own.")`)
	b.waitFor(rows + `[0] === "` + order[1] + `"`)
	assert.Equal(t, order[0], value[[]string](b, rows)[1])
	b.waitFor(isSaved)
	value[bool](b, `(document.querySelector("li[data-row]").scrollIntoView({ block: "center" }), true)`)
	handle := func(n string) (x, y float64) { return b.place(`li[data-row]:nth-child(` + n + `) > span`) }
	x, from := handle("2")
	_, to := handle("1")
	b.drag([2]float64{x, from}, [2]float64{x, to - 6})
	b.waitFor(rows + `[0] === "` + order[0] + `"`)
	b.judge("working order")
	b.key(named("button", "By rule again"), kb.Enter)
	b.waitFor(`!document.body.innerText.includes("An order of your own.")`)

	b.part("On the calendar")
	b.key(named("button", "Put on calendar"), kb.Enter)
	b.waitFor(`document.querySelector("section[aria-label='On the calendar'] ul li")`)
	b.judge("on the calendar")
	b.part("Papers")
	b.press("button", "Day sheet")
	assert.True(t, bytes.HasPrefix(downloaded(t, files, "day.pdf"), []byte("%PDF-")))
	// The plan sheet is eight pages at the most; what is chosen alone is less.
	pages := func() int {
		t.Helper()
		for _, old := range matching(t, files, "*.pdf") {
			require.NoError(t, os.Remove(old))
		}
		b.press("button", "Plan sheet")
		downloaded(t, files, ".pdf")
		out, err := exec.CommandContext(t.Context(), "pdfinfo", matching(t, files, "*.pdf")[0]).Output()
		require.NoError(t, err, "pdfinfo is part of poppler-utils")
		n := 0
		for _, line := range strings.Split(string(out), "\n") {
			if count, is := strings.CutPrefix(line, "Pages:"); is {
				n, err = strconv.Atoi(strings.TrimSpace(count))
				require.NoError(t, err)
			}
		}
		return n
	}
	whole := pages()
	assert.True(t, 4 <= whole && whole <= 8, "%d pages", whole)
	for _, part := range []string{"To buy, before and the sittings", "Steps, with pictures", "How it hangs", "Row guide", "Gauge cards and row tapes"} {
		b.press("checkbox", part)
	}
	assert.Equal(t, 1, pages(), "what the chair needs")
	b.judge("papers")
	b.press("button", "Studio calendar")
	assert.True(t, bytes.HasPrefix(downloaded(t, files, ".ics"), []byte("BEGIN:VCALENDAR")))
	b.part("Messages")
	b.waitFor(`document.querySelector("section[aria-label=Messages] textarea")?.value.includes("Hesper Dunmorrow")`)
	b.judge("messages")
	b.key(named("button", "Send"), kb.Enter)
	b.waitFor(`document.querySelector("section[aria-label=Sent] details")`)

	// The calendar shows it, by month and by week.
	b.visit(address+"/calendar", `document.querySelectorAll("[data-day]").length >= 28`)
	b.judge("the calendar by month")
	for range 6 {
		if value[bool](b, `!!document.querySelector("[data-day='`+first+`']")`) {
			break
		}
		title := value[string](b, `document.querySelector("h2[aria-live]").innerText`)
		b.press("button", "The month after")
		b.waitFor(`document.querySelector("h2[aria-live]").innerText !== "` + title + `"`)
	}
	b.waitFor(`document.querySelector("[data-day='` + first + `'] a[href^='/plans/']")`)
	b.press("radio", "Week")
	b.waitFor(`document.querySelector("a[data-kind], section[aria-label] h3")`)
	b.judge("the calendar by week")
}

// matching are the files of a folder by their pattern.
func matching(t *testing.T, dir, pattern string) []string {
	t.Helper()
	list, err := filepath.Glob(filepath.Join(dir, pattern))
	require.NoError(t, err)
	return list
}

// At home with a phone by the mirror: a piece is timed with a finger, a helper plaits the evening
// before, and nothing runs off the side or is too small to hit.
func TestADayOnAPhone(t *testing.T) {
	t.Parallel()
	b := open(t, 390, 844)
	address := start(t, "demo", "-db", demoFile(t))
	b.signInDemo(address, "")
	b.openPlan(address, "The baker, own front and a quick back", "day")
	fits := func(where string) {
		t.Helper()
		assert.True(t, value[bool](b, `document.documentElement.scrollWidth <= innerWidth`), "%s: nothing runs off the side", where)
		small := value[[]string](b, `[...document.querySelectorAll("main section[aria-label=Day] button, main section[aria-label=Day] input")]
			.filter((x) => x.checkVisibility() && !x.closest("[role=switch], [role=radiogroup]") && x.role !== "combobox").filter((x) => x.getBoundingClientRect().height < 40).map((x) => x.outerHTML.slice(0, 90))`)
		assert.Empty(t, small, where)
	}
	b.part("Try the first piece")
	b.waitFor(timer)
	value[bool](b, `(`+timer+`.scrollIntoView({ block: "center" }), true)`)
	x, y := b.place("button[data-running]")
	b.touch([2]float64{x, y})
	b.waitFor(timer + `.dataset.running === "true"`)
	time.Sleep(onePiece)
	b.touch([2]float64{x, y})
	b.press("button", "That is enough")
	b.waitFor(`document.body.innerText.includes("1 piece timed")`)
	fits("the first piece")

	b.part("Who works")
	b.press("button", "Add a helper")
	b.waitFor(`document.body.innerText.includes("Plaits at home the evening before")`)
	b.press("switch", "Plaits at home the evening before The day itself is for attaching alone")
	b.waitFor(isSaved)
	fits("who works")
	b.part("Sittings")
	b.waitFor(sittings + `[0]?.innerText.includes("The evening before")`)
	fits("sittings")
	b.part("Before it")
	b.waitFor(`document.querySelectorAll("[data-due]").length > 3`)
	fits("before it")
	b.visit(address+"/calendar", `document.querySelectorAll("button[data-day]").length >= 28`)
	assert.True(t, value[bool](b, `document.documentElement.scrollWidth <= innerWidth`), "the calendar")
}
