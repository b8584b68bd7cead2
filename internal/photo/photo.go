// Package photo makes pictures fit to be kept: small, and with nothing in them but what is seen.
// Where, when and by what a picture was taken is left out, whatever the device wrote into it.
package photo

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	_ "image/png" // read too

	"golang.org/x/image/draw"
)

const (
	// Side is the longest side of a picture that is kept, pixels.
	Side = 1280
	// mostPixels is what is read at most: a small file may claim to be very large.
	mostPixels = 50_000_000
	quality    = 80
)

// ErrNoPicture: it is no picture that can be read, or one too large.
var ErrNoPicture = errors.New("a picture must be JPEG or PNG, of 50 million pixels at most")

// Small is a picture as it is kept: JPEG, its longest side at most [Side], without anything its
// device wrote beside it. The error wraps [ErrNoPicture].
func Small(file []byte) ([]byte, error) {
	facts, _, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil || facts.Width < 1 || facts.Height < 1 || facts.Width > mostPixels/facts.Height {
		return nil, errors.Join(ErrNoPicture, err)
	}
	full, _, err := image.Decode(bytes.NewReader(file))
	if err != nil {
		return nil, errors.Join(ErrNoPicture, err)
	}
	size := full.Bounds().Size()
	if long := max(size.X, size.Y); long > Side {
		size = image.Pt(max(1, size.X*Side/long), max(1, size.Y*Side/long))
	}
	small := image.NewRGBA(image.Rectangle{Max: size})
	draw.CatmullRom.Scale(small, small.Bounds(), full, full.Bounds(), draw.Src, nil)
	var out bytes.Buffer
	if err := jpeg.Encode(&out, small, &jpeg.Options{Quality: quality}); err != nil {
		return nil, fmt.Errorf("writing a picture: %w", err)
	}
	return out.Bytes(), nil
}
