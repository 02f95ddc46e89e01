import { expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { columns, dropped, hours } from "./place";

const lesson = (lesson: string, startsAt: string, minutes = 30) =>
  ({ lesson, startsAt, minutes }) as Schemas["LessonDate"];

it("stands lessons at one time side by side", () => {
  const laid = columns([
    lesson("c", "16:00"),
    lesson("a", "15:00", 45),
    lesson("b", "15:30"),
    lesson("d", "15:40"),
  ]);
  expect(laid.map((l) => `${l.lesson.lesson} ${l.column}/${l.of}`)).toEqual([
    "a 0/3",
    "b 1/3",
    "d 2/3",
    "c 0/3",
  ]);
  expect(columns([lesson("a", "15:00"), lesson("b", "15:30")]).map((l) => l.of)).toEqual([1, 1]);
});

it("shows the hours in which there are lessons", () => {
  expect(hours([])).toEqual({ from: 900, to: 1140 });
  expect(hours([{ lessons: [lesson("a", "09:45"), lesson("b", "19:30", 45)] } as never])).toEqual({
    from: 540,
    to: 1260,
  });
});

it("drops by days and quarters of an hour", () => {
  expect(dropped({ day: 2, minutes: 930 }, { x: 210, y: 40 }, 100, 7)).toEqual({ day: 4, minutes: 960 });
  expect(dropped({ day: 0, minutes: 10 }, { x: -90, y: -90 }, 100, 7)).toEqual({ day: 0, minutes: 0 });
  expect(dropped({ day: 6, minutes: 1430 }, { x: 900, y: 900 }, 100, 7)).toEqual({ day: 6, minutes: 1425 });
});
