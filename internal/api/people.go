package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"kladotex/internal/store"
	"kladotex/internal/studio"
)

// PersonPath names a person of the studio.
type PersonPath struct {
	ID string `path:"id" maxLength:"64"`
}

func (s *server) peopleOperations(api huma.API) {
	huma.Register(api, huma.Operation{
		OperationID: "listPeople", Method: http.MethodGet, Path: "/api/v1/people",
		Summary: "List the people of the studio", Metadata: rights(studio.All),
	}, func(ctx context.Context, _ *struct{}) (*struct{ Body []personEntry }, error) {
		people, err := s.studio.Store.People(ctx)
		if err != nil {
			return nil, problem(ctx, err, "")
		}
		out := make([]personEntry, len(people))
		for i, p := range people {
			out[i] = personOf(p)
		}
		return &struct{ Body []personEntry }{out}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "addPerson", Method: http.MethodPost, Path: "/api/v1/people",
		Summary: "Add a person with a first password", Metadata: rights(studio.Owners), DefaultStatus: http.StatusCreated,
	}, func(ctx context.Context, in *struct {
		Body struct {
			Credentials
			Role store.Role `json:"role"`
		}
	}) (*struct{ Body personEntry }, error) {
		p, err := s.studio.AddPerson(ctx, in.Body.Name, in.Body.Role, in.Body.Password)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body personEntry }{personOf(p)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "changePerson", Method: http.MethodPut, Path: "/api/v1/people/{id}",
		Summary: "Change a person's name and role, and give a new password when one is sent", Metadata: rights(studio.Owners),
	}, func(ctx context.Context, in *struct {
		PersonPath
		Body struct {
			Name     string     `json:"name" minLength:"1" maxLength:"80"`
			Role     store.Role `json:"role"`
			Password string     `json:"password,omitempty" minLength:"10" maxLength:"200" doc:"A new password; it signs them out everywhere"`
		}
	}) (*struct{ Body personEntry }, error) {
		p, err := s.studio.ChangePerson(ctx, in.ID, in.Body.Name, in.Body.Role, in.Body.Password)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body personEntry }{personOf(p)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "setPace", Method: http.MethodPut, Path: "/api/v1/people/{id}/pace",
		Summary: "Say how practised a person is; they do it themselves, or an owner does", Metadata: rights(studio.All),
	}, func(ctx context.Context, in *struct {
		PersonPath
		Body PersonPace
	}) (*struct{ Body personEntry }, error) {
		p, err := s.studio.SetPace(ctx, person(ctx), in.ID, in.Body.Hand, in.Body.OwnHead)
		if err != nil {
			return nil, problem(ctx, err, "body.")
		}
		return &struct{ Body personEntry }{personOf(p)}, nil
	})

	huma.Register(api, huma.Operation{
		OperationID: "removePerson", Method: http.MethodDelete, Path: "/api/v1/people/{id}",
		Summary: "Remove a person; what they saved stays", Metadata: rights(studio.Owners), DefaultStatus: http.StatusNoContent,
	}, func(ctx context.Context, in *PersonPath) (*struct{}, error) {
		if err := s.studio.Store.RemovePerson(ctx, in.ID); err != nil {
			return nil, problem(ctx, err, "")
		}
		return nil, nil
	})
}
