package sheet

import (
	"kladotex/core/method/figure"
	"kladotex/core/method/moves"
)

// Drawn moves on paper: how wide one is, the gap between two, and their proportion.
const (
	moveWide   = 25.0
	moveGap    = 2.0
	moveIndent = 6.0 // room for the number of a step
	moveShape  = figure.Height / figure.Width
)

// stills are the pictures of a step that the steps before it have not shown: last is the
// clip before.
func stills(c, last *moves.Clip) (at []int) {
	if c == nil {
		return nil
	}
	first := c.First
	if last != nil && last.Figure == c.Figure && last.Last == c.First && c.Last > c.First {
		first++
	}
	for i := first; i <= c.Last; i++ {
		at = append(at, i)
	}
	return at
}

// pictures are drawn moves side by side.
func (w *page) pictures(n int, frame func(k int) (figure.Frame, figure.Stage)) {
	row := int((w.width - moveIndent + moveGap) / (moveWide + moveGap))
	var y float64
	for k := range n {
		if w.ctx.Err() != nil {
			return
		}
		if k%row == 0 {
			y = w.GetY()
		}
		f, stage := frame(k)
		w.figure(f, stage, w.left+moveIndent+float64(k%row)*(moveWide+moveGap), y)
		if k%row == row-1 || k == n-1 {
			w.SetXY(w.left, y+moveWide*moveShape+moveGap)
		}
	}
}

// figure draws a move with its upper left corner at a place, mm.
func (w *page) figure(f figure.Frame, stage figure.Stage, x, y float64) {
	if w.measuring {
		return
	}
	d := figure.Draw(f, stage, false)
	const scale = moveWide / figure.Width
	put := func(shapes []figure.Shape) {
		for _, s := range shapes {
			w.SetAlpha(s.Opacity, "Normal")
			paint := "F"
			if s.Fill == nil {
				paint = "D"
				w.SetDrawColor(int(s.Line[0]), int(s.Line[1]), int(s.Line[2]))
				w.SetLineWidth(s.Width * scale)
			} else {
				w.SetFillColor(int(s.Fill[0]), int(s.Fill[1]), int(s.Fill[2]))
				if s.Holes {
					paint = "F*"
				}
			}
			for _, p := range s.Paths {
				for i, q := range p {
					to := w.LineTo
					if i == 0 {
						to = w.MoveTo
					}
					to(x+q.X*scale, y+q.Y*scale)
				}
				if s.Fill != nil {
					w.ClosePath()
				}
			}
			w.DrawPath(paint)
		}
		w.SetAlpha(1, "Normal")
	}
	w.SetLineCapStyle("round")
	w.SetLineJoinStyle("round")
	w.ClipRect(x, y, moveWide, moveWide*moveShape, false)
	put(d.Stage)
	put(d.Strands)
	if l := d.Lens; l != nil {
		put(d.Glass)
		w.ClipCircle(x+l.To.X*scale, y+l.To.Y*scale, l.Radius*scale, false)
		w.TransformBegin()
		// What the lens shows is enlarged about the one place that it leaves where it is.
		still := func(at, to float64) float64 { return (to - l.Scale*at) / (1 - l.Scale) * scale }
		w.TransformScale(100*l.Scale, 100*l.Scale, x+still(l.At.X, l.To.X), y+still(l.At.Y, l.To.Y))
		put(d.Stage)
		put(d.Strands)
		w.TransformEnd()
		w.ClipEnd()
	}
	put(d.Front)
	w.ClipEnd()
	w.SetFillColor(rule[0], rule[1], rule[2]) // the page's own colour came back with the end of the clip
	w.SetDrawColor(rule[0], rule[1], rule[2])
	w.SetLineWidth(0.2)
	w.Rect(x, y, moveWide, moveWide*moveShape, "D")
}
