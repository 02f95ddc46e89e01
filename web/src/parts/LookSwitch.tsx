import { useState } from "react";

type Look = "light" | "dark";

const current = (): Look => {
  const chosen = document.documentElement.dataset.look;
  if (chosen === "light" || chosen === "dark") return chosen;
  return "light";
};

/** Switches between the day and the evening look; the choice stays on this device. */
export function LookSwitch() {
  const [look, setLook] = useState<Look>(current);
  const other: Look = look === "dark" ? "light" : "dark";
  const turn = () => {
    document.documentElement.dataset.look = other;
    try {
      localStorage.setItem("look", other);
    } catch {
      // Without storage the choice lasts as long as the page.
    }
    setLook(other);
    window.dispatchEvent(new Event("look"));
  };
  return (
    <button type="button" className="quiet" onClick={turn} aria-label={`Use the ${other} look`}>
      <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
        <circle cx="10" cy="10" r="7" fill="none" stroke="currentColor" strokeWidth="1.6" />
        <path d={look === "dark" ? "M10 3a7 7 0 0 0 0 14z" : "M10 3a7 7 0 0 1 0 14z"} fill="currentColor" />
      </svg>
    </button>
  );
}
