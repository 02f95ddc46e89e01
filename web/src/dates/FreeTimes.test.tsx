// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import { FreeTimes } from "./FreeTimes";

afterEach(cleanup);

const monday = { day: "2026-05-11", startsAt: "10:00", minutes: 30, words: "Mon 11 May, 10:00" };
const tuesday = { day: "2026-05-12", startsAt: "10:30", minutes: 30, words: "Tue 12 May, 10:30" };

it("keeps the room of the times while they are looked for, so that nothing below moves", async () => {
  const choose = vi.fn();
  const places = () => document.querySelectorAll("li").length;
  const { rerender } = render(<FreeTimes failed={false} at={monday} onChoose={choose} />);
  expect([places(), screen.getByText("Looking for free times").tagName]).toEqual([8, "P"]);
  rerender(<FreeTimes times={[monday, tuesday]} failed={false} at={monday} onChoose={choose} />);
  expect([places(), screen.getByText("Free times near it").tagName]).toEqual([8, "P"]);
  expect(screen.getAllByRole("button").map((b) => [b.textContent, b.getAttribute("aria-pressed")])).toEqual([
    ["Mon 11 May, 10:00", "true"],
    ["Tue 12 May, 10:30", "false"],
  ]);
  await userEvent.setup().click(screen.getByText("Tue 12 May, 10:30"));
  expect(choose.mock.calls).toEqual([[{ day: "2026-05-12", startsAt: "10:30" }]]);
});

it("says that there are none, or that they cannot be looked for", () => {
  const { rerender } = render(<FreeTimes times={[]} failed={false} at={monday} onChoose={() => {}} />);
  expect(screen.getByText("No free time is near it")).toBeTruthy();
  rerender(<FreeTimes failed at={monday} onChoose={() => {}} />);
  expect(screen.getByText("Free times cannot be looked for now")).toBeTruthy();
});
