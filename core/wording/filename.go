package wording

import "strings"

// FileName writes a title so that every usual system takes it as the name of a file.
func FileName(title string) string {
	return strings.Map(func(c rune) rune {
		if strings.ContainsRune(`/\:*?"<>|`, c) || c < ' ' {
			return '-'
		}
		return c
	}, title)
}
