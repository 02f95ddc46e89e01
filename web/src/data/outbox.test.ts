import { describe, expect, it, vi } from "vitest";
import { type Entry, Outbox } from "./outbox";

class Store {
  private map = new Map<string, string>();
  get length() {
    return this.map.size;
  }
  key = (i: number) => [...this.map.keys()][i] ?? null;
  getItem = (k: string) => this.map.get(k) ?? null;
  setItem = (k: string, v: string) => void this.map.set(k, v);
  removeItem = (k: string) => void this.map.delete(k);
}

const entry = (id: string, text = "x"): Entry => ({ id, at: "2026-01-05T15:00:00.000Z", kind: "note", text });
const refuses = (e: unknown) => (e instanceof RangeError ? e.message : undefined);
const settled = () => new Promise((done) => setTimeout(done, 0));

describe("the outbox", () => {
  it("keeps what cannot be sent, over a closed tab, and sends it once when it can", async () => {
    const store = new Store();
    let online = false;
    const server: string[] = [];
    const send = async (_: string, entries: Entry[]) => {
      if (!online) throw new TypeError("no network");
      server.push(...entries.map((e) => e.id));
    };
    const first = new Outbox(store, send, refuses, 1e6);
    first.add("L", "me", [entry("a")]);
    first.add("L", "me", [entry("b"), entry("c")]);
    await settled();
    expect(first.all().map((w) => w.entry.id)).toEqual(["a", "b", "c"]);

    const reopened = new Outbox(store, send, refuses, 1e6);
    expect(reopened.all().map((w) => w.entry.id)).toEqual(["a", "b", "c"]);
    online = true;
    await reopened.flush("me");
    expect(server).toEqual(["a", "b", "c"]);
    expect(store.length).toBe(0);
    // It is shown until what the server makes of it is there.
    expect(reopened.all().map((w) => w.sent)).toEqual([true, true, true]);
    reopened.settle(["a", "b", "c"]);
    expect(reopened.all()).toEqual([]);
  });

  it("lets one refused entry hold up no other, and says why", async () => {
    const server: string[] = [];
    const box = new Outbox(
      new Store(),
      async (_, entries) => {
        if (entries.some((e) => e.text === "wrong")) throw new RangeError("nobody knows this piece");
        server.push(...entries.map((e) => e.id));
      },
      refuses,
    );
    box.add("L", "me", [entry("a"), entry("b", "wrong"), entry("c")]);
    await vi.waitFor(() => expect(server).toEqual(["a", "c"]));
    await vi.waitFor(() =>
      expect(
        box
          .all()
          .filter((w) => !w.sent)
          .map((w) => w.refused),
      ).toEqual(["nobody knows this piece"]),
    );
    box.forget("b");
    expect(box.all().every((w) => w.sent)).toBe(true);
  });

  it("does not send what somebody else wrote on this device", async () => {
    const store = new Store();
    const server: string[] = [];
    const send = async (_: string, entries: Entry[]) => void server.push(...entries.map((e) => e.id));
    store.setItem("waiting z", JSON.stringify({ ladder: "L", who: "other", entry: entry("z") }));
    const box = new Outbox(store, send, refuses);
    box.add("L", "me", [entry("a")]);
    await settled();
    expect(server).toEqual(["a"]);
    expect(
      box
        .all()
        .filter((w) => !w.sent)
        .map((w) => w.entry.id),
    ).toEqual(["z"]);
  });
});
