package api

import (
	"mime"
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// fileOutput is a file to keep.
type fileOutput struct {
	ContentType  string `header:"Content-Type"`
	Disposition  string `header:"Content-Disposition"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

// download is a file that a browser saves under a name; signs that no file
// system likes are left out of it.
func download(kind, name string, body []byte) *fileOutput {
	clean := strings.Map(func(r rune) rune {
		if r < ' ' || strings.ContainsRune(`/\:*?"<>|`, r) {
			return -1
		}
		return r
	}, name)
	return &fileOutput{
		ContentType: kind, CacheControl: "no-store", Body: body,
		Disposition: mime.FormatMediaType("attachment", map[string]string{"filename": clean}),
	}
}

// file describes an answer that is a file.
func file(kind, what string) map[string]*huma.Response {
	return map[string]*huma.Response{"200": {Description: what, Content: map[string]*huma.MediaType{kind: {}}}}
}
