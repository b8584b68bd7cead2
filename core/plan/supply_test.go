package plan

import (
	"bytes"
	"encoding/json"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/supply"
)

// inTwoColours is the default plan with a second piece, two to one.
func inTwoColours() Input {
	in := Default()
	light := in.Pieces[0]
	light.Key, light.Colour = "p2", "Honey"
	in.Pieces = append(in.Pieces, light)
	in.Uses[0].Piece = ""
	in.Uses[0].Mix = []Share{{firstPiece, 2}, {"p2", 1}}
	return in
}

// A mix comes evenly: a third of the places has the rarer piece, as many left as right, and no
// row is without it that is long enough.
func TestMixesAreEvenAndAlikeOnBothSides(t *testing.T) {
	for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.Perimeter, parting.NetCap} {
		in := inTwoColours()
		in.Parting.Structure = structure
		res, err := Compute(t.Context(), in)
		require.NoError(t, err, structure)
		light, left, right := 0, 0, 0
		rows := map[string][2]int{}
		for _, p := range res.Places {
			if p.Piece != 1 && p.Piece != 0 {
				t.Fatalf("%s has no piece", p.ID)
			}
			row := rows[rowOf(&res.Layout, p)]
			row[0]++
			if p.Piece == 1 {
				light++
				row[1]++
				switch {
				case p.At[1] > 1:
					left++
				case p.At[1] < -1:
					right++
				}
			}
			rows[rowOf(&res.Layout, p)] = row
		}
		assert.InDelta(t, float64(len(res.Places))/3, float64(light), 4, structure)
		assert.InDelta(t, left, right, 4, structure)
		for name, r := range rows {
			if r[0] >= 8 {
				assert.InDelta(t, float64(r[0])/3, float64(r[1]), 2.5, "%s of %s", name, structure)
			}
		}
		n := res.Need.Pieces
		require.Len(t, n, 2)
		assert.Equal(t, res.Tally.Pieces, n[0].OnHead+n[1].OnHead)
	}
}

func rowOf(l *parting.Layout, p Place) string {
	f := finder{layout: l}
	return f.line(&p)
}

// Accents are as many as wished, counted, weighed and timed; at picked places one is put at each.
func TestAccentsAreCountedAndWeighed(t *testing.T) {
	plain, err := Compute(t.Context(), Default())
	require.NoError(t, err)
	in := Default()
	cuff := &Thing{Name: "Cuff", Mass: 0.6, Pack: 12, Price: 450}
	in.Accents = []Accent{{Thing: cuff, Where: Where{Kind: InFront}, Count: 8}, {Piece: firstPiece, Where: Where{Kind: Everywhere}, Count: 10}}
	res, err := Compute(t.Context(), in)
	require.NoError(t, err)
	placed := map[int]int{}
	left, right := 0, 0
	for _, p := range res.Places {
		for _, a := range p.Accents {
			placed[a]++
			if p.At[1] > 1 {
				left++
			} else if p.At[1] < -1 {
				right++
			}
		}
	}
	assert.InDelta(t, 8, placed[0], 1)
	assert.InDelta(t, 10, placed[1], 1)
	assert.Equal(t, left, right)
	require.Len(t, res.Need.Things, 1)
	assert.Equal(t, placed[0], res.Need.Things[0].Count)
	assert.Equal(t, 1, res.Need.Things[0].Order.Packs)
	assert.Equal(t, plain.Need.Pieces[0].OnHead+placed[1], res.Need.Pieces[0].OnHead)
	mass := in.Pieces[0].Mass
	assert.InDelta(t, plain.Tally.Weight+0.6*float64(placed[0])+mass*float64(placed[1]), res.Tally.Weight, 1e-6)
	assert.Greater(t, res.Tally.Minutes, plain.Tally.Minutes)

	at := parting.Direction{0.36, 0.48, 0.8}
	in.Accents = []Accent{{Thing: cuff, Where: Where{Kind: AtPlaces, Places: []parting.Direction{at}}, Count: 1}}
	res, err = Compute(t.Context(), in)
	require.NoError(t, err)
	assert.Equal(t, 1, res.Need.Things[0].Count)
}

func TestMixesAndAccentsThatCanNotBeAreRefused(t *testing.T) {
	for path, spoil := range map[string]func(*Input){
		"uses[0].mix": func(in *Input) {
			in.Uses[0].Piece, in.Uses[0].Mix = firstPiece, []Share{{firstPiece, 1}, {firstPiece, 1}}
		},
		"uses[0].mix[1].piece": func(in *Input) { in.Uses[0].Piece, in.Uses[0].Mix = "", []Share{{firstPiece, 1}, {"gone", 1}} },
		"uses[0].mix[0].parts": func(in *Input) { in.Uses[0].Piece, in.Uses[0].Mix = "", []Share{{firstPiece, 0}, {firstPiece, 1}} },
		"accents[0].piece":     func(in *Input) { in.Accents = []Accent{{Where: Where{Kind: InFront}, Count: 3}} },
		"accents[0].count":     func(in *Input) { in.Accents = []Accent{{Piece: firstPiece, Where: Where{Kind: InFront}}} },
		"accents[0].thing.pack": func(in *Input) {
			in.Accents = []Accent{{Thing: &Thing{Name: "Cuff"}, Where: Where{Kind: InFront}, Count: 3}}
		},
		"day.install":      func(in *Input) { in.Day = &Day{Install: "4.12.2026"} },
		"spares.amount":    func(in *Input) { in.Spares.Amount = "plenty" },
		"pieces[0].swatch": func(in *Input) { in.Pieces = slices.Clone(in.Pieces); in.Pieces[0].Swatch = "brown" },
	} {
		in := Default()
		in.Uses = slices.Clone(in.Uses)
		spoil(&in)
		refused := invalid.From(Check(in))
		require.NotEmpty(t, refused, path)
		assert.Equal(t, path, refused[0].Path)
	}
}

