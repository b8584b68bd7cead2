package craft

// The plait of a section.
const (
	// BraidTakeUp: length of a plait ÷ that of its hair: a bundle of 36 in braids down to about 31 in.
	BraidTakeUp = 31.0 / 36.0 // share; common practice
	// TwistTakeUp: the same of two strands twisted, which take up about half as much.
	TwistTakeUp = 0.93 // share; common practice
	// Packing: how much of a plait’s cross-section is hair, the rest being air between strands.
	Packing = 0.5 // share; common practice
	// AnchorTurns: as few turns as hold a hitch.
	AnchorTurns = 3.0 // turns; common practice
	// AnchorLength: the hair that the anchor turns take: three turns of a plait as thick as a pencil.
	AnchorLength = 25.0 // mm; common practice
	// FedUsual: how far hair fed into the ends goes past them, where nothing else is said: two inches.
	FedUsual = 50.8 // mm; common practice
	// FallsOver: how long a plait that hangs under loose strands may be ÷ their length, so that it does not show among them.
	FallsOver = 0.6 // share; common practice
	// ThinShare: the least thickness of a plait ÷ that of the piece it carries.
	ThinShare = 0.18 // share; common practice
	// MostStretched: to how many times its opening a loop gives.
	MostStretched = 2.5 // times; common practice
	// SlackLoop: from how many times the plait’s thickness a loop sits slack on it.
	SlackLoop = 3.0 // times; common practice
	// Hook: the thickness of a latch hook, which passes through a loop together with the plait.
	Hook = 2.0 // mm; common practice
)
