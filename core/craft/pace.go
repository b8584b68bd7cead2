package craft

// Work at the head, of practised hands on another’s head.
const (
	// SettleTime: to detangle, set out and clip away before the first part.
	SettleTime = 15.0 // min; common practice
	// FinishTime: to check the back, trim and smooth.
	FinishTime = 10.0 // min; common practice
	// TrimStart: to comb out and find the guide before ends are cut.
	TrimStart = 4.0 // min; common practice
	// BluntTime: to cut one piece to a blunt line.
	BluntTime = 0.08 // min/piece; common practice
	// LayerTime: to cut one to its layer.
	LayerTime = 0.12 // min/piece; common practice
	// BobTime: to cut one to a rounded bob.
	BobTime = 0.15 // min/piece; common practice
	// DipStart: to heat water, measure it and lay towels.
	DipStart = 6.0 // min; common practice
	// DipTime: to dip the end of one braid.
	DipTime = 0.12 // min/piece; common practice
	// EdgeTime: to lay the edges.
	EdgeTime = 3.0 // min; common practice
	// LooseFinish: more for every loose piece, which is trimmed and rolled.
	LooseFinish = 0.12 // min/piece; common practice
	// HookedFinish: more for every hooked piece, which is looked at.
	HookedFinish = 0.04 // min/piece; common practice
	// NetTime: to lay a net and stitch its edge.
	NetTime = 15.0 // min; common practice
	// TailTime: to tuck or stitch one tail.
	TailTime = 0.6 // min; common practice
	// AccentTime: to hook one piece on beside another.
	AccentTime = 0.5 // min; common practice
	// ThingTime: to close a cuff.
	ThingTime = 0.3 // min; common practice
	// RoughKnot: to rough up one knot.
	RoughKnot = 0.08 // min; common practice
	// FillTime: to find a thin spot and hook a piece into it.
	FillTime = 0.72 // min; common practice
	// PartTime: to part one section and clip the rest away.
	PartTime = 0.55 // min; common practice
	// CrispTime: more for a covered section whose parts are drawn as neat as those that show.
	CrispTime = 0.2 // min; common practice
	// RoughTime: less for a section parted by hand, without a comb.
	RoughTime = 0.15 // min; common practice
	// FeedTime: to feed a thin bit of hair into the end of a plait.
	FeedTime = 0.3 // min; common practice
	// BandOnTime: to put a small band round a root.
	BandOnTime = 0.15 // min; common practice
	// ProductTime: of what comes before the first part, for gel or balm along the parts.
	ProductTime = 3.0 // min; common practice
	// FoamTime: of the finish, for setting foam and some minutes under a scarf.
	FoamTime = 5.0 // min; common practice
	// FoamOn: of that, for putting it on, where the scarf stays on overnight.
	FoamOn = 2.0 // min; common practice
	// CornrowTime: to part one cornrow.
	CornrowTime = 0.4 // min; common practice
	// CornrowRate: plaiting a cornrow.
	CornrowRate = 0.016 // min/mm; common practice
	// Decorative: how much longer a cornrow takes that is drawn to be seen.
	Decorative = 4.0 // times; common practice
	// FeedStart: more for a decorative cornrow with hair fed in: to lay out its bits.
	FeedStart = 0.5 // min; common practice
	// FeedRate: to feed hair in along it: with that, six on a side take about an hour.
	FeedRate = 0.024 // min/mm; common practice
	// RingTime: to string one ring before a cornrow is plaited.
	RingTime = 0.3 // min; common practice
	// SlipSlower: how much longer plaiting takes where hair slips through the fingers.
	SlipSlower = 1.15 // times; common practice
	// LinkedShare: how much of its length a plait is worked before it is laid into the next.
	LinkedShare = 0.6 // share; common practice
	// LayBack: to lay a plait back into the base once its piece hangs, or under a net.
	LayBack = 0.2 // min; common practice
	// UndoShare: what undoing a plait or a cornrow takes ÷ what making it takes.
	UndoShare = 0.35 // share; common practice
)

// Hands.
const (
	// BeginnerFactor: how much longer a beginner takes.
	BeginnerFactor = 1.45 // times; common practice
	// UsedFactor: how much longer hands take that are used to it.
	UsedFactor = 1.15 // times; common practice
	// FastFactor: how long fast hands take.
	FastFactor = 0.8 // times; common practice
	// OwnHead: how much longer one takes on one’s own head.
	OwnHead = 1.25 // times; common practice
	// WarmUp: by how much more the first piece of a new method takes.
	WarmUp = 1.2 // times; common practice
	// WarmPieces: after how many of them that falls to a third.
	WarmPieces = 4.0 // pieces; common practice
	// Unlogged: the spread of a first estimate either way.
	Unlogged = 0.2 // share; common practice
	// LeastSpread: what stays of it however often a piece was timed.
	LeastSpread = 0.08 // share; common practice
	// TiredAfter: of work after which one tires.
	TiredAfter = 240.0 // min; common practice
	// MostTired: by how much more it takes then at the most.
	MostTired = 0.4 // times; common practice
	// TiredRate: by how much every minute beyond slows what comes then.
	TiredRate = 0.1 / 60 // per min; common practice
)

// Sittings.
const (
	// ArmsUp: of work with raised arms after which they are put down.
	ArmsUp = 20.0 // min; common practice
	// ArmsDown: for how long.
	ArmsDown = 2.0 // min; common practice
	// NearlyDue: of the work before a break, from where one rests rather than breaks off what comes next.
	NearlyDue = 0.75 // share; common practice
	// WaterEvery: after which water is offered.
	WaterEvery = 60.0 // min; common practice
	// LongSitting: how long a sitting is at the most where nothing is said.
	LongSitting = 8 * 60.0 // min; common practice
	// ChildSitting: the same of a child.
	ChildSitting = 2 * 60.0 // min; common practice
	// OwnSitting: the same of an evening on one’s own head.
	OwnSitting = 3 * 60.0 // min; common practice
	// BreakAfter: of work after which comes a break.
	BreakAfter = 90.0 // min; common practice
	// ChildBreakAfter: the same of a child.
	ChildBreakAfter = 40.0 // min; common practice
	// BreakLong: how long a break is.
	BreakLong = 10.0 // min; common practice
	// ChildStill: how long a child sits, from where it is told.
	ChildStill = 150.0 // min; common practice
	// LongDay: how long a day at the head is before it is told.
	LongDay = 8 * 60.0 // min; common practice
	// LongEvening: what a helper does at the most in one evening.
	LongEvening = 4 * 60.0 // min; common practice
	// UnsaidPause: longer than planned and this on top, between two taps at the chair, holds a pause nobody told of.
	UnsaidPause = 15.0 // min; common practice
	// PlannedWeighs: of an install that what was planned weighs as much as.
	PlannedWeighs = 20.0 // min; common practice
	// GuessWeighs: of logged work that a first guess weighs as much as.
	GuessWeighs = 60.0 // min; common practice
	// GuessInstalls: that the spread of a first guess weighs as much as.
	GuessInstalls = 2.0 // installs; common practice
)
