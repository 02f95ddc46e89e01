package musicxml

import (
	"fmt"
	"strings"
	"testing"
)

// BenchmarkRead reads 512 bars of quavers; `make bench` compares it with only tokenising.
func BenchmarkRead(b *testing.B) {
	var bars []string
	for i := range 512 {
		bar := ""
		if i == 0 {
			bar = fourFour
		}
		for k := range 8 {
			bar += n(fmt.Sprintf("%c%d", "CDEFGAB"[(i+k)%7], 3+k%2), 1, "<voice>1</voice><type>eighth</type><stem>up</stem><staff>1</staff>")
		}
		bars = append(bars, bar)
	}
	data := []byte(strings.Clone(part(bars...)))
	b.SetBytes(int64(len(data)))
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Read(data); err != nil {
			b.Fatal(err)
		}
	}
}
