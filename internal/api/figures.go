package api

import (
	"context"
	"net/http"
	"runtime"

	"github.com/danielgtaylor/huma/v2"
	"golang.org/x/sync/errgroup"

	"kladotex/core/method/figure"
	"kladotex/core/method/moves"
	"kladotex/internal/picture"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// sketch is a drawn move.
type sketch struct {
	Title  string  `json:"title"`
	Stills []still `json:"stills"`
}

// still is one of its pictures, in words.
type still struct {
	Says  string   `json:"says"`
	Holds []string `json:"holds" doc:"What lies over, under, through and inside what"`
}

// outline is one path of a picture.
type outline struct {
	D       string  `json:"d" doc:"As in SVG"`
	Fill    string  `json:"fill,omitempty"`
	Line    string  `json:"line,omitempty"`
	Width   float64 `json:"width,omitempty"`
	Opacity float64 `json:"opacity"`
	Holes   bool    `json:"holes,omitempty"`
}

// lensView is where a part of the picture is shown again, larger.
type lensView struct {
	X         float64 `json:"x"`
	Y         float64 `json:"y"`
	Radius    float64 `json:"radius"`
	Transform string  `json:"transform" doc:"As in SVG"`
}

// motion is a still and the pictures on the way to it.
type motion struct {
	Stage []outline   `json:"stage" doc:"Behind everything"`
	Way   [][]outline `json:"way" doc:"What lies on the stage, picture by picture"`
	Still []outline   `json:"still"`
	Glass []outline   `json:"glass" doc:"Under what the lens shows"`
	Front []outline   `json:"front"`
	Lens  *lensView   `json:"lens,omitempty"`
}

// FigurePath names a still of a drawn move.
type FigurePath struct {
	Figure string `path:"figure" maxLength:"40"`
	Still  int    `path:"still" minimum:"0" maximum:"40"`
	Left   bool   `query:"left" doc:"For the left hand"`
}

// between is how many pictures are drawn on the way from one frame to the next.
const between = 14

// keptFor lets a browser keep for a while what is the same for everyone and changes only with
// the program.
const keptFor = "private, max-age=600"

func (p FigurePath) find(ctx context.Context) (figure.Figure, int, error) {
	f, ok := moves.Lookup(moves.ID(p.Figure))
	if stills := f.Stills(); ok && p.Still < len(stills) {
		return f, stills[p.Still], nil
	}
	return f, 0, problem(ctx, store.ErrNotFound, "")
}

// figureOperations are the drawn steps.
func (s *server) figureOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "figure", Method: http.MethodGet, Path: "/api/v1/figures/{figure}",
		Summary: "A drawn move: its pictures in words", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		Figure string `path:"figure" maxLength:"40"`
	}) (*struct{ Body sketch }, error) {
		f, _, err := FigurePath{Figure: in.Figure}.find(ctx)
		if err != nil {
			return nil, err
		}
		out := sketch{Title: f.Title}
		for _, i := range f.Stills() {
			one := still{Says: f.Frames[i].Says, Holds: []string{}}
			for _, state := range f.Frames[i].States {
				one.Holds = append(one.Holds, state.String())
			}
			out.Stills = append(out.Stills, one)
		}
		return &struct{ Body sketch }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "figurePicture", Method: http.MethodGet, Path: "/api/v1/figures/{figure}/{still}/picture.svg",
		Summary: "A picture of a drawn move", Metadata: rights(studio.All), Responses: file("image/svg+xml", "The picture"),
	}, func(ctx context.Context, in *struct {
		FigurePath
		Back bool `query:"back" doc:"As it comes off: without tools and arrows"`
	}) (*pictureOutput, error) {
		f, at, err := in.find(ctx)
		if err != nil {
			return nil, err
		}
		return &pictureOutput{"image/svg+xml", keptFor, picture.Figure(figure.Draw(turned(f.Frames[at], in.Left, in.Back), f.Stage, false), f.Frames[at].Says)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "figureMotion", Method: http.MethodGet, Path: "/api/v1/figures/{figure}/{still}/motion",
		Summary: "A picture of a drawn move with those on the way to it", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		FigurePath
		Back bool `query:"back" doc:"From the picture after it rather than from the one before it"`
	}) (*motionOutput, error) {
		f, at, err := in.find(ctx)
		if err != nil {
			return nil, err
		}
		from := in.Still - 1
		if in.Back {
			from = in.Still + 1
		}
		d := figure.Draw(turned(f.Frames[at], in.Left, in.Back), f.Stage, false)
		out := &motionOutput{CacheControl: keptFor, Body: motion{
			Stage: outlines(d.Stage), Way: [][]outline{}, Still: outlines(d.Strands), Glass: outlines(d.Glass), Front: outlines(d.Front),
		}}
		if l := d.Lens; l != nil {
			out.Body.Lens = &lensView{l.To.X, l.To.Y, l.Radius, picture.Enlarged(*l)}
		}
		if from < 0 || from >= len(f.Stills()) {
			return out, nil
		}
		way := f.Way(from, in.Still, between)
		out.Body.Way = make([][]outline, len(way))
		work, ctx := errgroup.WithContext(ctx)
		work.SetLimit(runtime.GOMAXPROCS(0))
		for i, frame := range way {
			work.Go(func() error {
				if ctx.Err() == nil {
					out.Body.Way[i] = outlines(figure.Draw(turned(frame, in.Left, in.Back), f.Stage, true).Strands)
				}
				return ctx.Err()
			})
		}
		if err := work.Wait(); err != nil {
			return nil, problem(ctx, err, "")
		}
		return out, nil
	})
}

type motionOutput struct {
	CacheControl string `header:"Cache-Control"`
	Body         motion
}

// turned is a frame for a hand, and for the way it is shown.
func turned(f figure.Frame, left, back bool) figure.Frame {
	if back {
		f = f.Bare()
	}
	if left {
		f = f.Mirror()
	}
	return f
}

func outlines(shapes []figure.Shape) []outline {
	out := make([]outline, len(shapes))
	for i, s := range shapes {
		out[i] = outline{D: picture.PathData(s), Width: s.Width, Opacity: s.Opacity, Holes: s.Holes}
		if s.Fill != nil {
			out[i].Fill = s.Fill.String()
		} else {
			out[i].Line = s.Line.String()
		}
	}
	return out
}
