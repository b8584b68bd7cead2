package plan

import (
	"encoding/json"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/fall"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/quote"
	"kladotex/core/supply"
	"kladotex/core/wish"
)

// leaves are the paths of a JSON document, lists taken whole.
func leaves(prefix string, v any, out map[string]bool) {
	if object, ok := v.(map[string]any); ok {
		for name, value := range object {
			leaves(prefix+"."+name, value, out)
		}
		return
	}
	out[strings.TrimPrefix(prefix, ".")] = true
}

// No field of the document can be changed without its being told.
func TestEveryFieldOfTheDocumentIsCompared(t *testing.T) {
	whole := Default()
	whole.Parting.Design.Pieces, whole.Parting.Design.Between, whole.Parting.Base.MergeSides, whole.Parting.Base.NoRing = true, true, true, true // else left out
	whole.Parting.Base.Hooks, whole.Parting.Base.Under, whole.Parting.Grounds = 60, parting.OverPlaits, []parting.OwnBase{{}}
	whole.Parting.Design.Reach, whole.Parting.Design.Fed, whole.Parting.Design.Rings = 0.5, true, 2
	whole.Wishes = &method.Wishes{Updo: true, Water: method.Swim, Weeks: 6, Reuse: true, Quick: true, Hand: method.NewHand, Hours: 4, Hide: method.HiddenUnder, NoCornrows: true}
	whole.Customs = map[string]string{}
	for _, c := range Customs {
		whole.Customs[c.Key] = c.Usual
	}
	whole.Spares.Amount, whole.Spares.Spoilt = supply.SafeAmount, 0.03
	usual := whole.UsualSittings()
	usual.Home, usual.Slots = true, []Slot{{After: 2}}
	whole.Day = &Day{
		Install: "2026-12-04", Within: 300, Hands: []Hand{Someone}, Trials: []Trial{{}}, Sittings: &usual,
		Order: &WorkOrder{Apart: true, ByRow: true, Rows: []string{"behind/B1"}},
	}
	whole.Plaits.Anchor, whole.Avoid = 40, []ProductKey{Gel}
	whole.Accents = []Accent{{Piece: firstPiece, Where: Where{Kind: InFront}, Count: 4}}
	whole.Stature, whole.Trim = 1650, &Trim{fall.Bob, "chin"}
	whole.Feed, whole.Products = &UsualFeed, []Chosen{{Product: Gel}}
	whole.Fill.At = []parting.Direction{{0, 0, 1}}
	whole.Wanted = &wish.Wanted{Look: wish.Locs}
	whole.Price = &quote.Basis{Person: "odalys", BringsHair: true, Extras: []quote.Extra{{Name: "Wash", Amount: 1500}}}
	raw, err := json.Marshal(whole)
	require.NoError(t, err)
	var document any
	require.NoError(t, json.Unmarshal(raw, &document))
	want := map[string]bool{}
	leaves("", document, want)
	delete(want, "schema")   // documents compared are of one version
	for path := range want { // hair fed in is told as one, and so is what is wished
		if strings.HasPrefix(path, "feed.") || strings.HasPrefix(path, "wanted.") {
			delete(want, path)
		}
	}
	want["feed"], want["wanted"] = true, true
	got := map[string]bool{}
	for _, f := range fields {
		got[f.path] = true
	}
	assert.Equal(t, slices.Sorted(maps.Keys(want)), slices.Sorted(maps.Keys(got)))
}

func TestChangesNameWhatDiffers(t *testing.T) {
	a := Default()
	assert.Empty(t, Changes(a, a))
	b := a
	b.Head.EarToEar = 320
	b.Parting.Back.Pattern = "grid"
	b.Pieces = slices.Clone(b.Pieces)
	b.Pieces[0].Offers = append(slices.Clone(b.Pieces[0].Offers), b.Pieces[0].Offers[0])
	changes := Changes(a, b)
	require.Len(t, changes, 3)
	assert.Equal(t, Change{"head.earToEarMm", "Ear to ear", Length, "317.5", "320"}, changes[0])
	assert.Equal(t, "Back pattern", changes[1].Label)
	assert.Contains(t, changes[2].To, "1 for 12.50, 1 for 12.50")
	// Values are told in the trade's words.
	c := a
	c.Parting.Structure, c.Parting.Base.Run = parting.PartLine, parting.Horizontal
	c.Parting.Edits = []parting.Edit{{Kind: parting.Merge, At: parting.Direction{0, 0, 1}}}
	c.Plaits.Far = plait.Half
	c.Uses = append(slices.Clone(a.Uses), Use{Where: Where{Kind: AlongPart}, Way: hookWay, Count: 2})
	var told []string
	for _, x := range Changes(a, c) {
		told = append(told, x.From+" → "+x.To)
	}
	assert.Equal(t, []string{
		"all over → part line only", "straight back → side to side", "none → joined on top", "to the ends → half, then twisted",
	}, told[:4])
	require.Len(t, told, 5)
	assert.Contains(t, told[4], "; along the part, 2 at each spot, Cornrow hitch")
	// The way back is the same changes reversed.
	for i, back := range Changes(b, a) {
		assert.Equal(t, changes[i].From, back.To)
		assert.Equal(t, changes[i].To, back.From)
	}
}
