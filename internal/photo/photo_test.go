package photo

import (
	"bytes"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"os"
	"os/exec"
	"runtime"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// claims is a PNG whose header claims a size, over the data of another.
func claims(t *testing.T, width, height uint32) []byte {
	t.Helper()
	var file bytes.Buffer
	require.NoError(t, png.Encode(&file, image.NewGray(image.Rect(0, 0, 8, 8))))
	out := file.Bytes()
	for i := range 4 {
		out[16+i], out[20+i] = byte(width>>(24-8*i)), byte(height>>(24-8*i))
	}
	sum := crc32.ChecksumIEEE(out[12:29])
	for i := range 4 {
		out[29+i] = byte(sum >> (24 - 8*i))
	}
	return out
}

// Pictures that claim more than can be read are refused by their header, before any room is taken.
func TestPicturesThatAreTooLargeAreRefused(t *testing.T) {
	for _, size := range [][2]uint32{{50_000_000, 1}, {1, 50_000_000}, {16_001, 10}, {10_000, 6_000}, {1 << 31, 1 << 31}, {0, 5}} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		_, err := Small(claims(t, size[0], size[1]))
		runtime.ReadMemStats(&after)
		assert.ErrorIs(t, err, ErrNoPicture, "%v", size)
		assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(1<<20), "%v", size)
	}
	var passes bytes.Buffer
	require.NoError(t, jpeg.Encode(&passes, image.NewGray(image.Rect(0, 0, 8, 8)), nil))
	assert.False(t, progressive(passes.Bytes()))
	assert.True(t, progressive(bytes.Replace(passes.Bytes(), []byte{0xff, 0xc0}, []byte{0xff, 0xc2}, 1)))
}

// A pixel of what is kept is the mean of what it stands for, whatever the size it came in.
func TestPicturesKeepTheirMean(t *testing.T) {
	for _, size := range []image.Point{{1280, 3}, {1999, 1501}, {3000, 2}, {5, 4000}, {64, 48}} {
		full := image.NewRGBA(image.Rectangle{Max: size})
		for y := range size.Y {
			for x := range size.X {
				full.Set(x, y, color.RGBA{uint8(255 * x / size.X), uint8(255 * y / size.Y), 128, 255})
			}
		}
		long := max(size.X, size.Y)
		to := image.Pt(max(1, size.X*min(Side, long)/long), max(1, size.Y*min(Side, long)/long))
		small := shrunk(full, to)
		mean := func(p *image.RGBA) (sum [3]float64) {
			n := float64(len(p.Pix) / 4)
			for i := 0; i < len(p.Pix); i += 4 {
				for c := range 3 {
					sum[c] += float64(p.Pix[i+c]) / n
				}
			}
			return sum
		}
		a, b := mean(full), mean(small)
		for c := range 3 {
			assert.InDelta(t, a[c], b[c], 1, "%v", size)
		}
	}
}

// The largest picture that is accepted is read in little room. It runs in a process of its own with a limit
// on it, so that a failure ends that process and not the machine.
func TestTheLargestPictureTakesLittleRoom(t *testing.T) {
	const child = "KLADOTEX_LARGEST_PICTURE"
	if os.Getenv(child) != "" {
		const limit = 400 << 20
		require.NoError(t, syscall.Setrlimit(syscall.RLIMIT_DATA, &syscall.Rlimit{Cur: limit, Max: limit}))
		var file bytes.Buffer
		require.NoError(t, (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&file, image.NewGray(image.Rect(0, 0, 7000, 7000))))
		small, err := Small(file.Bytes())
		require.NoError(t, err)
		config, err := jpeg.DecodeConfig(bytes.NewReader(small))
		require.NoError(t, err)
		assert.Equal(t, Side, config.Width)
		return
	}
	cmd := exec.CommandContext(t.Context(), os.Args[0], "-test.run", "^TestTheLargestPictureTakesLittleRoom$")
	cmd.Env = append(os.Environ(), child+"=1")
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, strings.TrimSpace(string(out)))
}
