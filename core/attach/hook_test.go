package attach

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"kladotex/core/pieces"
)

func allText(h Hooking) string {
	var b strings.Builder
	for _, s := range h.Steps {
		b.WriteString(s.Text + "\n")
	}
	return b.String()
}

// Common practice, no source: a plain hitch, its knot turned away from the part,
// pieces of one track between those of the next; a net by itself tears.
func TestHookingIsToldForEveryGround(t *testing.T) {
	names := map[string]bool{}
	for ground, says := range map[Ground]string{
		OnTracks: "under the whole track", OnNet: "net by itself tears", OnLinks: "laid into the next",
	} {
		for _, form := range []pieces.Form{pieces.Twist, pieces.Loc, pieces.Bulk} {
			h := Hook(40, Hang{Ground: ground, Form: form, Spacing: 19})
			names[h.Name] = true
			assert.Equal(t, 40, h.Pieces)
			text := allText(h)
			assert.Contains(t, text, says)
			assert.Contains(t, text, "the knot turned away from the part")
			assert.Equal(t, form == pieces.Bulk, strings.Contains(text, "find its middle"), "bulk hair has no loop")
			spaced := 0
			for _, s := range h.Steps {
				assert.Equal(t, strings.Contains(s.Text, "{length}"), len(s.Lengths) > 0, s.Text)
				if len(s.Lengths) > 0 {
					assert.InDelta(t, 19, s.Lengths["length"], 0)
					spaced++
				}
			}
			assert.Equal(t, ground != OnLinks, spaced == 1, "linked plaits have no spacing but their own")
			assert.NotContains(t, text, "Tender scalp")
		}
	}
	assert.Len(t, names, 3)
	last := allText(Hook(1, Hang{Ground: OnTracks, Form: pieces.Loc, Spacing: 19, Tails: "Stitch the tails.", TenderScalp: true}))
	assert.True(t, strings.HasPrefix(last, "Stitch the tails.\n"), "the base is finished before anything hangs on it")
	net := allText(Hook(1, Hang{Ground: OnNet, Form: pieces.Loc, Spacing: 19}))
	assert.Less(t, strings.Index(net, "Lay the net"), strings.Index(net, "Push the hook"))
	assert.Contains(t, last, "loosen now")
}
