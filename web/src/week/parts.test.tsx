// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../contract/client";
import { PublishButton, PublishChanged, PublishState } from "./Publish";

afterEach(cleanup);

const week = (more: object) =>
  ({
    published: false,
    changed: false,
    family: { email: "", recipients: [] },
    ...more,
  }) as unknown as Schemas["Week"];

describe("publishing", () => {
  it.each([
    [{}, "Publish", false],
    [{ published: true, changed: true }, "Publish again", false],
    [{ published: true }, "Published", true],
  ])("offers what is left to do: %o", (more, name, settled) => {
    render(<PublishButton week={week(more)} busy={false} publish={() => {}} />);
    expect(screen.getByRole("button", { name }).hasAttribute("disabled")).toBe(settled);
  });

  it("says what the family sees", () => {
    const said = (more: object) => {
      render(<PublishState week={week(more)} />);
      const text = screen.getByRole("status").textContent;
      cleanup();
      return text;
    };
    const at = { published: true, publishedAt: "2026-05-04T15:30:00Z" };
    expect(said({})).toBe("The family sees nothing of this week until it is published.");
    expect(said({ ...at, changed: true })).toMatch(
      /as it was published on .*; as it stands now, it would be otherwise\.$/,
    );
    expect(said({ ...at, family: { email: "", recipients: ["a@example.org", "b@example.org"] } })).toMatch(
      /a message is in the mailbox for a@example\.org, b@example\.org\.$/,
    );
  });

  const changed = {
    detail: "Something happened.",
    changes: ["New: “Fog”, on Monday", "Gone: “Tar”"],
    canPublish: true,
  } as Schemas["WeekChanged"];

  it("lets the teacher choose when the plan is another by now", async () => {
    const user = userEvent.setup();
    const showNew = vi.fn();
    const asShown = vi.fn();
    render(<PublishChanged changed={changed} busy={false} showNew={showNew} asShown={asShown} />);
    expect(screen.getAllByRole("listitem").map((l) => l.textContent)).toEqual(changed.changes);
    await user.click(screen.getByRole("button", { name: "Show the new plan" }));
    await user.click(screen.getByRole("button", { name: "Publish what was shown" }));
    expect([showNew.mock.calls.length, asShown.mock.calls.length]).toEqual([1, 1]);
  });

  it("does not offer what the server no longer has", () => {
    render(
      <PublishChanged
        changed={{ ...changed, canPublish: false }}
        busy={false}
        showNew={() => {}}
        asShown={() => {}}
      />,
    );
    expect(screen.queryByRole("button", { name: "Publish what was shown" })).toBeNull();
  });
});
