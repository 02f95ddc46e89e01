package engrave

import (
	"math"
	"strconv"
	"strings"
)

// Shape is one filled outline.
type Shape []Command

// Command draws a line or a curve to a point, or begins or closes an outline.
type Command struct {
	// Op is 'M' to begin at a point, 'L' for a line, 'C' for a cubic curve over two
	// control points, 'Z' to close.
	Op byte
	// P holds x and y of up to three points.
	P [6]float64
}

func (c Command) points() int {
	switch c.Op {
	case 'C':
		return 3
	case 'Z':
		return 0
	}
	return 1
}

// moved returns the shape elsewhere.
func (s Shape) moved(dx, dy float64) Shape { return s.placed(1, dx, dy) }

// placed returns the shape scaled about the origin, then moved.
func (s Shape) placed(scale, dx, dy float64) Shape {
	out := make(Shape, len(s))
	for i, c := range s {
		for k := range c.points() {
			c.P[2*k], c.P[2*k+1] = scale*c.P[2*k]+dx, scale*c.P[2*k+1]+dy
		}
		out[i] = c
	}
	return out
}

// vertical is the highest and the lowest point, control points included.
func (s Shape) vertical() (low, high float64) {
	low, high = math.Inf(1), math.Inf(-1)
	for _, c := range s {
		for k := range c.points() {
			low, high = min(low, c.P[2*k+1]), max(high, c.P[2*k+1])
		}
	}
	return low, high
}

// polygon is the shape between some points, x and y in turn. It turns the way
// that the outlines of the glyphs do, so that overlaps are filled too.
func polygon(points ...float64) Shape {
	area := 0.0
	for i := 0; i < len(points); i += 2 {
		k := (i + 2) % len(points)
		area += points[i]*points[k+1] - points[k]*points[i+1]
	}
	if area > 0 {
		for i, k := 0, len(points)-2; i < k; i, k = i+2, k-2 {
			points[i], points[i+1], points[k], points[k+1] = points[k], points[k+1], points[i], points[i+1]
		}
	}
	var s Shape
	for i := 0; i < len(points); i += 2 {
		op := byte('L')
		if i == 0 {
			op = 'M'
		}
		s = append(s, Command{op, [6]float64{points[i], points[i+1]}})
	}
	return append(s, Command{Op: 'Z'})
}

func box(x, y, width, height float64) Shape {
	return polygon(x, y, x+width, y, x+width, y+height, x, y+height)
}

// SVG writes the shapes as one path in the syntax of SVG, to a hundredth of a staff space.
func (d Drawing) SVG() string {
	var b strings.Builder
	for _, s := range d.Shapes {
		for _, c := range s {
			b.WriteByte(c.Op)
			for k := range 2 * c.points() {
				text := strconv.FormatFloat(math.Round(100*c.P[k])/100, 'f', -1, 64)
				if k > 0 && text[0] != '-' {
					b.WriteByte(' ')
				}
				b.WriteString(text)
			}
		}
	}
	return b.String()
}
