// @vitest-environment happy-dom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { useSettled } from "./useSettled";

afterEach(cleanup);

test("an entry stays until an answer has it, also when more arrive while it is asked for", async () => {
  const answers: (() => void)[] = [];
  const ask = vi.fn(() => new Promise<void>((done) => answers.push(done)));
  const gone: string[][] = [];
  const view = renderHook(({ sent }) => useSettled(sent, ask, (ids) => gone.push(ids)), {
    initialProps: { sent: [] as string[] },
  });
  expect(ask).not.toHaveBeenCalled();
  view.rerender({ sent: ["a"] });
  view.rerender({ sent: ["a", "b"] });
  expect(ask).toHaveBeenCalledTimes(2);
  await act(async () => answers[0]?.()); // given up for the second
  expect(gone).toEqual([]);
  await act(async () => answers[1]?.());
  expect(gone).toEqual([["a", "b"]]);
});
