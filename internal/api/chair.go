package api

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/core/attach"
	"kladotex/core/chair"
	"kladotex/core/plan"
	"kladotex/internal/flat"
	"kladotex/internal/sheet"
	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// installDocument is an install as a device takes it along: nothing of it changes except its end.
type installDocument struct {
	ID      string       `json:"id"`
	PlanID  string       `json:"planId,omitempty" doc:"Left out once the plan is deleted"`
	Brief   chair.Brief  `json:"brief"`
	How     attach.How   `json:"how"`
	Head    flat.Preview `json:"head" doc:"How the head is drawn"`
	Engine  string       `json:"engine"`
	By      string       `json:"by"`
	Started time.Time    `json:"started"`
	Closed  *time.Time   `json:"closed,omitempty" doc:"When the last check was taken; left out while it goes on"`
	Papers  bool         `json:"papers" doc:"True where it has papers to take along"`
	// Hand is the key of the hand of who asks.
	Hand string `json:"hand" doc:"Key of the hand of who asks"`
}

// chairEntry is an install in a list.
type chairEntry struct {
	ID      string     `json:"id"`
	PlanID  string     `json:"planId,omitempty"`
	Title   string     `json:"title"`
	Client  string     `json:"client"`
	Started time.Time  `json:"started"`
	View    chair.View `json:"view"`
}

// InstallPath names an install.
type InstallPath struct {
	ID string `path:"id" maxLength:"64"`
}

// newInstall is an install to be started.
type newInstall struct {
	Made
	Unit  sheet.Unit `json:"unit" doc:"Unit of length on its papers"`
	Paper string     `json:"paper" enum:"letter,a4"`
}

// tellRequest is what a device tells, and what it knows.
type tellRequest struct {
	After  int64         `json:"after" minimum:"0" doc:"Cursor of the answer before; 0 asks for everything"`
	Events []chair.Event `json:"events" maxItems:"500"`
}

// told is what arrived since.
type told struct {
	Events []chair.Event `json:"events"`
	Cursor int64         `json:"cursor"`
	// Known is how many events there are in all: a device that knows more of them as sent sends
	// all again, as after a copy was put back.
	Known  int        `json:"known"`
	Closed *time.Time `json:"closed,omitempty"`
}

// loggedDocument is a finished install.
type loggedDocument struct {
	ID       string        `json:"id"`
	PlanID   string        `json:"planId,omitempty"`
	ClientID string        `json:"clientId,omitempty"`
	Title    string        `json:"title"`
	Client   string        `json:"client"`
	Started  time.Time     `json:"started"`
	Closed   time.Time     `json:"closed"`
	Log      chair.Log     `json:"log"`
	Stash    []store.Taken `json:"stash" doc:"What was taken out of the stash"`
	Papers   bool          `json:"papers" doc:"True where it has papers"`
}

func loggedOf(l store.Logged) loggedDocument {
	return loggedDocument{l.ID, l.PlanID, l.ClientID, l.Title, l.Client, l.Started, l.Closed, l.Log, append([]store.Taken{}, l.Stash...), l.Papers}
}

// learntPace is what is known of the pace of a person.
type learntPace struct {
	PersonID string             `json:"personId"`
	Name     string             `json:"name"`
	Skills   []studio.SkillPace `json:"skills"`
}

// maxPhoto is the size of a picture, bytes, above which it is refused.
const maxPhoto = 12 << 20

func timeOrNothing(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}

func (s *server) chairOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "startInstall", Method: http.MethodPost, Path: "/api/v1/plans/{id}/install",
		Summary: "Freeze a plan as it is stored and have it at the chair; one that is or was there is answered as it is", Metadata: rights(studio.All), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct {
		PlanPath
		Body newInstall
	}) (*struct{ Body installDocument }, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		i, err := s.studio.StartInstall(ctx, person(ctx), studio.Start{ID: in.Body.ID, PlanID: in.PlanPath.ID, Unit: in.Body.Unit, Paper: in.Body.Paper})
		return s.installAnswer(ctx, i, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "listInstalls", Method: http.MethodGet, Path: "/api/v1/installs",
		Summary: "The installs at the chair, and how they stand", Metadata: rights(studio.All),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body []chairEntry }, error) {
		list, err := s.studio.AtChair(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := make([]chairEntry, len(list))
		for k, i := range list {
			out[k] = chairEntry{i.ID, i.PlanID, i.Brief.Title, i.Brief.Client, i.Started, i.View}
		}
		return &struct{ Body []chairEntry }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readInstall", Method: http.MethodGet, Path: "/api/v1/installs/{id}",
		Summary: "An install as a device takes it along", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *InstallPath) (*struct{ Body installDocument }, error) {
		i, err := s.studio.Store.Install(ctx, in.ID)
		return s.installAnswer(ctx, i, err)
	})

	huma.Register(api, huma.Operation{
		OperationID: "tellInstall", Method: http.MethodPost, Path: "/api/v1/installs/{id}/events",
		Summary: "Add what happened at the chair, and read what others told since", Metadata: rights(studio.All), MaxBodyBytes: maxBody,
	}, func(ctx context.Context, in *struct {
		InstallPath
		Body tellRequest
	}) (*struct{ Body told }, error) {
		t, err := s.studio.Tell(ctx, person(ctx), in.ID, in.Body.After, in.Body.Events)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		i, err := s.studio.Store.Install(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body told }{told{append([]chair.Event{}, t.Events...), t.Cursor, t.Known, timeOrNothing(i.Closed)}}, nil
	})

	for _, p := range []struct {
		id, path, name string
		paper          store.InstallPaper
	}{
		{"installPlanSheet", "plan-sheet.pdf", "Plan sheet.pdf", store.PlanSheet},
		{"installDaySheet", "day-sheet.pdf", "Day sheet.pdf", store.DaySheet},
	} {
		huma.Register(api, huma.Operation{
			OperationID: p.id, Method: http.MethodGet, Path: "/api/v1/installs/{id}/" + p.path,
			Summary: "A paper as it was when the install began", Metadata: rights(studio.All), Responses: file("application/pdf", "The paper"),
		}, func(ctx context.Context, in *InstallPath) (*fileOutput, error) {
			body, err := s.studio.Store.InstallFile(ctx, in.ID, p.paper)
			if err != nil {
				return nil, problem(ctx, err, "")
			}
			return download("application/pdf", p.name, body), nil
		})
	}
	s.photoOperations(api)
	s.logOperations(api)
}

