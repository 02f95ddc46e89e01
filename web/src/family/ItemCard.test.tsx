// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { ItemCard } from "./ItemCard";
import type { Item } from "./ticks";

const item = {
  key: "fog:chunk:1",
  kind: "chunk",
  material: "01A",
  title: "Fog",
  where: "bars 1 and 2",
  hand: "",
  times: 4,
  inRow: false,
  minutes: 3,
  words: "Slowly.",
  goals: [],
  hands: [],
  start: 0,
  end: 0,
} as unknown as Item;

afterEach(cleanup);

const show = (tapped: number) => {
  const tap = vi.fn();
  const done = vi.fn();
  render(
    <ItemCard
      item={item}
      music={undefined}
      shut=""
      done={undefined}
      tapped={tapped}
      tap={tap}
      onDone={done}
      onUndo={() => {}}
    />,
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
