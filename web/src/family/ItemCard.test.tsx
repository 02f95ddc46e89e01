// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { ItemCard } from "./ItemCard";
import { SpokenContext, sayer } from "./say";
import type { Item } from "./ticks";

const item = {
  key: "fog:chunk:1",
  kind: "chunk",
  material: "01A",
  title: "Fog",
  hand: "",
  times: 4,
  inRow: false,
  minutes: 3,
  goals: [],
  staves: [],
  music: "01A",
  beats: 48,
  quarters: 48,
  signs: [],
  start: 0,
  end: 0,
  card: {
    kind: "Short section",
    where: "bars 1–2",
    book: "Page 7",
    only: "",
    hands: [
      {
        hand: "Right hand",
        finger: "finger 2",
        key: "E",
        start: "Right hand: finger 2 on E",
        geo: "the white key just right of two black keys",
        moves: "",
        side: "right",
        touches: [{ midi: 64, name: "E", finger: 2, string: 0, above: 0, first: true }],
        strings: [],
        frets: false,
      },
    ],
    tempo: "Slowly, like strolling (48)",
    marks: "",
    say: [{ hand: "", words: ["up", "same"] }],
    parent: "Say the line together first. Then Nell plays it.",
    child: "Say it.",
    swap: "",
    good: "the same fingers each time",
    end: "Stop when the boxes are full.",
    gap: "",
    more: "",
  },
} as unknown as Item;

const texts = sayer({
  time: "Time {n}",
  hard: "hard",
  good: "Good enough:",
  parent: "You",
  say: "Say aloud",
  plain: "Done",
});

afterEach(cleanup);

const show = (tapped: number) => {
  const tap = vi.fn();
  const done = vi.fn();
  render(
    <SpokenContext.Provider value={{ say: texts, locale: "en-GB" }}>
      <ItemCard
        item={item}
        name="Nell"
        tone="keyboard"
        music={undefined}
        excerpt={undefined}
        shut=""
        done={undefined}
        tapped={tapped}
        tap={tap}
        onDone={done}
        onUndo={() => {}}
        onNext={undefined}
      />
    </SpokenContext.Provider>,
  );
  return { tap, done };
};

const pressed = () =>
  screen.getAllByLabelText(/^Time \d$/).filter((b) => b.getAttribute("aria-pressed") === "true").length;

test("boxes that were tapped before are there, and one more is kept", () => {
  const { tap, done } = show(2);
  expect(pressed()).toBe(2);
  fireEvent.click(screen.getByLabelText("Time 3"));
  expect(pressed()).toBe(3);
  expect(tap).toHaveBeenLastCalledWith(3);
  fireEvent.click(screen.getByText("hard"));
  expect(done).toHaveBeenLastCalledWith(3, "hard");
});

test("how it felt invents no count", () => {
  const { done } = show(0);
  fireEvent.click(screen.getByText("hard"));
  expect(done).toHaveBeenLastCalledWith(0, "hard");
});

test("a card says which hand, finger and key, who says what, and when it is good enough", () => {
  show(0);
  const words = screen.getByRole("article").textContent ?? "";
  for (const said of [
    "Right hand",
    "finger 2",
    "E",
    "the white key just right of two black keys",
    "up · same",
    "Slowly, like strolling (48)",
    "Say the line together first. Then Nell plays it.",
    "Good enough: the same fingers each time.",
    "Page 7",
  ])
    expect(words).toContain(said);
  expect(screen.getByRole("img", { name: "Right hand: finger 2 on E; E 2" })).toBeTruthy();
});
