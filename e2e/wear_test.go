package e2e

import (
	"fmt"
	"net/url"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// promised is what a promise of a page comes to.
func promised[T any](b tab, expression string) T {
	b.t.Helper()
	v, err := chromedp.Run(b.ctx, chromedp.Evaluate[T](expression, chromedp.EvalAwaitPromise))
	require.NoError(b.t, err, expression)
	return v
}

// A head worn for five weeks, on a phone: looked at, mended, its care handed over and revoked, its ring
// planned from the stash and done at the chair, taken down, and its pieces back in the stash. Every part
// is judged for accessibility.
func TestAHeadFromFiveWeeksToTheStash(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	b := open(t, 390, 844, "touch-events")
	look := func(page string) {
		t.Helper()
		b.judge(page)
		assert.LessOrEqual(t, value[int](b, `document.scrollingElement.scrollWidth`), 390, "%s is wider than a phone", page)
	}
	b.signInDemo(address, "")
	b.visit(address+"/wear", says+`("The baker, a quick front")`)
	look("wear")
	b.follow("5") // weeks, the cellist
	b.waitFor(says + `("usual from week 4 to week 6")`)
	head := value[string](b, `location.pathname`)

	// A look: what is loose asks to be put back, and asks no more once it is.
	b.part("Look at it")
	look("look at it")
	b.press("button", "A few are loose")
	b.press("button", "Others are well")
	b.press("button", "Keep 8 of 8 answers")
	b.waitFor(says + `("Put back, today")`)
	b.part("Repairs and the ring")
	look("repairs and the ring")
	b.press("button", "Note it")
	b.waitFor(`!` + says + `("Put back, today")`)

	// The care, for who knows its address.
	b.part("Care")
	look("care")
	b.press("button", "Hand over")
	b.waitFor(`document.querySelector("a[href*='/care/']")`)
	care := value[string](b, `document.querySelector("a[href*='/care/']").href`)
	client := open(t, 390, 844)
	client.visit(care, says+`("The care of your hair")`)
	client.judge("the page on care")
	assert.False(t, value[bool](client, says+`("Ysolde")`))
	b.press("button", "Revoke")
	b.waitFor(`document.querySelector("[role=tooltip] button")`)
	value[bool](b, `([...document.querySelectorAll("[role=tooltip] button")].find((e) => e.innerText === "Revoke").click(), true)`)
	b.waitFor(`!document.querySelector("a[href*='/care/']")`)
	client.mayComplain() // the answer is a 404, as it should be
	client.visit(care, says+`("This page is not open")`)

	// The ring again: a plan of it, from the stash first, worked at the chair.
	b.part("Repairs and the ring")
	b.waitFor(says + `("this head rests after 6 weeks, however new its ring looks")`) // fragile edges
	b.press("button", "Redo the ring")
	b.press("button", "Plan it")
	b.waitFor(`location.pathname.startsWith("/plans/") && ` + says + `("Only the row at the hairline is done again")`)
	b.step("5 Day")
	b.part("On the calendar")
	b.press("button", "To the chair")
	b.waitFor(`location.pathname.startsWith("/chair/") && ` + stepNow + ` === "begin"`)
	ring := promised[int](b, `(async () => {
		const id = location.pathname.split("/")[2];
		const { brief, hand } = await (await fetch("/api/v1/installs/" + id)).json();
		const at = Date.now() - 7_200_000;
		const events = [...brief.tasks.map((task, i) => ({ kind: "done", tasks: [task.key], at: at + 60_000 * i })), { kind: "ended", at: at + 7_000_000 }]
			.map((e, i) => ({ id: crypto.randomUUID(), n: i + 1, hand, ...e }));
		const answer = await fetch("/api/v1/installs/" + id + "/events", { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ after: 0, events }) });
		if (!answer.ok) throw new Error(await answer.text());
		return brief.tasks.filter((task) => task.key.startsWith("attach/")).length;
	})()`)
	assert.Greater(t, ring, 18)
	b.visit(address+head, says+`("Repairs and the ring")`)
	b.part("What was seen and done")
	b.waitFor(says + `("done again")`)
	b.part("The clock")
	b.waitFor(says + `("Fragile edges: they rest sooner")`)
	assert.False(t, value[bool](b, says+`("weeks more")`), "a new ring gains nothing on edges that rest after six weeks")
	look("the clock")

	// Taken down: what came back lies in the stash, a round older.
	b.part("Take it down")
	b.waitFor(says + `("do not be frightened")`)
	look("take it down")
	b.press("button", "One less: Good ones of Saltspun twist, 22 in, Rope") // 82 are filled in
	b.press("button", "One less: Good ones of Saltspun twist, 22 in, Rope")
	b.press("radio", "As before")
	b.press("button", "It is down")
	b.waitFor(says + `("Back in the stash")`)
	look("what came back")
	assert.True(t, value[bool](b, says+`("80 of Saltspun twist, 22 in, good; hung once so far.")`))
	lots := promised[int](b, `(async () => (await (await fetch("/api/v1/stash?limit=200")).json()).items.filter((l) => l.lot.round === 1 && l.lot.colour === "Rope").reduce((n, l) => n + l.pieces, 0))()`)
	assert.Equal(t, 80, lots)
	b.visit(address+"/supplies/year", says+`("All of it, in money")`)
	look("the year")
	b.visit(address+"/clients", `document.querySelectorAll("main li").length === 6`)
	b.follow("Ysolde Abarinwe")
	b.waitFor(says + `("Over time")`)
	look("over time")

	// The next plan of this client is offered what worked.
	id := value[string](b, `location.pathname.split("/")[2]`)
	b.visit(fmt.Sprintf("%s/plans/%s/head?new=&client=%s", address, "0b9f5a3e-5a53-4f5e-9d0a-0c4f3c1d2e77", url.QueryEscape(id)), says+`("What worked")`)
	b.waitFor(says + `("Begin from that plan")`)
	look("what worked")
}

// Installs being worn at a desk, light and dim.
func TestWearAtADesk(t *testing.T) {
	t.Parallel()
	address := start(t, "demo", "-db", demoFile(t))
	b := open(t, 1280, 800)
	b.enterDemo(address, "")
	for _, dim := range []bool{false, true} {
		value[bool](b, fmt.Sprintf(`(localStorage.setItem("kladotex.preferences", JSON.stringify({state: {dim: %v}, version: 0})), true)`, dim))
		b.visit(address+"/wear", says+`("The baker, a quick front")`)
		b.judge(fmt.Sprintf("wear, dim %v", dim))
		b.follow("9") // weeks, the lighthouse technician
		b.waitFor(says + `("Past its day")`)
		for _, title := range []string{"Look at it", "The clock", "Care", "Repairs and the ring", "Take it down", "What was seen and done"} {
			b.part(title)
			b.judge(fmt.Sprintf("%s, dim %v", title, dim))
		}
	}
	// The weeks are moved by key, and the head says what has grown.
	value[bool](b, `(document.querySelector("input[type=range]").focus(), true)`)
	before := value[string](b, `document.querySelector("input[type=range]").getAttribute("aria-valuetext")`)
	b.key(`document.querySelector("input[type=range]")`, kb.ArrowRight)
	b.waitFor(`document.querySelector("input[type=range]").getAttribute("aria-valuetext") !== ` + fmt.Sprintf("%q", before))
}
