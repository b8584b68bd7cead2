package export

import (
	"encoding/csv"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kladotex/core/hair"
	"kladotex/core/supply"
)

func noStop(int) error { return nil }

// What is written is RFC 4180 and can be read by any reader of it: CRLF, quotes doubled.
func TestTablesAreRFC4180(t *testing.T) {
	raw := WriteLots([]LotRow{{ID: "a", Item: "Driftline, \"soft\"\nloc", Lot: supply.Lot{Colour: "=cmd()", Pack: 20, Condition: supply.New}}})
	text := strings.TrimPrefix(string(raw), "\ufeff")
	assert.NotEqual(t, text, string(raw), "a byte-order mark")
	assert.Contains(t, text, "\"Driftline, \"\"soft\"\"\r\nloc\"")
	assert.Contains(t, text, ",'=cmd(),", "no formula for a spreadsheet")
	records, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	require.NoError(t, err)
	require.Len(t, records, 2)
	assert.Equal(t, "Driftline, \"soft\"\nloc", records[1][0])
}

// Whatever is written is read back as it was.
func TestItemsGoThereAndBack(t *testing.T) {
	word := rapid.StringMatching(`[A-Za-zéßå=+'"; ,-]{1,20}[a-z]`)
	rapid.Check(t, func(t *rapid.T) {
		rows := make([]ItemRow, rapid.IntRange(1, 6).Draw(t, "n"))
		for i := range rows {
			kind := supply.Kinds[rapid.IntRange(0, len(supply.Kinds)-1).Draw(t, "kind")]
			item := supply.Item{
				Schema: supply.ItemSchema, Kind: kind.Kind, Name: strings.TrimSpace(fmt.Sprint(word.Draw(t, "name"), i)), Line: strings.TrimSpace(word.Draw(t, "line")),
				Length: float64(rapid.IntRange(750, 13000).Draw(t, "tenths")) / 10, Folded: rapid.Bool().Draw(t, "folded"),
				Thickness: float64(rapid.IntRange(4, 60).Draw(t, "halves")) / 2, Mass: float64(rapid.IntRange(1, 500).Draw(t, "mass")) / 10,
				Stiffness: hair.Firm, Fibre: supply.Blend, Coated: rapid.Bool().Draw(t, "coated"),
				Pack: hair.Pack{Units: rapid.IntRange(1, 500).Draw(t, "units"), Cuts: 2, Splits: 3}, Currency: "USD",
				Colours: []supply.Colour{{Name: "Peat", Swatch: "#2f2119", Tip: "#8a6238"}, {Name: "Tar", Swatch: "#1b1714"}},
				Offers:  []hair.Offer{}, Articles: []supply.Article{}, Note: strings.TrimSpace(word.Draw(t, "note")),
			}
			rows[i] = ItemRow{ID: fmt.Sprint("id", i), Item: item}
			if rapid.Bool().Draw(t, "sold") {
				rows[i].Offer = &hair.Offer{Packs: rapid.IntRange(1, 9).Draw(t, "packs"), Price: int64(rapid.IntRange(0, 99999).Draw(t, "price")), Supplier: "near"}
			}
		}
		got, bad, err := ReadItems(WriteItems(rows, 100), "USD", 100, noStop)
		if err != nil || len(bad) > 0 || len(got) != len(rows) {
			t.Fatalf("%v %v, %d of %d", err, bad, len(got), len(rows))
		}
		for i, want := range rows {
			if want.Offer != nil {
				want.Item.Offers = []hair.Offer{*want.Offer}
			}
			if fmt.Sprintf("%+v", got[i].Item) != fmt.Sprintf("%+v", want.Item) || got[i].ID != want.ID {
				t.Fatalf("line %d:\n%+v\n%+v", got[i].Line, got[i].Item, want.Item)
			}
		}
	})
}

// What spreadsheets of other lands make of it.
func TestTablesOfSpreadsheetsAreRead(t *testing.T) {
	for name, text := range map[string]string{
		"semicolons and decimal commas": "\ufeffName;Kind;Length (cm);Weight of one (g);In a pack;Price\r\nDriftline;Soft loc;45,7;4,2;20;12,50\r\n",
		"inches in the column's name":   "Name,Kind,\"Length, in\",Mass,In a pack,Price\nDriftline,soft-loc,18,4.2,20,\"$12.50\"\n",
		"inches in the cell":            "name\tform\tLength\tweight\tpack\tprice\nDriftline\tSoft loc\t18 in\t4.2 g\t20\t12.5\n",
		"other order, further columns":  "In a pack,Shelf,Kind,Name,Length (mm),Weight,Price\n20,B2,SOFT-LOC,Driftline,457,4.2,12.50\n\n",
	} {
		got, bad, err := ReadItems([]byte(text), "USD", 100, noStop)
		require.NoError(t, err, name)
		require.Empty(t, bad, name)
		require.Len(t, got, 1, name)
		i := got[0].Item
		assert.InDelta(t, 457, i.Length, 0.5, name)
		assert.InDelta(t, 4.2, i.Mass, 1e-9, name)
		assert.Equal(t, supply.Kind("soft-loc"), i.Kind, name)
		require.Len(t, i.Offers, 1, name)
		assert.EqualValues(t, 1250, i.Offers[0].Price, name)
	}
	for text, want := range map[string]float64{"1,250.50": 1250.5, "1.250,50": 1250.5, "1 250,5": 1250.5, "-3": -3, "4,2": 4.2} {
		v, _, ok := readNumber(text)
		assert.True(t, ok, text)
		assert.InDelta(t, want, v, 1e-9, text)
	}
}

