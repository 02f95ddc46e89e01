package abc

import (
	"strings"
)

// barline reads a run of bar line signs: | || |] [| |: :| :: |1 [1,3 and so on.
func (t *tune) barline(v *voice, c *scanner) error {
	begin := c.i
	for c.i < len(c.s) && strings.IndexByte("|:]", c.s[c.i]) >= 0 || c.peek(0) == '[' && (c.peek(1) == '|' || c.peek(1) == ']') {
		c.i++
	}
	signs := c.s[begin:c.i]
	colonsBefore := len(signs) - len(strings.TrimLeft(signs, ":"))
	colonsAfter := len(signs) - len(strings.TrimRight(signs, ":"))
	if signs == ":" {
		t.skip("a colon that stands alone", c.number)
		return nil
	}
	if strings.Trim(signs, ":") == "" && signs != "" { // "::" ends one repeat and begins another
		colonsBefore, colonsAfter = 1, 1
	}
	if signs != "" {
		if err := t.closeBar(v, c.number); err != nil {
			return err
		}
		v.afterSigns(signs, colonsBefore, colonsAfter)
	}
	save := c.i
	if c.peek(0) == '[' {
		c.i++
	} else if c.peek(0) == ' ' && signs != "" {
		for c.peek(0) == ' ' {
			c.i++
		}
		if c.peek(0) != '[' || !digit(c.peek(1)) {
			c.i = save
			return nil
		}
		c.i++
	}
	if !digit(c.peek(0)) {
		c.i = save
		if signs == "" {
			c.i++ // a bracket that opens nothing
		}
		return nil
	}
	if signs == "" {
		if err := t.closeBar(v, c.number); err != nil {
			return err
		}
	}
	v.open.endings = c.endings()
	return nil
}

// afterSigns writes repeats onto the bars before and after.
func (v *voice) afterSigns(signs string, before, after int) {
	last := len(v.bars) - 1
	if before > 0 && last >= 0 {
		v.bars[last].repeatEnd = max(v.bars[last].repeatEnd, before+1)
	}
	if after > 0 {
		v.open.repeatStart = true
	}
	// An ending lasts to the next repeat, double bar or ending.
	if before > 0 || after > 0 || strings.Contains(signs, "||") || strings.Contains(signs, "]") || strings.Contains(signs, "[") {
		v.open.endings = nil
	}
}

// endings reads "1", "1,3", "1-3".
func (c *scanner) endings() []int {
	var list []int
	for {
		n := int(c.number64())
		from := n
		if c.peek(0) == '-' && digit(c.peek(1)) {
			c.i++
			n = int(c.number64())
		}
		for k := from; k <= n && len(list) < 20; k++ {
			if k > 0 && k < 100 {
				list = append(list, k)
			}
		}
		if c.peek(0) != ',' || !digit(c.peek(1)) {
			return list
		}
		c.i++
	}
}
