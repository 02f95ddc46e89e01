import { expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { groupsOf } from "./roll";

const student = (name: string, weekday: number, startsAt: string, state = "active") =>
  ({ name, called: "", instrument: "piano", weekday, startsAt, state }) as Schemas["Student"];

const all = [
  student("Zoë Ny", 0, "10:00"),
  student("Ada Low", 1, "16:00"),
  student("Ben Ash", 1, "15:00"),
  student("Éva Sund", 3, "15:00", "paused"),
  student("Ole Quay", 2, "15:00", "gone"),
  student("Ida Fjord", -1, ""),
];
const told = (by: "day" | "name", wanted = "", firstDay = 1) =>
  groupsOf(all, by, wanted, firstDay).map(
    (g) => `${g.title}: ${g.students.map((s) => s.name.split(" ")[0]).join(" ")}`,
  );

it("lists by day from Monday on, then without a time, paused and left", () => {
  expect(told("day")).toEqual([
    "Monday: Ben Ada",
    "Sunday: Zoë",
    "No lesson time yet: Ida",
    "Paused: Éva",
    "Left: Ole",
  ]);
  expect(told("day", "", 0).slice(0, 2)).toEqual(["Sunday: Zoë", "Monday: Ben Ada"]);
});

it("lists by name and finds without marks", () => {
  expect(told("name")).toEqual(["A: Ada", "B: Ben", "I: Ida", "Z: Zoë", "Paused: Éva", "Left: Ole"]);
  expect(told("name", "zoe")).toEqual(["Z: Zoë"]);
  expect(told("name", "eva piano")).toEqual(["Paused: Éva"]);
  expect(told("day", "nobody")).toEqual([]);
});