func (s *server) installAnswer(ctx context.Context, i store.Install, err error) (*struct{ Body installDocument }, error) {
	if err != nil {
		return nil, problem(ctx, err, "body.")
	}
	frozen, err := s.studio.Store.Frozen(ctx, i.ID)
	if err != nil {
		return nil, problem(ctx, err, "")
	}
	out := installDocument{
		ID: i.ID, PlanID: i.PlanID, Brief: i.Brief, How: frozen.How, Engine: i.Engine, By: i.By, Started: i.Started,
		Closed: timeOrNothing(i.Closed), Papers: i.Papers, Hand: s.studio.HandOf(i, person(ctx)),
	}
	out.Brief.Goods = append([]chair.Good{}, out.Brief.Goods...)
	if out.Head, err = flat.Read(frozen.Head); err != nil {
		return nil, problem(ctx, err, "")
	}
	return &struct{ Body installDocument }{out}, nil
}

// PhotoPath names a picture of an install.
type PhotoPath struct {
	InstallPath
	Photo string `path:"photo" format:"uuid" doc:"A random UUID, made by the device"`
}

func (s *server) photoOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "keepPhoto", Method: http.MethodPut, Path: "/api/v1/installs/{id}/photos/{photo}",
		Summary: "Keep a picture, small and without where it was taken, of one who was asked", Metadata: rights(studio.All), MaxBodyBytes: maxPhoto, DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *struct {
		PhotoPath
		Asked   bool   `query:"asked" doc:"True where who it shows said yes"`
		RawBody []byte `contentType:"image/jpeg"`
	}) (*struct{}, error) {
		end, err := s.long.begin(ctx, person(ctx).ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		defer end()
		if err := s.studio.KeepPhoto(ctx, person(ctx), in.ID, in.Photo, in.RawBody, in.Asked); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readPhoto", Method: http.MethodGet, Path: "/api/v1/installs/{id}/photos/{photo}",
		Summary: "A picture of an install", Metadata: rights(studio.All), Responses: file("image/jpeg", "The picture"),
	}, func(ctx context.Context, in *PhotoPath) (*pictureOutput, error) {
		body, err := s.studio.Store.Photo(ctx, in.ID, in.Photo)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &pictureOutput{"image/jpeg", "no-store", body}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "dropPhoto", Method: http.MethodDelete, Path: "/api/v1/installs/{id}/photos/{photo}",
		Summary: "Delete a picture of an install", Metadata: rights(studio.Crew), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *PhotoPath) (*struct{}, error) {
		if err := s.studio.Store.DropPhoto(ctx, in.ID, in.Photo); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, nil
	})
}

func (s *server) logOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listLog", Method: http.MethodGet, Path: "/api/v1/log",
		Summary: "A page of the finished installs, the latest first", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *PageWish) (*struct{ Body pageOf[loggedDocument] }, error) {
		page, err := in.page()
		if err != nil {
			return nil, err
		}
		list, err := s.studio.Store.Log(ctx, page)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return cut(list, *in, loggedOf), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "readLog", Method: http.MethodGet, Path: "/api/v1/log/{id}",
		Summary: "A finished install", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *InstallPath) (*struct{ Body loggedDocument }, error) {
		l, err := s.studio.Store.LogOf(ctx, in.ID)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct{ Body loggedDocument }{loggedOf(l)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "logFile", Method: http.MethodGet, Path: "/api/v1/log.csv",
		Summary: "The log as a table", Metadata: rights(studio.All), Responses: file("text/csv", "The log"),
	}, func(ctx context.Context, _ *struct{}) (*fileOutput, error) {
		body, err := s.studio.LogFile(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return download("text/csv; charset=utf-8", "Log.csv", body), nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "listPaces", Method: http.MethodGet, Path: "/api/v1/paces",
		Summary: "What finished installs say of the pace of the studio's people, with the evidence", Metadata: rights(studio.All),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body []learntPace }, error) {
		paces, err := s.studio.Paces(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := make([]learntPace, len(paces))
		for i, p := range paces {
			out[i] = learntPace{p.Person.ID, p.Person.Name, p.Skills}
		}
		return &struct{ Body []learntPace }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "listLoggedPaces", Method: http.MethodGet, Path: "/api/v1/paces/plans",
		Summary: "The same as it is put on a plan, by the id of the person", Metadata: rights(studio.All),
	}, func(ctx context.Context, _ *struct{}) (*struct {
		Body map[string][]plan.LoggedPace
	}, error) {
		paces, err := s.studio.LoggedPaces(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		return &struct {
			Body map[string][]plan.LoggedPace
		}{paces}, nil
	})
}
