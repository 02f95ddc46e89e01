package sheet

import (
	"bytes"
	"encoding/csv"
	"strings"
)

// CSV writes a list as a table (RFC 4180) that spreadsheets open: a cell that they would take for a formula begins with
// an apostrophe.
func CSV(head []string, rows [][]string) ([]byte, error) {
	var out bytes.Buffer
	w := csv.NewWriter(&out)
	for _, row := range append([][]string{head}, rows...) {
		safe := make([]string, len(row))
		for i, cell := range row {
			if cell != "" && strings.ContainsRune("=+-@\t\r", rune(cell[0])) {
				cell = "'" + cell
			}
			safe[i] = cell
		}
		if err := w.Write(safe); err != nil {
			return nil, err
		}
	}
	w.Flush()
	return out.Bytes(), w.Error()
}
