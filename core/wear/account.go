package wear

import "kladotex/core/chair"

// PieceAccount is what became of a piece over a head's life. It closes:
// Came = Hangs + UsedUp + Spoilt + Saved + Left.
type PieceAccount struct {
	Piece  string `json:"piece" doc:"Key of the piece"`
	Name   string `json:"name"`
	Came   int    `json:"came" doc:"Pieces that were at hand, repairs among them"`
	Hangs  int    `json:"hangs" doc:"On the head now"`
	UsedUp int    `json:"usedUp" doc:"Went on the head and did not come back"`
	Spoilt int    `json:"spoilt"`
	Saved  int    `json:"saved" doc:"Came back to be used again"`
	Left   int    `json:"left" doc:"Never hung"`
}

// Account is what became of every piece of a head, of the installs that hung it: the first one, and
// those by which rows were done again.
func (s *State) Account(logs ...chair.Log) []PieceAccount {
	out := []PieceAccount{}
	for _, log := range logs {
		for _, p := range log.Pieces {
			k := -1
			for i := range out {
				if out[i].Piece == p.Piece.Key {
					k = i
				}
			}
			if k < 0 {
				k = len(out)
				out = append(out, PieceAccount{Piece: p.Piece.Key, Name: p.Piece.Called()})
			}
			out[k].Hangs += p.Used
			out[k].Spoilt += p.Spoilt
			out[k].Left += p.Left
		}
	}
	for i := range out {
		a := &out[i]
		a.Saved = s.Saved[a.Piece]
		a.UsedUp = s.Spent[a.Piece]
		a.Hangs += s.Replacements[a.Piece] - a.UsedUp - a.Saved
		if s.Off >= 0 {
			a.UsedUp, a.Hangs = a.UsedUp+a.Hangs, 0
		}
		a.Came = a.Hangs + a.UsedUp + a.Spoilt + a.Saved + a.Left
	}
	return out
}
