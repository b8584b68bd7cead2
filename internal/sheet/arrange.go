package sheet

// block is a part of a paper that stays whole: its height in mm, and what draws it where the
// page stands.
type block struct {
	high float64
	draw func()
}

// lane is a stretch of a paper in columns of one width, read down the first, then down the next.
type lane struct {
	columns int
	// title stands over all columns, head on top of each of them, also where the lane goes on
	// upon a new page. Either may be empty.
	title, head block
	blocks      []block
}

// spared is how much of a page is full, at the least, that is ended before it must be.
const spared = 0.7

// Room between lanes and between columns, mm.
const laneGap, columnGap = 5.0, 8.0

// stand is where a block falls: on which page, in which column of how many, how far down.
type stand struct {
	page, column, of int
	top              float64
	block
}

// fill puts blocks into columns no higher than room and tells how many found place, and how high
// the columns are.
func (l lane) fill(blocks []block, room float64) (counts []int, high float64) {
	at := 0
	for range l.columns {
		y, n := l.head.high, 0
		for at < len(blocks) && y+blocks[at].high <= room+1e-6 {
			y += blocks[at].high
			at++
			n++
		}
		counts = append(counts, n)
		if n > 0 {
			high = max(high, y)
		}
	}
	return counts, high
}

func sum(counts []int) (all int) {
	for _, n := range counts {
		all += n
	}
	return all
}

// even is the least height of columns that hold all blocks; ok is false where room is too low.
func (l lane) even(blocks []block, room float64) (high float64, ok bool) {
	if counts, _ := l.fill(blocks, room); sum(counts) < len(blocks) {
		return 0, false
	}
	low, high := 0.0, room
	for high-low > 0.1 {
		middle := (low + high) / 2
		if counts, _ := l.fill(blocks, middle); sum(counts) == len(blocks) {
			high = middle
		} else {
			low = middle
		}
	}
	return high, true
}

// arrange says where the blocks of lanes fall on pages that have room mm each. A title stands
// over at least one block of its lane, and the last block never stands alone on a page. last is
// how full the last page is, mm.
func arrange(lanes []lane, room float64) (stands []stand, pages int, last float64) {
	page, y := 0, 0.0
	turn := func() { page, y = page+1, 0 }
	for _, l := range lanes {
		if len(l.blocks) == 0 {
			continue
		}
		begins := y
		if y > 0 {
			begins += laneGap
		}
		if y > 0 && begins+l.title.high+l.head.high+l.blocks[0].high > room {
			turn()
			begins = 0
		}
		if whole, ok := l.even(l.blocks, room-l.title.high); ok && begins > spared*room && begins+l.title.high+whole > room {
			turn() // better whole on the next page than torn
			begins = 0
		}
		y = begins
		if l.title.draw != nil {
			stands = append(stands, stand{page, 0, 1, y, l.title})
			y += l.title.high
		}
		for rest := l.blocks; len(rest) > 0; {
			high, ok := l.even(rest, room-y)
			if !ok {
				high = room - y
			}
			counts, used := l.fill(rest, high)
			all := sum(counts)
			switch {
			case all == 0 && y > 0:
				turn()
				continue
			case all == 0: // higher than a page: it stands there all the same
				counts[0], all, used = 1, 1, room
			case all == len(rest)-1 && all > 1:
				i := len(counts) - 1
				for counts[i] == 0 {
					i--
				}
				counts[i]--
				all--
			}
			k := 0
			for column, n := range counts {
				top := y
				if n > 0 && l.head.draw != nil {
					stands = append(stands, stand{page, column, l.columns, top, l.head})
				}
				top += l.head.high
				for range n {
					stands = append(stands, stand{page, column, l.columns, top, rest[k]})
					top += rest[k].high
					k++
				}
			}
			rest = rest[all:]
			y += used
			if len(rest) > 0 {
				turn()
			}
		}
	}
	return stands, page + 1, y
}

// settle arranges lanes so that the last page is a third full where that can be had: pages are
// ended a little sooner then, none more of them.
func settle(lanes []lane, room float64) []stand {
	first, pages, last := arrange(lanes, room)
	for less := 0.97; less > 0.6 && pages > 1 && last < room/3; less -= 0.03 {
		stands, n, full := arrange(lanes, less*room)
		if n == pages && full >= room/3 {
			return stands
		}
	}
	return first
}

// flow writes lanes from a new page on; top heads every page, and may be nil.
func (w *page) flow(lanes []lane, top func()) {
	_, high := w.GetPageSize()
	_, bottom := w.GetAutoPageBreak()
	head := 0.0
	if top != nil {
		head = w.measure(0, 1, top) - margin
	}
	w.SetAutoPageBreak(false, bottom)
	defer w.SetAutoPageBreak(true, bottom)
	page := -1
	for _, s := range settle(lanes, high-bottom-margin-head) {
		if w.ctx.Err() != nil {
			return
		}
		if s.page != page {
			page = s.page
			w.AddPage()
			if top != nil {
				top()
			}
		}
		w.SetY(margin + head + s.top)
		w.within(s.column, s.of, s.draw)
	}
}

// within draws in one of several columns of the page.
func (w *page) within(column, of int, draw func()) {
	left, width := w.left, w.width
	w.width = (width - columnGap*float64(of-1)) / float64(of)
	w.left = left + float64(column)*(w.width+columnGap)
	w.SetX(w.left)
	draw()
	w.left, w.width = left, width
}

// measure is where something ends, mm from the upper edge of a page, that is drawn in one of several
// columns from the margin on. The page it is drawn on is thrown away.
func (w *page) measure(column, of int, draw func()) float64 {
	if w.scratch == nil {
		w.scratch = newDocument(w.style, w.plan.Updated)
		w.scratch.SetAutoPageBreak(false, 0)
		w.scratch.AddPage()
	}
	paper := w.Fpdf
	w.Fpdf, w.measuring = w.scratch, true
	defer func() { w.Fpdf, w.measuring = paper, false }()
	w.SetXY(margin, margin)
	w.within(column, of, draw)
	return w.GetY()
}

// block is something measured, to stand in one of several columns.
func (w *page) block(of int, draw func()) block {
	return block{high: w.measure(0, of, draw) - margin, draw: draw}
}

// lane is a titled stretch in columns.
func (w *page) lane(columns int, title string, draws ...func()) lane {
	l := lane{columns: columns}
	if title != "" {
		l.title = w.block(1, func() { w.title(title) })
	}
	for _, draw := range draws {
		l.blocks = append(l.blocks, w.block(columns, draw))
	}
	return l
}

// rowsLane is a table as a lane: its head on every column, its rows whole.
func (w *page) rowsLane(columns int, title string, rows [][]string, shares []float64) lane {
	l := w.lane(columns, title)
	l.head = w.block(columns, func() { w.table(rows[:1], shares) })
	for i := 1; i < len(rows); i++ {
		l.blocks = append(l.blocks, w.block(columns, func() { w.cells(rows[i], shares, ink) }))
	}
	return l
}
