package supply

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/invalid"
)

// Ten thousand moves at random: no balance goes below nothing without a reason, and the sum of
// the ledger is what is left.
func TestTheLedgerAddsUp(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 9))
	lot := Lot{Pack: 20, Condition: New}
	var have, sum Stock
	pieces, reasoned, refused := 0, 0, 0
	for range 10_000 {
		f := Moves[r.IntN(len(Moves))]
		m := Stock{r.IntN(4), r.IntN(30)}
		reason := ""
		if r.IntN(10) == 0 || f.Reasoned {
			reason = "found behind the shelf"
			if f.Reasoned {
				m = Stock{r.IntN(3) - 1, r.IntN(9) - 4}
			}
		}
		entries, err := lot.Book(have, f.Kind, m, reason)
		if err != nil {
			require.NotEmpty(t, invalid.From(err))
			refused++
			continue
		}
		after := have.After(entries...)
		for _, e := range entries {
			sum.Packs += e.Packs
			sum.Loose += e.Pieces
			pieces += e.Packs*lot.Pack + e.Pieces
		}
		require.Equal(t, sum, after)
		require.Equal(t, pieces, after.Pieces(lot.Pack))
		if after.Packs < 0 || after.Loose < 0 {
			require.NotEmpty(t, reason)
			reasoned++
		}
		have = after
	}
	assert.Positive(t, reasoned)
	assert.Positive(t, refused)
}

func TestPacksAreOpenedWhenLoosePiecesRunOut(t *testing.T) {
	lot := Lot{Pack: 20}
	book := func(have Stock, kind MoveKind, m Stock) Stock {
		entries, err := lot.Book(have, kind, m, "")
		require.NoError(t, err)
		return have.After(entries...)
	}
	have := book(Stock{}, Bought, Stock{Packs: 6})
	have = book(have, Used, Stock{Loose: 27})
	assert.Equal(t, Stock{4, 13}, have, "two packs opened, thirteen left in the second")
	have = book(have, Opened, Stock{Packs: 1, Loose: 19})
	assert.Equal(t, Stock{3, 32}, have, "a pack that was one short")
	have = book(have, Given, Stock{Packs: 1})
	assert.Equal(t, Stock{2, 32}, have, "a shut pack given away stays shut")
	have = book(have, Counted, Stock{2, 30})
	assert.Equal(t, Stock{2, 30}, have)
	for name, m := range map[string]struct {
		kind MoveKind
		m    Stock
	}{
		"more than there is": {Used, Stock{Loose: 71}}, "nothing": {Spoilt, Stock{}}, "put right without a reason": {Adjusted, Stock{Loose: 1}},
		"no pack opened": {Opened, Stock{}}, "less than nothing": {Used, Stock{Loose: -1}}, "no such move": {"eaten", Stock{Loose: 1}},
	} {
		_, err := lot.Book(have, m.kind, m.m, "")
		assert.NotEmpty(t, invalid.From(err), name)
	}
}

// New pieces before worn ones, or where reuse is wished the other way round; open packs first, and
// never what others are promised.
func TestTakeLeavesWhatIsPromised(t *testing.T) {
	lots := []Stocked{
		{ID: "new", Lot: Lot{Pack: 20, Length: 450}, Stock: Stock{Packs: 3}},
		{ID: "open", Lot: Lot{Pack: 20, Length: 450}, Stock: Stock{Loose: 12}, Promised: 5},
		{ID: "long", Lot: Lot{Pack: 20, Length: 600}, Stock: Stock{Packs: 9}},
		{ID: "worn", Lot: Lot{Pack: 20, Length: 450, Round: 1}, Stock: Stock{Loose: 30}},
	}
	assert.Equal(t, []TakeFrom{{"worn", 30}, {"open", 7}, {"new", 33}}, Take(70, lots, true))
	assert.Equal(t, []TakeFrom{{"open", 7}, {"new", 60}, {"long", 180}, {"worn", 3}}, Take(250, lots, false))
	short := Take(1000, lots, false)
	sum := 0
	for _, x := range short {
		sum += x.Pieces
	}
	assert.Equal(t, 30+7+60+180, sum)
}

// Steps from dark to light against the lightness of greys in the sRGB standard (IEC 61966-2-1):
// #777777 has L* 50 (value from memory).
func TestDepthGoesFromDarkToLight(t *testing.T) {
	assert.Equal(t, 1, Depth("#000000"))
	assert.Equal(t, 5, Depth("#777777"))
	assert.Equal(t, 9, Depth("#ffffff"))
	assert.Less(t, Depth("#2f2119"), Depth("#8a6238"))
	assert.Zero(t, Depth("brown"))
}

func TestItemsThatCanNotBeAreRefused(t *testing.T) {
	good := Item{
		Schema: ItemSchema, Kind: "soft-loc", Name: "Driftline", Length: 450, Thickness: 9, Mass: 4.2, Fibre: Synthetic, Currency: "USD",
		Pack: pack(20), Colours: []Colour{{Name: "Tar", Swatch: "#1b1714"}},
	}
	require.NoError(t, good.Check())
	for path, spoil := range map[string]func(*Item){
		"kind":              func(i *Item) { i.Kind = "wig" },
		"name":              func(i *Item) { i.Name = "  " },
		"pack.units":        func(i *Item) { i.Pack.Units = 0 },
		"massG":             func(i *Item) { i.Mass = 0 },
		"lengthMm":          func(i *Item) { i.Length = 20 },
		"colours[1].name":   func(i *Item) { i.Colours = append(i.Colours, Colour{Name: "TAR", Swatch: "#000000"}) },
		"colours[0].swatch": func(i *Item) { i.Colours = []Colour{{Name: "Tar", Swatch: "black"}} },
		"schema":            func(i *Item) { i.Schema = 9 },
	} {
		bad := good
		bad.Colours = append([]Colour{}, good.Colours...)
		spoil(&bad)
		refused := invalid.From(bad.Check())
		require.Len(t, refused, 1, path)
		assert.Equal(t, path, refused[0].Path)
	}
}

// Loose hair as a plan hangs it: a strand of 20 in sold folded is 40 in opened out; cut in two
// and folded over the hook it hangs 10 in.
func TestLooseHairHangsAsItIsCut(t *testing.T) {
	i := Item{Kind: "bulk", Name: "Bulk", Length: 20 * inch, Folded: true, Mass: 6, Thickness: 10, Pack: pack(32), Colours: []Colour{{Name: "Tar", Swatch: "#1b1714"}}}
	i.Pack.Cuts, i.Pack.Splits = 2, 3
	p := i.Piece("p1", "id", "Tar")
	assert.InDelta(t, 10*inch, p.Length, 1e-9)
	assert.InDelta(t, 1, p.Mass, 1e-9)
	assert.Equal(t, 32*6, p.Pack.Yield())
	assert.Equal(t, "#1b1714", p.Swatch)
}
