// Package photo makes pictures fit to be kept: small, and with nothing in them but what is seen.
// Where, when and by what a picture was taken is left out, whatever the device wrote into it.
package photo

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	_ "image/png" // read too
)

const (
	// Side is the longest side of a picture that is kept, pixels.
	Side = 1280
	// mostPixels, longestSide and mostBytes are what is read at most: a small file may claim to be very
	// large, and some take far more room to read than others of the same size.
	mostPixels  = 50_000_000
	longestSide = 16_000
	mostBytes   = 220 << 20
	quality     = 80
)

// ErrNoPicture: it is no picture that can be read, or one too large.
var ErrNoPicture = errors.New("a picture must be JPEG or PNG, of 50 million pixels at most and no side longer than 16,000; one in several passes of 14 million")

// Small is a picture as it is kept: JPEG, its longest side at most [Side], without anything its
// device wrote beside it. It reads nothing that would take more than some 220 MiB. The error wraps
// [ErrNoPicture].
func Small(file []byte) ([]byte, error) {
	facts, format, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil || facts.Width < 1 || facts.Height < 1 || max(facts.Width, facts.Height) > longestSide || facts.Width > mostPixels/facts.Height ||
		facts.Width*facts.Height > mostBytes/perPixel(facts.ColorModel, format, file) {
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
	var out bytes.Buffer
	if err := jpeg.Encode(&out, shrunk(full, size), &jpeg.Options{Quality: quality}); err != nil {
		return nil, fmt.Errorf("writing a picture: %w", err)
	}
	return out.Bytes(), nil
}

// perPixel is how many bytes a pixel takes at most while a picture is read.
func perPixel(model color.Model, format string, file []byte) int {
	switch {
	case format == "jpeg" && progressive(file):
		return 15 // four bytes a coefficient of each of three components, and the picture
	case format == "jpeg":
		return 4
	case model == color.NRGBA64Model || model == color.RGBA64Model:
		return 8
	}
	return 4
}

// progressive tells whether a JPEG comes in several passes, by the marker before its first one.
func progressive(file []byte) bool {
	for i := 2; i+4 <= len(file) && file[i] == 0xff; {
		marker := file[i+1]
		switch {
		case marker == 0xff: // fill
			i++
			continue
		case marker == 0xc2:
			return true
		case marker == 0xda:
			return false
		}
		i += 2 + int(file[i+2])<<8 + int(file[i+3])
	}
	return false
}

// shrunk is a picture in a size no larger than its own: each pixel is the mean of those it stands for. The
// rows are taken one by one, so that it needs little room beside the picture.
func shrunk(full image.Image, size image.Point) *image.RGBA {
	from, out := full.Bounds(), image.NewRGBA(image.Rectangle{Max: size})
	row := image.NewRGBA(image.Rect(0, 0, from.Dx(), 1))
	sums, counts := make([]uint32, 3*size.X), make([]uint32, size.X)
	for x := range from.Dx() {
		counts[x*size.X/from.Dx()]++
	}
	rows := uint32(0)
	for y := range from.Dy() {
		// What shows through stands on white, as on paper.
		draw.Draw(row, row.Bounds(), image.White, image.Point{}, draw.Src)
		draw.Draw(row, row.Bounds(), full, image.Pt(from.Min.X, from.Min.Y+y), draw.Over)
		for x := range from.Dx() {
			to := 3 * (x * size.X / from.Dx())
			for c := range 3 {
				sums[to+c] += uint32(row.Pix[4*x+c])
			}
		}
		rows++
		line := y * size.Y / from.Dy()
		if y+1 < from.Dy() && (y+1)*size.Y/from.Dy() == line {
			continue
		}
		for x := range size.X {
			n := counts[x] * rows
			for c := range 3 {
				out.Pix[line*out.Stride+4*x+c] = uint8((sums[3*x+c] + n/2) / n)
			}
			out.Pix[line*out.Stride+4*x+3] = 0xff
		}
		clear(sums)
		rows = 0
	}
	return out
}
