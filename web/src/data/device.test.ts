import { beforeEach, describe, expect, it, vi } from "vitest";
import { device, whenFull } from "./device";

/** A storage with room for so many characters. */
class Small {
  map = new Map<string, string>();
  constructor(private room: number) {}
  get length() {
    return this.map.size;
  }
  key = (i: number) => [...this.map.keys()][i] ?? null;
  getItem = (k: string) => this.map.get(k) ?? null;
  setItem = (k: string, v: string) => {
    let used = k.length + v.length;
    for (const [key, value] of this.map) if (key !== k) used += key.length + value.length;
    if (used > this.room) throw new DOMException("full", "QuotaExceededError");
    this.map.set(k, v);
  };
  removeItem = (k: string) => void this.map.delete(k);
}

const small = (room: number) => {
  const store = new Small(room);
  vi.stubGlobal(
    "localStorage",
    new Proxy(store, {
      ownKeys: (s) => [...s.map.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    }),
  );
  return store;
};

let told = 0;
beforeEach(() => whenFull(() => told++));

describe("a device that is full", () => {
  it("lets what was kept give way, oldest first, and never what was tapped; it says so once", () => {
    const store = small(150);
    device.setItem("waiting 1", "tapped");
    device.setItem("kept b", JSON.stringify({ at: 2, x: "b".repeat(20) }));
    device.setItem("kept a", JSON.stringify({ at: 1, x: "a".repeat(20) }));
    device.setItem("kept c", JSON.stringify({ at: 3, x: "c".repeat(20) }));
    expect(told).toBe(0);
    device.setItem("waiting 2", "t".repeat(40));
    expect([...store.map.keys()]).toEqual(["waiting 1", "kept b", "kept c", "waiting 2"]);
    expect(device.tryItem("kept d", "d".repeat(200))).toBe(false);
    expect([...store.map.keys()]).toEqual(["waiting 1", "waiting 2"]);
    expect(() => device.setItem("waiting 3", "t".repeat(200))).toThrow("full");
    expect(told).toBe(1);
  });

  it("that lets nobody at its storage breaks nothing", () => {
    const shut = () => {
      throw new DOMException("shut", "SecurityError");
    };
    vi.stubGlobal("localStorage", { getItem: shut, setItem: shut, removeItem: shut, key: shut, length: 0 });
    expect(device.getItem("x")).toBeNull();
    expect(device.tryItem("x", "y")).toBe(false);
    expect(() => device.removeItem("x")).not.toThrow();
  });
});
