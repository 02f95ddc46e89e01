package engrave

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
	"sync"
)

// The outlines are those of a few signs of the font Bravura, under the SIL Open
// Font License (OFL.txt), scaled to staff spaces and turned downwards.
//
//go:embed glyphs.json
var glyphData []byte

// glyph is one sign: the outline about its origin and how wide it is.
type glyph struct {
	shape   Shape
	advance float64
}

var glyphs = sync.OnceValue(func() map[string]glyph {
	var kept map[string]struct {
		Advance float64 `json:"advance"`
		Path    string  `json:"path"`
	}
	if err := json.Unmarshal(glyphData, &kept); err != nil {
		panic("engrave: glyphs.json: " + err.Error())
	}
	out := map[string]glyph{}
	for name, g := range kept {
		shape, err := parse(g.Path)
		if err != nil {
			panic("engrave: glyphs.json: " + name + ": " + err.Error())
		}
		out[name] = glyph{shape, g.Advance}
	}
	return out
})

// parse reads an outline in the syntax of SVG, with M, L, C and Z only.
func parse(path string) (Shape, error) {
	var s Shape
	for path != "" {
		c := Command{Op: path[0]}
		path = path[1:]
		end := strings.IndexAny(path, "MLCZ")
		if end < 0 {
			end = len(path)
		}
		numbers := strings.Fields(path[:end])
		if len(numbers) != 2*c.points() {
			return nil, fmt.Errorf("%q with %d numbers", c.Op, len(numbers))
		}
		for i, n := range numbers {
			v, err := strconv.ParseFloat(n, 64)
			if err != nil {
				return nil, err
			}
			c.P[i] = v
		}
		s = append(s, c)
		path = path[end:]
	}
	return s, nil
}
