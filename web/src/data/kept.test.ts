import { beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../contract/client";
import { clock } from "./clock";
import { amendKept, forgetKept, keepFor, kept, shownSince, whenFresh } from "./kept";

class Store {
  map = new Map<string, string>();
  get length() {
    return this.map.size;
  }
  key = (i: number) => [...this.map.keys()][i] ?? null;
  getItem = (k: string) => this.map.get(k) ?? null;
  setItem = (k: string, v: string) => void this.map.set(k, v);
  removeItem = (k: string) => void this.map.delete(k);
}

/** A storage whose keys can be listed, as those of a browser can. */
function storage() {
  const store = new Store();
  return new Proxy(store, {
    ownKeys: (s) => [...s.map.keys()],
    getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
  });
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("localStorage", storage());
});

const offline = () => Promise.reject(new TypeError("no network"));

describe("what is kept of answers", () => {
  it("is given when the network is gone, as it was last", async () => {
    expect(await kept("page", async () => ({ n: 1 }))).toEqual({ n: 1 });
    expect(await kept("page", async () => ({ n: 2 }))).toEqual({ n: 2 });
    expect(await kept("page", offline)).toEqual({ n: 2 });
    await expect(kept("other", offline)).rejects.toThrow("no network");
  });

  it("never covers up a refusal: a link that was shut stays shut", async () => {
    await kept("family x", async () => ({ name: "Nell" }));
    await expect(
      kept("family x", () => Promise.reject(new Refusal(404, "This link opens nothing."))),
    ).rejects.toThrow("opens nothing");
  });

  it("holds what the server took since it answered", async () => {
    await kept("family x", async () => ({ ticks: ["a"] }));
    amendKept<{ ticks: string[] }>("family x", (p) => ({ ticks: [...p.ticks, "b"] }));
    expect(await kept("family x", offline)).toEqual({ ticks: ["a", "b"] });
    amendKept("never kept", () => ({ n: 1 }));
    await expect(kept("never kept", offline)).rejects.toThrow();
  });

  it("is forgotten at sign-out, but not what waits to be sent", async () => {
    await kept("page", async () => 1);
    localStorage.setItem("waiting 01", "{}");
    localStorage.setItem("tick 02", "{}");
    forgetKept();
    await expect(kept("page", offline)).rejects.toThrow();
    expect(localStorage.getItem("waiting 01")).toBe("{}");
    expect(localStorage.getItem("tick 02")).toBe("{}");
  });

  it("is given after two seconds without an answer, says of when it is, and gives way when the answer comes", async () => {
    const studio = vi.spyOn(clock, "now").mockReturnValue(Date.parse("2026-05-04T15:00:00Z"));
    await kept("lesson L", async () => "old");
    studio.mockReturnValue(Date.parse("2026-05-04T15:30:00Z"));
    const came: unknown[] = [];
    whenFresh((key, answer) => came.push([key, answer]));
    let answer: (text: string) => void = () => {};
    let given: string | undefined;
    void kept("lesson L", () => new Promise<string>((done) => (answer = done))).then((x) => (given = x));
    await vi.advanceTimersByTimeAsync(1_900);
    expect(given).toBeUndefined();
    await vi.advanceTimersByTimeAsync(200);
    expect(given).toBe("old");
    expect(new Date(shownSince.get()).toISOString()).toBe("2026-05-04T15:00:00.000Z");
    // Nothing else is waited for now.
    await kept("plan L", async () => "plan");
    void kept("lesson L", () => new Promise<string>(() => {}));
    let second: string | undefined;
    void kept("plan L", () => new Promise<string>(() => {})).then((x) => (second = x));
    await vi.advanceTimersByTimeAsync(2_100);
    expect(second).toBe("plan");
    answer("new");
    await vi.advanceTimersByTimeAsync(0);
    expect(came).toEqual([["lesson L", "new"]]);
    whenFresh(() => {});
    studio.mockRestore();
  });

  it("is given while a server starts anew", async () => {
    await kept("page", async () => 1);
    for (const status of [502, 503, 504])
      expect(await kept("page", () => Promise.reject(new Refusal(status, "Bad gateway")))).toBe(1);
    await expect(kept("page", () => Promise.reject(new Refusal(500, "Broken")))).rejects.toThrow("Broken");
  });

  it("is another account's only for that account, and another build's for nobody", async () => {
    keepFor("anna");
    await kept("lesson L", async () => "anna's");
    keepFor("ben");
    await expect(kept("lesson L", offline)).rejects.toThrow("no network");
    keepFor("anna");
    expect(await kept("lesson L", offline)).toBe("anna's");
    const name = Object.keys(localStorage).find((k) => k.endsWith("lesson L")) ?? "";
    const text = localStorage.getItem(name) ?? "";
    localStorage.setItem(name, text.replace(/"build":"[^"]*"/, '"build":"older"'));
    await expect(kept("lesson L", offline)).rejects.toThrow("no network");
    localStorage.setItem(name, "{damaged");
    await expect(kept("lesson L", offline)).rejects.toThrow("no network");
    keepFor("");
  });

  it("does not mind a storage that is full", async () => {
    const full = new Store();
    full.setItem = () => {
      throw new DOMException("full");
    };
    vi.stubGlobal("localStorage", full);
    expect(await kept("page", async () => 5)).toBe(5);
  });
});
