// Runs before the page is drawn, so that the look does not flash. Without a
// choice the system's look is used.
let look = matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
try {
  look = localStorage.getItem("look") ?? look;
} catch {
  // Storage may be blocked; then the system's look stays.
}
document.documentElement.dataset.look = look === "dark" ? "dark" : "light";
