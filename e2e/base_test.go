package e2e

import (
	"fmt"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// onDeskAndPhone does a job on the head of a demo plan, on either screen anew.
func onDeskAndPhone(t *testing.T, title string, job func(b tab)) {
	t.Helper()
	for name, size := range map[string][2]int{"desk": {1280, 800}, "phone": {390, 844}} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			b := atTheHead(t, title, size[0], size[1])
			if size[0] < 700 {
				const line = `document.querySelector("footer[aria-label=Tally] button[aria-expanded=false]")`
				b.waitFor(line)
				value[bool](b, "("+line+".click(), true)")
			}
			job(b)
			assert.LessOrEqual(t, value[int](b, `document.scrollingElement.scrollWidth`), size[0], "nothing is wider than the screen")
		})
	}
}

// toggle turns the switch whose label begins so.
func (b tab) toggle(label string) {
	b.t.Helper()
	find := `[...document.querySelectorAll("label")].find((l) => l.innerText.trim().startsWith(` + strconv.Quote(label) + `))?.querySelector("[role=switch]")`
	b.waitFor(find)
	value[bool](b, "("+find+".click(), true)")
}

// hooksOnCornrows are the pieces on each cornrow or net, from the table of the base.
func (b tab) hooksOnCornrows() [][]int {
	b.t.Helper()
	rows := value[[]string](b, `[...document.querySelectorAll("section[aria-label=Base] td[class*=rows]")].map((e) => e.firstChild.textContent)`)
	out := make([][]int, len(rows))
	for i, row := range rows {
		for _, n := range strings.Split(row, " · ") {
			hooks, err := strconv.Atoi(n)
			require.NoError(b.t, err, row)
			out[i] = append(out[i], hooks)
		}
	}
	return out
}

// Sixty pieces are spread over the cornrows, as many left as right; then a third fewer are
// enough, and it takes less hair and time.
func TestSixtyHooksSpreadAndLightened(t *testing.T) {
	t.Parallel()
	onDeskAndPhone(t, "The baker, own front and a quick back", func(b tab) {
		b.part("Base")
		b.press("radio", "A number")
		b.write("Spread over the base", "60")
		hooked := func(n int) {
			b.waitFor(fmt.Sprintf(`[...document.querySelectorAll("section[aria-label=Base] td[class*=rows] + td")].reduce((sum, e) => sum + Number(e.innerText), 0) === %d`, n))
			b.waitFor(isSaved)
			for _, row := range b.hooksOnCornrows() {
				sum := 0
				for _, hooks := range row {
					sum += hooks
				}
				assert.InDelta(b.t, sum/len(row), row[0], 4, "evenly: %v", row)
			}
		}
		hooked(60)
		full, hours := b.tally("pieces"), b.tally("minutes")
		b.press("button", "A third fewer: 40")
		hooked(40)
		light, err := strconv.Atoi(b.tally("pieces"))
		require.NoError(b.t, err)
		before, err := strconv.Atoi(full)
		require.NoError(b.t, err)
		assert.Equal(b.t, before-20, light)
		assert.NotEqual(b.t, hours, b.tally("minutes"))
	})
}

// Who cannot cornrow takes a net over small plaits: no cornrow is left on the head, and the
// hours, the supplies and the steps speak of plaits and stitches.
func TestNetOverLoosePlaits(t *testing.T) {
	t.Parallel()
	onDeskAndPhone(t, "The baker, own front and a quick back", func(b tab) {
		b.choose("net-cap")
		b.part("Base")
		b.waitFor(says + `("small plaits under it")`)
		assert.Empty(b.t, value[[]string](b, `[...document.querySelectorAll("section[aria-label=Base] p")].map((e) => e.innerText).filter((s) => s.includes("to plait"))`), "no cornrow is left")
		b.toggle("On small plaits, no cornrows")
		b.waitFor(says + `("tails are left to tuck or stitch")`)
		b.toggle("On small plaits, no cornrows")
		b.waitFor(says + `("small plaits under it")`)
		b.waitFor(isSaved)
		b.step("5 Day")
		b.part("What it takes")
		b.waitFor(says + `("net")`)
		assert.NotContains(b.t, value[string](b, `document.querySelector("section[aria-label='What it takes']").innerText`), "Cornrows")
	})
}

// A front design whose cornrows go on behind as braids: they are hair to buy, hours to plan
// and lengths to land, and somebody else may do only the design.
func TestFrontDesignWithFedInHair(t *testing.T) {
	t.Parallel()
	onDeskAndPhone(t, "The baker, own front and a quick back", func(b tab) {
		b.choose("front-design")
		b.press("radio", "Left")
		pieces := b.tally("pieces")
		b.press("radio", "Both sides")
		b.waitFor(says + `("Design left: ")`)
		b.waitFor(says + `("Design right: ")`)
		b.toggle("Hair fed in")
		b.waitFor(says + `("the braids behind with it")`)
		b.waitFor(`document.querySelector('[data-tally="pieces"] dd span').innerText !== "` + pieces + `"`)
		b.waitFor(isSaved)
		b.step("3 Hair")
		b.part("To buy")
		b.waitFor(`document.querySelector("section[aria-label='To buy']").innerText.includes("Braiding hair")`)
		b.step("4 Attach")
		b.part("Steps")
		b.waitFor(says + `("Fed-in braid from the ends of the cornrows, Braiding hair")`)
		b.step("5 Day")
		b.part("Who works")
		b.press("button", "Add a helper")
		b.take("Does", "Only the design in front")
		b.waitFor(says + `("Its cornrows, and the braids they go on as")`)
		b.waitFor(`/Together .* at the head/.test(document.body.innerText)`)
		b.waitFor(isSaved)
	})
}
