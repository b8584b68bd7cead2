package sheet

import (
	"bytes"
	"context"
	_ "embed"
	"fmt"
	"html/template"
	"strings"
	"time"
)

// Care is what a client is handed about their head. It names nobody but the studio.
type Care struct {
	Studio string // empty where the studio has no name
	Lines  []CareLine
	// Says is for how long it is worn, in a sentence.
	Says  string
	Dates []CareDate
	// At is when it is handed over.
	At time.Time
	// Down is true once the head is taken down.
	Down bool
}

// CareLine is one thing to do, or to leave.
type CareLine struct {
	Title, Text string
	Every       int // days; 0 for what is no matter of days
	Avoid       bool
}

// Often says how often it is done.
func (l CareLine) Often() string {
	switch l.Every {
	case 0:
		return ""
	case 1:
		return "every day"
	}
	return fmt.Sprintf("every %d days", l.Every)
}

// CareDate is a day on which something is due, such as 2026-12-04.
type CareDate struct {
	On, Title string
	// Last is true for the day it is taken down.
	Last bool
}

// Day is the date as it is read.
func (d CareDate) Day() string { return onDay(d.On) }

const careNote = "Usual practice of the trade, not medical advice. What hurts, breaks or lasts is for a clinician."

// CarePDF writes the care of a head on one paper. The error is that of ctx when it ends first.
func CarePDF(ctx context.Context, c Care, paper string) ([]byte, error) {
	w := newPage(ctx, Plan{Title: "The care of your hair", Updated: c.At}, Style{Paper: paper})
	return w.written(w.AddPage, func() { w.care(c) })
}

func (w *page) care(c Care) {
	w.say(21, "B", ink, "The care of your hair")
	if c.Studio != "" {
		w.say(10.5, "", soft, c.Studio)
	}
	w.SetDrawColor(leaf[0], leaf[1], leaf[2])
	w.SetLineWidth(0.7)
	w.Line(w.left, w.GetY()+2, w.left+w.width, w.GetY()+2)
	w.Ln(5)
	for _, l := range c.Lines {
		w.keep(20)
		title := l.Title
		if l.Avoid {
			title += " – leave it"
		}
		if often := l.Often(); often != "" {
			title += " · " + often
		}
		w.say(11.5, "B", leaf, title)
		w.say(10, "", ink, l.Text)
		w.Ln(2)
	}
	w.keep(12)
	w.say(10, "B", ink, c.Says)
	w.Ln(2)
	if len(c.Dates) > 0 {
		w.title("Days to remember")
		for _, d := range c.Dates {
			w.box(d.Title+" – "+d.Day(), "", false)
		}
	}
	w.Ln(1.5)
	w.say(8.5, "", soft, careNote)
}

//go:embed care.html
var careText string

var carePage = template.Must(template.New("care").Parse(careText))

// Faces are the addresses of the faces of a page: of headings, and of text.
type Faces struct{ Display, Text string }

// CarePage writes the care of a head as a page for a phone, with the next day that is due from today on.
// The nonce is that of its styles; calendar is where its days are fetched as calendar entries.
func CarePage(c Care, today, nonce, calendar string, faces Faces) ([]byte, error) {
	var next []CareDate
	for _, d := range c.Dates {
		if d.On >= today {
			next = append(next, d)
		}
	}
	view := struct {
		Care
		Next, Later           []CareDate
		Nonce, Calendar, Note string
		Faces                 Faces
		Do, Leave             []CareLine
	}{Care: c, Nonce: nonce, Calendar: calendar, Note: careNote, Faces: faces}
	if len(next) > 0 {
		view.Next, view.Later = next[:1], next[1:]
	}
	for _, l := range c.Lines {
		if l.Avoid {
			view.Leave = append(view.Leave, l)
		} else {
			view.Do = append(view.Do, l)
		}
	}
	var b bytes.Buffer
	if err := carePage.Execute(&b, view); err != nil {
		return nil, fmt.Errorf("writing the page on care: %w", err)
	}
	return []byte(strings.TrimSpace(b.String()) + "\n"), nil
}