// Every place where a piece hangs comes once in working order, what is hooked behind before the
// hairline and the part line; packs reach further one after the other, the last one all.
func TestPacksReachInWorkingOrder(t *testing.T) {
	for _, structure := range []parting.Structure{parting.AllIndividuals, parting.EarToEar, parting.PartLine, parting.Perimeter, parting.Linked} {
		in := Default()
		in.Parting.Structure = structure
		s, err := Supply(t.Context(), in)
		require.NoError(t, err)
		res, err := Compute(t.Context(), in)
		require.NoError(t, err)
		require.Len(t, s.Fillings, 1)
		f := s.Fillings[0]
		seen := slices.Sorted(slices.Values(f.Order))
		assert.Equal(t, len(res.Places), len(slices.Compact(seen)), structure)
		yield, last := in.Pieces[0].Pack.Yield(), 0
		for i, r := range f.Reach {
			assert.Equal(t, i+1, r.Packs)
			assert.LessOrEqual(t, r.Pieces, yield*r.Packs)
			assert.GreaterOrEqual(t, r.Places, last)
			last = r.Places
		}
		assert.Equal(t, len(res.Places), last)
		assert.Equal(t, s.Need.Pieces[0].Without, len(f.Reach), "as many packs as without spares")
		if structure == parting.PartLine {
			assert.NotEqual(t, method.OnPlait, res.Places[f.Order[0]].Ground, "tracks first")
			assert.Equal(t, method.OnPlait, res.Places[f.Order[len(f.Order)-1]].Ground, "the part line last")
		}
	}
	// Behind from the nape up.
	res, err := Compute(t.Context(), Default())
	require.NoError(t, err)
	s, err := Supply(t.Context(), Default())
	require.NoError(t, err)
	first, late := res.Places[s.Fillings[0].Order[0]], res.Places[s.Fillings[0].Order[len(res.Places)-1]]
	assert.Less(t, first.At[2], -20.0)
	assert.Greater(t, late.At[0], first.At[0])
}

// What is prepared follows from the form of the pieces and from the house's way.
func TestPreparationFollowsFromTheHair(t *testing.T) {
	keys := func(in Input) (out []string) {
		s, err := Supply(t.Context(), in)
		require.NoError(t, err)
		for _, task := range s.Tasks {
			out = append(out, task.Key)
			assert.NotEmpty(t, task.Steps, task.Key)
			assert.Positive(t, task.Minutes, task.Key)
		}
		return out
	}
	assert.Equal(t, []string{"rinse", "stretch:p1"}, keys(Default()))
	in := Default()
	in.Customs = map[string]string{"rinse": "new"}
	in = withPiece(in, func(p *hair.Piece) { p.Loop = 30 })
	assert.Empty(t, keys(in), "a loop that is wide enough, and hair used as it comes")
	in.Ways = slices.Clone(in.Ways)
	in.Ways[0] = NewWay(firstWay, method.CollarAndWrap)
	assert.Equal(t, []string{"wrap:w1"}, keys(in))

	bulk := withPiece(Default(), func(p *hair.Piece) {
		p.Form, p.Length, p.Sold, p.Pack = hair.Bulk, 254, 1016, hair.Pack{Units: 32, Cuts: 2, Splits: 3}
	})
	bulk.Ways = slices.Clone(bulk.Ways)
	bulk.Ways[0] = NewWay(firstWay, method.FoldAndTwist)
	s, err := Supply(t.Context(), bulk)
	require.NoError(t, err)
	cut := s.Tasks[0]
	require.Equal(t, "cut:p1", cut.Key)
	// A strand of 40 in cut in two and folded hangs 10 in; each gives six.
	assert.InDelta(t, 254, cut.Cut.Hanging(), 1e-9)
	need := s.Need.Pieces[0].OnHead + s.Need.Pieces[0].Fill + s.Need.Pieces[0].Spares
	assert.Equal(t, (need+5)/6, cut.Count)

	made := withPiece(Default(), func(p *hair.Piece) { p.Form, p.Length, p.Thickness, p.Loop = hair.HandmadeLoc, 610, 10, 30 })
	made.Ways = slices.Clone(made.Ways)
	made.Ways[0] = NewWay(firstWay, method.SharedLoop)
	made.Customs = map[string]string{"pieces": "made"}
	s, err = Supply(t.Context(), made)
	require.NoError(t, err)
	assert.Equal(t, "make:p1", s.Tasks[0].Key)
	require.NotEmpty(t, s.Tasks[0].Batches)
	assert.Equal(t, s.Tasks[0].Count, s.Tasks[0].Batches[len(s.Tasks[0].Batches)-1].To)
}

