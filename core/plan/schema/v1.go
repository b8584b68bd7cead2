package schema

// from1: version 1 had one pattern for the whole head, and sections of one size all over
// a zone.
func from1(d document) error {
	type size struct {
		Width  float64 `json:"widthMm"`
		Height float64 `json:"heightMm"`
	}
	var old struct {
		Pattern string `json:"pattern"`
		Front   size   `json:"front"`
		Back    size   `json:"back"`
	}
	if err := d.read("parting", &old); err != nil {
		return err
	}
	type wish struct {
		Pattern string `json:"pattern"`
		size
		Ramp float64 `json:"ramp"`
	}
	return d.write("parting", map[string]wish{
		"front": {old.Pattern, old.Front, 1}, "back": {old.Pattern, old.Back, 1},
	})
}
