package flat

import (
	"bytes"
	"encoding/json"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kladotex/core/parting"
	"kladotex/core/plan"
	"kladotex/core/tally"
)

// What is written by hand is what encoding/json writes, to the letter.
func TestColumnsAreJSON(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 1))
	for _, structure := range []parting.Structure{parting.AllIndividuals, parting.Horseshoe, parting.NetCap, parting.Linked} {
		in := plan.Default()
		in.Parting.Structure = structure
		in.Parting.Front.Width = 20 + 20*r.Float64()
		res, err := tally.Compute(t.Context(), in)
		require.NoError(t, err)
		sent := Of(&res)
		var theirs bytes.Buffer
		ours, err := Marshal(sent)
		require.NoError(t, err)
		encoder := json.NewEncoder(&theirs)
		encoder.SetEscapeHTML(false)
		require.NoError(t, encoder.Encode(sent))
		assert.Equal(t, theirs.String(), string(ours)+"\n")
	}
}
