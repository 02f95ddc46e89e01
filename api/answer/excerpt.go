package answer

import (
	"patientladder/api/contract"
	"patientladder/core/notation/engrave"
)

// Excerpt is a drawing as the page takes it, under a key.
func Excerpt(key string, d engrave.Drawing) contract.Excerpt {
	out := contract.Excerpt{
		Key: key, Width: Thousandths(d.Width), Height: Thousandths(d.Height), Shapes: d.SVG(), Heads: []contract.ExcerptHead{}, Texts: []contract.ExcerptText{},
	}
	for _, h := range d.Heads {
		out.Heads = append(out.Heads, contract.ExcerptHead{At: h.At, X: Thousandths(h.X), Y: Thousandths(h.Y), Staff: h.Staff})
	}
	for _, x := range d.Texts {
		out.Texts = append(out.Texts, contract.ExcerptText{X: Thousandths(x.X), Y: Thousandths(x.Y), Size: Thousandths(x.Size), Text: x.Text})
	}
	return out
}
