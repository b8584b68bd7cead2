package method

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"kladotex/core/hair"
)

// Common practice, no source: a plain hitch, its knot turned away from the part,
// pieces of one cornrow between those of the next; a net by itself tears.
func TestHookingIsToldForEveryGround(t *testing.T) {
	told := func(j Job) (text string, lengths int) {
		m, _ := Lookup(CornrowHitch)
		j.Chosen = m.Decided(j.Chosen)
		for _, s := range hooking(j) {
			text += s.Text + "\n"
			lengths += len(s.Lengths)
		}
		return text, lengths
	}
	for ground, says := range map[Ground]string{
		OnCornrow: "under the whole cornrow", OnNet: "net by itself tears", OnLink: "laid into the next", OnLaid: "root of the plait",
	} {
		for _, form := range []hair.Form{hair.Twist, hair.SoftLoc, hair.Bulk, hair.CurlyBulk} {
			text, lengths := told(Job{Ground: ground, Piece: hair.Piece{Form: form}, Spacing: 19})
			assert.Contains(t, text, says)
			assert.Contains(t, text, "the knot away from the part")
			assert.Equal(t, form == hair.Bulk || form == hair.CurlyBulk, strings.Contains(text, "find its middle"), "bulk hair has no loop")
			assert.Equal(t, ground != OnLink && ground != OnLaid, lengths == 1, "linked plaits have no spacing but their own")
			assert.NotContains(t, text, "Tender scalp")
		}
	}
	last, _ := told(Job{Ground: OnCornrow, Piece: hair.Piece{Form: hair.SoftLoc}, Spacing: 19, Tails: "Stitch the tails.", TenderScalp: true})
	assert.True(t, strings.HasPrefix(last, "Stitch the tails.\n"), "the base is finished before anything hangs on it")
	assert.Contains(t, last, "loosen now")
	face, _ := told(Job{Ground: OnCornrow, Piece: hair.Piece{Form: hair.SoftLoc}, Spacing: 19, Chosen: Chosen{"knot": "face"}})
	assert.Contains(t, face, "the knot toward the face")
	net, _ := told(Job{Ground: OnNet, Piece: hair.Piece{Form: hair.SoftLoc}, Spacing: 19})
	assert.Less(t, strings.Index(net, "Lay the net"), strings.Index(net, "Push the hook"))
}
