package wish

import (
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/parting"
)

// Every field of a wish changes the line that tells it.
func TestEveryFieldOfAWishIsSaid(t *testing.T) {
	whole := Wanted{
		Look: Locs, Finish: Neat, To: "waist", Full: Airy, Minutes: 300, Sittings: 2, Sitting: 120, Money: 9000, Nothing: true,
		Lots: []InHand{{Piece: hair.Piece{Name: "Saved loc"}, Count: 52, Worn: 18}}, Weeks: 5, Style: "tied", Water: "swim", Off: 45, Reuse: true,
		Cornrow: No, Helper: true, Base: parting.Horseshoe,
	}
	v := reflect.ValueOf(whole)
	for i := range v.NumField() {
		less := whole
		reflect.ValueOf(&less).Elem().Field(i).SetZero()
		assert.NotEqual(t, whole.Says(), less.Says(), v.Type().Field(i).Name)
	}
	assert.Equal(t, "open", Wanted{}.Says())
}

// What cannot be is refused at its field.
func TestWishesThatCannotBe(t *testing.T) {
	for path, w := range map[string]Wanted{
		"look": {Look: "bob"}, "to": {To: "thigh"}, "minutes": {Minutes: 5}, "weeks": {Weeks: 60}, "lots": {Nothing: true}, "base": {Base: "halo"},
		"lots[0].worn": {Lots: []InHand{{Piece: hair.Piece{
			Name: "Loc", Form: hair.SoftLoc, Length: 457, Thickness: 9, Mass: 4, Pack: hair.Pack{Units: 20, Cuts: 1, Splits: 1}, Offers: []hair.Offer{{Packs: 1}},
		}, Count: 3, Worn: 4}}},
	} {
		bad := invalid.From(w.Check())
		if assert.Len(t, bad, 1, path) {
			assert.Equal(t, path, bad[0].Path)
		}
	}
	assert.NoError(t, Wanted{Look: Curls, To: "chin", Full: Full, Minutes: 240, Weeks: 4}.Check())
}
