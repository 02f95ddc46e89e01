package account

import "strings"

// DeviceName is what a browser says of itself in its requests, short: “Firefox, Android”.
func DeviceName(agent string) string {
	find := func(names ...string) string {
		for _, n := range names {
			if strings.Contains(agent, n) {
				return n
			}
		}
		return ""
	}
	browser := find("Firefox", "Edg", "OPR", "Chrome", "Safari")
	system := find("Android", "iPhone", "iPad", "Windows", "Mac OS", "CrOS", "Linux")
	switch {
	case browser == "" && system == "":
		return "another program"
	case browser == "Edg":
		browser = "Edge"
	case browser == "OPR":
		browser = "Opera"
	}
	return strings.Trim(browser+", "+system, ", ")
}
