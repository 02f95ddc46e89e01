import type { Schemas } from "../contract/client";

type Mark = Schemas["Mark"];

/** What a tap makes of a usual fault: seen, less, gone, and seen again. */
export const afterTap = (mark: Mark | undefined): Mark =>
  mark === "none" ? "part" : mark === "part" ? "full" : "none";

/** How a usual fault stands. */
export const faultWords = (mark: Mark | undefined): string =>
  mark ? { none: "seen", part: "less", full: "gone" }[mark] : "tap";

/** How a key stands in the atlas. */
export function cellWords(c: Schemas["AtlasCell"], passes: string[]) {
  if (c.working) return `working at pass ${c.working}, ${passes[c.working - 1]}`;
  if (c.through === passes.length) return "through every pass";
  if (c.through) return `${c.through} through; the next waits: ${passes[c.through]}`;
  return "not begun";
}

/** The pass that comes next: after the one that is kept, or where the student stands. */
export function nextPass(t: Pick<Schemas["Technique"], "cycle" | "cycleTypes" | "stairs">): string {
  const [type] = t.cycleTypes;
  const at = t.cycle ? t.cycle.pass + 1 : (t.stairs.find((s) => s.type === type?.id)?.at ?? 0);
  return type?.steps[Math.min(at, type.steps.length - 1)]?.id ?? "";
}
