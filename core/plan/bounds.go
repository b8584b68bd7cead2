package plan

// Bounds of the lists of a document.
const (
	MaxPieces = 12
	MaxWays   = 20
	MaxUses   = 200
	maxPlaces = 400 // of one use
	// How far apart pieces are hooked by a rule, in shares of the usual distance.
	leastApart, mostApart = 0.4, 3.0
	// MaxCount is the most pieces at one place.
	MaxCount = 6
)

// MaxFill bounds the pieces to fill with, of either sort.
const MaxFill = 200