// Every wrong line is named with its column, and the others are read all the same.
func TestWhatIsWrongIsToldByLine(t *testing.T) {
	text := "Name,Kind,Length (mm),In a pack,Price\nGood,soft-loc,450,20,12\nBad,soft-loc,long,20,12\nWorse,soft-loc,450,2.5,12\nToo,soft-loc,450,20,12,and more\n"
	got, bad, err := ReadItems([]byte(text), "USD", 100, noStop)
	require.NoError(t, err)
	assert.Len(t, got, 3)
	require.Len(t, bad, 3)
	assert.Equal(t, LineError{3, "Length (mm)", `A number belongs here; it is "long".`}, bad[0])
	assert.Equal(t, 4, bad[1].Line)
	assert.Equal(t, "In a pack", bad[1].Column)
	assert.Equal(t, 5, bad[2].Line)

	for text, words := range map[string]string{
		"":                                  "empty",
		"Date,Amount,Payee\n1,2,3\n":        "another program",
		"Name,Length (mm)\nA,3\n":           "missing",
		"Name,Name,Kind,In a pack\n":        "twice",
		"Name,Kind,Length (ft),In a pack\n": "mm, cm or in",
		"Name,Kind,In a pack\na\xff,b,3\n":  "UTF-8",
		"Name,Kind,In a pack\n\"a\"b,c,3\n": "quote",
	} {
		_, bad, err := ReadItems([]byte(text), "USD", 100, noStop)
		require.NoError(t, err)
		require.NotEmpty(t, bad, text)
		assert.Contains(t, bad[0].Message, words, text)
	}
	_, bad, err = ReadLots([]byte("Piece,Id\nA,1\nA,1\n"), noStop)
	require.NoError(t, err)
	require.Len(t, bad, 1)
	assert.Contains(t, bad[0].Message, "line 2", "a lot used twice")
	_, bad, err = ReadOrders([]byte("Piece,How many,Price,Currency\nA,1,2,EUR\nB,0,1,USD\n"), "USD", 100, noStop)
	require.NoError(t, err)
	require.Len(t, bad, 2)
	assert.Contains(t, bad[0].Message+bad[1].Message, "EUR")
}

// No file, however broken, does more than be refused.
func FuzzTablesAreReadOrRefused(f *testing.F) {
	f.Add([]byte("Name,Kind,In a pack\nDriftline,soft-loc,20\n"))
	f.Add([]byte("\ufeffName;Kind;In a pack;Length (in)\r\n\"a\"\"b\";x;1,5;18\r\n"))
	f.Add([]byte("Piece\tColour\n\x00\xff\n"))
	f.Fuzz(func(t *testing.T, raw []byte) {
		items, bad, err := ReadItems(raw, "USD", 100, noStop)
		if err != nil {
			t.Fatal(err)
		}
		if len(items) == 0 && len(bad) == 0 && strings.Count(string(raw), "\n") > 2 && strings.Contains(string(raw), "Driftline") {
			t.Fatal("neither read nor refused")
		}
		if _, _, err := ReadLots(raw, noStop); err != nil {
			t.Fatal(err)
		}
		if _, _, err := ReadOrders(raw, "USD", 100, noStop); err != nil {
			t.Fatal(err)
		}
	})
}

func BenchmarkReadFiftyThousandLines(b *testing.B) {
	rows := make([]ItemRow, MaxLines)
	for i := range rows {
		rows[i] = ItemRow{ID: fmt.Sprint(i), Item: supply.Item{Kind: "soft-loc", Name: fmt.Sprint("Line ", i), Length: 457, Mass: 4.2, Pack: hair.Pack{Units: 20, Cuts: 1, Splits: 1}}}
	}
	raw := WriteItems(rows, 100)
	for b.Loop() {
		if _, _, err := ReadItems(raw, "USD", 100, noStop); err != nil {
			b.Fatal(err)
		}
	}
}
