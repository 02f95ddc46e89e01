import { beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../contract/client";
import { amendKept, forgetKept, kept } from "./kept";

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

  it("does not mind a storage that is full", async () => {
    const full = new Store();
    full.setItem = () => {
      throw new DOMException("full");
    };
    vi.stubGlobal("localStorage", full);
    expect(await kept("page", async () => 5)).toBe(5);
  });
});