// The chosen amount decides what is bought, and says so.
func TestTheChosenAmountIsBought(t *testing.T) {
	in := Default()
	spares := func(a supply.AmountName) PieceNeed {
		in.Spares.Amount = a
		res, err := Compute(t.Context(), in)
		require.NoError(t, err)
		return res.Need.Pieces[0]
	}
	least, likely, safe := spares(supply.LeastAmount), spares(supply.LikelyAmount), spares(supply.SafeAmount)
	assert.Zero(t, least.Spares)
	assert.Greater(t, likely.Spares, 0)
	assert.Greater(t, safe.Spares, likely.Spares)
	assert.GreaterOrEqual(t, safe.Enough, supply.SafeShare)
	assert.Equal(t, safe.Amounts.Safe, safe.OnHead+safe.Spares)
	in.Spares.Spoilt = 0.1
	assert.Greater(t, spares(supply.SafeAmount).Spares, safe.Spares, "a studio that spoils more")
}

// A plan with a mix, accents, a day, an amount and pieces of the supplies is written and read back as it
// was; earlier documents have none of it and mean what they meant.
func TestWhatIsSuppliedGoesThereAndBack(t *testing.T) {
	in := inTwoColours()
	in.Pieces = slices.Clone(in.Pieces)
	in.Pieces[1].Item, in.Pieces[1].Swatch, in.Pieces[1].Stiffness, in.Pieces[1].Sold = "item", "#b98a4a", hair.Firm, 1016
	in.Pieces[1].Offers = []hair.Offer{{Packs: 6, Price: 6600, Supplier: "near"}}
	in.Ways = slices.Clone(in.Ways)
	in.Ways[0] = NewWay(firstWay, method.CollarAndWrap)
	in.Ways[0].Wrapping.Name, in.Ways[0].Wrapping.Item, in.Ways[0].Wrapping.Cuts = "Marlow wrap", "wrap", 2
	in.Accents = []Accent{{Thing: &Thing{Name: "Cuff", Mass: 0.6, Pack: 12, Price: 450, Item: "cuffs", Colour: "Brass"}, Where: Where{Kind: InFront}, Count: 8}}
	in.Day, in.Spares.Amount = &Day{Install: "2027-03-20"}, supply.LikelyAmount
	require.NoError(t, Check(in))
	raw, err := File{Title: "All of it", Input: in}.Encode()
	require.NoError(t, err)
	back, err := ReadFile(bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, in, back.Input)

	plain, err := json.Marshal(Default())
	require.NoError(t, err)
	for _, field := range []string{"mix", "accents", "\"day\"", "amount", "swatch", "soldMm", "\"item\""} {
		assert.NotContains(t, string(plain), field, "what is not said is not written")
	}
	told := Changes(Default(), in)
	var labels []string
	for _, c := range told {
		labels = append(labels, c.Label)
	}
	for _, label := range []string{"Pieces", "Ways", "Who gets what", "Spares as much as", "Accents", "Day of the install"} {
		assert.Contains(t, labels, label)
	}
}

// A rule that names a mix replaces the one before it, and a later rule wins over the mix; hooks stand as
// far apart as the thickest of a mix wants.
func TestMixesAreRulesLikeOthers(t *testing.T) {
	in := inTwoColours()
	in.Parting.Structure = parting.EarToEar
	in.Uses = append(slices.Clone(in.Uses), Use{Where: Where{Kind: InFront}, Piece: firstPiece})
	res, err := Compute(t.Context(), in)
	require.NoError(t, err)
	behind := map[int]int{}
	for _, p := range res.Places {
		if p.Front {
			assert.Zero(t, p.Piece, "in front the later rule")
		} else {
			behind[p.Piece]++
		}
	}
	assert.Len(t, behind, 2)
	thin := in.HookSpacing()
	in.Pieces = slices.Clone(in.Pieces)
	in.Pieces[1].Thickness *= 1.5
	assert.InEpsilon(t, 1.5*thin, in.HookSpacing(), 1e-9)

	other, err := in.With(hair.Piece{
		Name: "Thin", Form: hair.SoftLoc, Length: 400, Thickness: 5, Mass: 2, Pack: hair.Pack{Units: 30, Cuts: 1, Splits: 1}, Offers: []hair.Offer{{Packs: 1, Price: 900}},
	})
	require.NoError(t, err)
	assert.Equal(t, firstPiece, other.Uses[0].Piece)
	assert.Empty(t, other.Uses[0].Mix)
	assert.Equal(t, "Thin", other.Piece(firstPiece).Name)
	_, err = in.With(hair.Piece{Name: "None"})
	assert.NotEmpty(t, invalid.From(err))
	assert.Len(t, in.Uses[0].Mix, 2, "the plan itself is as it was")
}
