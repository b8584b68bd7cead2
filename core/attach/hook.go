package attach

import "kladotex/core/pieces"

// Ground is what pieces hang on where no plait hangs loose.
type Ground string

// The grounds.
const (
	OnTracks Ground = "tracks"
	OnNet    Ground = "net"
	OnLinks  Ground = "linked"
)

// Hang is what is to be hooked on a ground.
type Hang struct {
	Ground Ground
	Form   pieces.Form
	// Spacing is the distance between pieces on tracks and on a net, mm.
	Spacing float64
	// Tails is what is done with the loose tails of the tracks before anything hangs
	// on them, in words; empty where there are none.
	Tails       string
	TenderScalp bool
}

// Hooking is how pieces go on without a plait to hide: hitched on a track, through a
// net, or on plaits laid into one another. Its judgements are common practice, no
// source.
type Hooking struct {
	Ground Ground `json:"ground" enum:"tracks,net,linked"`
	Name   string `json:"name"`
	// Pieces are those hooked.
	Pieces  int    `json:"pieces"`
	Summary string `json:"summary"`
	Steps   []Step `json:"steps"`
	Root    string `json:"root" doc:"How the root looks and feels"`
	Undo    string `json:"undo"`
}

// Hook says how n pieces are hooked on.
func Hook(n int, j Hang) Hooking {
	h := Hooking{
		Ground: j.Ground, Pieces: n,
		Root: "flat, the knot out of sight",
		Undo: "push the loop back over the tail and draw the piece out: seconds each, and nothing is cut",
	}
	text := func(s string) { h.Steps = append(h.Steps, Step{Text: s}) }
	spaced := func(s string) { h.Steps = append(h.Steps, Step{s, map[string]float64{"length": j.Spacing}}) }
	// The base is finished before it carries anything: under hanging pieces no tail is
	// found again.
	if j.Tails != "" {
		text(j.Tails)
	}
	if j.Ground == OnNet {
		text("Lay the net over the flat plaits, its edge set back from the hairline and off the part line. Stitch the edge down, no knot against the scalp, and cut the surplus away.")
	}
	// Bulk hair has no loop: its middle is one.
	if j.Form == pieces.Bulk {
		text("Take one unit of bulk hair, hook by its root end, and find its middle: folded there, it is the loop.")
	} else {
		text("Stretch the loop with the tail of a comb; damp the piece, so that the hook does not snag.")
	}
	const hitch = "Catch the loop, push the piece up while the latch comes out, and draw it half through."
	switch j.Ground {
	case OnTracks:
		h.Name, h.Summary = "On the tracks", "A plain hitch round the track: no plait to hide, so it takes seconds."
		text("Start low at the back, so that what hangs already stays out of the way.")
		text("Push the hook under the whole track, latch covered, from the side away from the part. " + hitch)
	case OnNet:
		h.Name, h.Summary = "Through the net", "A plain hitch through the net and the plait under it together."
		text("Start low at the back, and keep inside the edge of the net.")
		text("Push the hook through the net and under the plait below it, both at once: net by itself tears. " + hitch)
	case OnLinks:
		h.Name, h.Summary = "On the linked plaits", "A plain hitch where each plait is laid into the next one behind it."
		text("Start at the end of the chains, low at the back.")
		text("Push the hook under the plait just in front of where it is laid into the next. " + hitch)
	}
	text("Pass the tail through its own loop and tighten: snug, the knot turned away from the part, never pulling the scalp.")
	switch j.Ground {
	case OnTracks:
		spaced("Hook the next one {length} further, each between two of the track beside it; closer where scalp would show.")
	case OnNet:
		spaced("Hook the next one {length} further, each between two of the row below.")
	}
	if j.TenderScalp {
		text("Tender scalp: work the base slack, and stop where hooking on tightens it. Pain, bumps or stinging mean loosen now.")
	}
	return h
}
