// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../contract/client";
import type { Entry } from "../data/outbox";
import { Bites } from "./Bites";
import { FocusCard } from "./FocusCard";
import { RunSheet } from "./RunSheet";
import { SpotStrip } from "./SpotStrip";

afterEach(cleanup);

/** Collects what a part writes. */
const writing = () => {
  const sent: Entry[] = [];
  const append = {
    mutate: (entries: Entry[], then?: { onSuccess?: () => void }) => {
      sent.push(...entries);
      then?.onSuccess?.();
    },
    isPending: false,
    error: null,
  };
  return { sent, append };
};

const piece = {
  material: "fog",
  title: "Fog",
  bars: 4,
  barLabels: ["0", "1", "2", "3"],
  spots: [
    { id: "old", from: 1, to: 1, where: "the upbeat", mended: true },
    { id: "open", from: 4, to: 4, where: "bar 3", mended: false },
  ],
} as unknown as Schemas["LessonPiece"];

describe("a focus point", () => {
  it("takes a double tap for one: the second would fall on the point that comes next", async () => {
    const user = userEvent.setup();
    const given: string[] = [];
    const point = { id: "a", text: "steady pulse", own: false, history: [] };
    render(<FocusCard point={point} onMark={(m) => given.push(m)} />);
    await user.dblClick(screen.getByRole("button", { name: /^full/ }));
    expect(given).toEqual(["full"]);
    await user.click(screen.getByRole("button", { name: /^part/ }));
    expect(given).toEqual(["full", "part"]);
  });
});

describe("a run", () => {
  const standard = [
    { id: "notes", name: "Right notes" },
    { id: "flow", name: "No stop" },
  ];
  it("presumes nothing: each point is answered, or all on purpose, before it can be recorded", async () => {
    const user = userEvent.setup();
    const { sent, append } = writing();
    const close = vi.fn();
    const mended = { ...piece, spots: piece.spots.filter((s) => s.mended) };
    render(
      <RunSheet
        open
        onOpenChange={close}
        piece={mended}
        standard={standard}
        level="strict"
        append={append}
      />,
    );
    const main = (name: string) => screen.getByRole<HTMLButtonElement>("button", { name });
    expect(main("2 still to answer").disabled).toBe(true);
    await user.click(main("2 still to answer"));
    expect(sent).toEqual([]);
    await user.click(main("Right notes: met"));
    expect(main("1 still to answer").disabled).toBe(true);
    await user.click(main("No stop: missed"));
    expect(main("No stop: missed").getAttribute("aria-pressed")).toBe("true");
    await user.click(main("Record the run: it stays"));
    expect(sent).toMatchObject([{ kind: "run", material: "fog", standard: "strict", met: ["notes"] }]);
    expect(close).toHaveBeenCalledWith(false);
    // Recorded twice it is the same run.
    await user.click(main("No stop: met"));
    await user.click(main("It met the standard: clear it"));
    expect(sent[1]).toMatchObject({ id: sent[0]?.id, met: ["notes", "flow"] });
  });

  it("asks once more where a spot is still marked as hard", async () => {
    const user = userEvent.setup();
    const { sent, append } = writing();
    render(
      <RunSheet
        open
        onOpenChange={vi.fn()}
        piece={piece}
        standard={standard}
        level="strict"
        append={append}
      />,
    );
    await user.click(screen.getByRole("button", { name: "Both were met" }));
    expect(screen.getByRole("alert").textContent).toContain(
      "bar 3 is still marked as hard. Did it hold this time?",
    );
    const clear = screen.getByRole<HTMLButtonElement>("button", { name: "It met the standard: clear it" });
    expect(clear.disabled).toBe(true);
    await user.click(screen.getByRole("button", { name: "It held" }));
    await user.click(clear);
    expect(sent).toMatchObject([{ kind: "run", met: ["notes", "flow"] }]);
  });
});

describe("hard spots", () => {
  it("go from the first bar tapped to the last, in either direction", async () => {
    const user = userEvent.setup();
    const { sent, append } = writing();
    const open = vi.fn();
    render(<SpotStrip piece={piece} append={append} open onOpen={open} />);
    await user.click(screen.getByRole("button", { name: "Bar 2" }));
    expect(screen.getByRole("status").textContent).toBe(
      "From bar 2: now tap the last bar, or the same one again.",
    );
    await user.click(screen.getByRole("button", { name: "Bar 0" }));
    expect(sent).toMatchObject([{ kind: "spotAdded", material: "fog", from: 1, to: 3 }]);
    expect(open).toHaveBeenCalledWith(false);
  });
  it("show those that are open, and mend them", async () => {
    const user = userEvent.setup();
    const { sent, append } = writing();
    render(<SpotStrip piece={piece} append={append} open={false} onOpen={() => {}} />);
    expect(screen.queryByText("the upbeat")).toBeNull();
    await user.click(screen.getByRole("button", { name: "Mended" }));
    expect(sent).toMatchObject([{ kind: "spotMended", material: "fog", spot: "open" }]);
  });
  it("are not offered where there are no bars", () => {
    const { append } = writing();
    const { container } = render(
      <SpotStrip piece={{ ...piece, bars: 0 }} append={append} open onOpen={() => {}} />,
    );
    expect(container.textContent).toBe("");
  });
});

describe("what to prepare", () => {
  const lesson = {
    student: { ladder: "ada" },
    bites: [
      {
        skill: "ties",
        name: "holding a tie",
        step: 2,
        of: 3,
        for: "Fog",
        text: "tie two fingers",
        why: "“Fog” needs holding a tie.",
        exercise: { id: "tie/1", name: "A tie exercise" },
      },
    ],
  } as unknown as Schemas["Lesson"];
  it("says the step and what it is for, and is done with one tap", async () => {
    const user = userEvent.setup();
    const { sent, append } = writing();
    render(<Bites lesson={lesson} append={append} />, { wrapper: MemoryRouter });
    expect(screen.getByText(/step 2 of 3 towards “holding a tie”, which “Fog” will ask for/)).toBeTruthy();
    expect(screen.getByRole("link", { name: "A tie exercise" }).getAttribute("href")).toBe(
      "/technique?ladder=ada&exercise=tie%2F1",
    );
    await user.click(screen.getByRole("button", { name: /^Done/ }));
    expect(sent).toMatchObject([{ kind: "stepDone", skill: "ties", step: 2, text: "tie two fingers" }]);
  });
  it("is not there when nothing is due", () => {
    const { append } = writing();
    const { container } = render(<Bites lesson={{ ...lesson, bites: [] }} append={append} />);
    expect(container.textContent).toBe("");
  });
});
