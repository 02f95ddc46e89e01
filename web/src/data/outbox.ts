import type { Schemas } from "../contract/client";

export type Entry = Schemas["Entry"];

/** What every entry has, wherever it goes: an id made with the tap, and its time. */
interface Written {
  id: string;
  at: string;
}

/** An entry that is kept on this device until the server has it. */
export interface Waiting<T extends Written = Entry> {
  /** Where it goes: a ladder, or the link of a family. */
  ladder: string;
  /** Who wrote it: another person who signs in on this device does not send it. */
  who: string;
  entry: T;
  /** Why the server did not take it; it stays until it is taken away by hand. */
  refused?: string;
  /** The server has it; it is shown until what the server makes of it is there. */
  sent?: boolean;
}

/** Says of an error whether the server refused, so that sending again would not help. */
export type Refuses = (error: unknown) => string | undefined;

/** Waits for something only so long. What was sent may arrive all the same: an entry that comes twice counts once. */
function within<T>(sending: Promise<T>, patience: number): Promise<T> {
  let giveUp: ReturnType<typeof setTimeout> | undefined;
  const stalled = new Promise<T>((_, fail) => {
    giveUp = setTimeout(() => fail(new Error("No answer came.")), patience);
  });
  return Promise.race([sending, stalled]).finally(() => clearTimeout(giveUp));
}

/**
 * What was tapped and not sent yet. Each entry has a place of its own in the
 * storage, so that two tabs never overwrite each other; it is written before the
 * tap shows, and erased when the server has answered. Sent twice, an entry
 * counts once: its id is made with the tap.
 */
export class Outbox<T extends Written = Entry> {
  private listeners = new Set<() => void>();
  private list: Waiting<T>[] = [];
  private sent: Waiting<T>[] = [];
  private sending = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private store: Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length">,
    private send: (ladder: string, entries: T[]) => Promise<void>,
    private refuses: Refuses,
    private again = 4_000,
    /** Begins the names under which entries are kept. */
    private prefix = "waiting ",
    /** After how long without an answer sending is tried again, in milliseconds. */
    private patience = 20_000,
  ) {
    this.read();
  }

  /** Reads what is kept, as another tab may have left it. */
  read() {
    const list: Waiting<T>[] = [...this.sent];
    for (let i = 0; i < this.store.length; i++) {
      const key = this.store.key(i);
      if (!key?.startsWith(this.prefix)) continue;
      const text = this.store.getItem(key);
      if (text) list.push(JSON.parse(text) as Waiting<T>);
    }
    list.sort((a, b) => (a.entry.at + a.entry.id < b.entry.at + b.entry.id ? -1 : 1));
    this.list = list;
    for (const tell of this.listeners) tell();
  }

  /** What waits, oldest first; the same array until something changes. */
  all = (): Waiting<T>[] => this.list;

  subscribe = (tell: () => void) => {
    this.listeners.add(tell);
    return () => this.listeners.delete(tell);
  };

  /** Keeps entries on the device and sends them as soon as that works. */
  add(ladder: string, who: string, entries: T[]) {
    for (const entry of entries) this.write({ ladder, who, entry });
    this.read();
    void this.flush(who);
  }

  /** Lets go of entries that the server has, once what it makes of them is shown. */
  settle(ids: string[]) {
    this.sent = this.sent.filter((w) => !ids.includes(w.entry.id));
    this.read();
  }

  /** Entries that were kept under another name of the same person go under the new one. */
  adopt(before: string, who: string) {
    const mine = this.list.filter((w) => w.who === before && !w.sent);
    for (const w of mine) this.write({ ...w, who });
    if (mine.length > 0) this.read();
  }

  /** Takes an entry away that the server did not take. */
  forget(id: string) {
    this.store.removeItem(this.prefix + id);
    this.read();
  }

  /** Sends what one person wrote, ladder by ladder. Without a connection it tries again in a while. */
  async flush(who: string) {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.timer);
    try {
      for (;;) {
        const first = this.list.find((w) => !w.refused && !w.sent && w.who === who);
        if (!first) return;
        const batch = this.list.filter(
          (w) => !w.refused && !w.sent && w.who === who && w.ladder === first.ladder,
        );
        await this.deliver(batch.slice(0, 100));
      }
    } catch {
      this.timer = setTimeout(() => void this.flush(who), this.again);
    } finally {
      this.sending = false;
    }
  }

  /** Sends a batch; when it is refused, each of it by itself, so that one wrong entry holds up no other. */
  private async deliver(batch: Waiting<T>[]) {
    const ladder = batch[0]?.ladder ?? "";
    try {
      await within(
        this.send(
          ladder,
          batch.map((w) => w.entry),
        ),
        this.patience,
      );
      for (const w of batch) {
        this.store.removeItem(this.prefix + w.entry.id);
        this.sent.push({ ...w, sent: true });
      }
    } catch (error) {
      const why = this.refuses(error);
      if (why === undefined) throw error;
      const [only, ...more] = batch;
      if (more.length > 0) for (const w of batch) await this.deliver([w]);
      else if (only) this.write({ ...only, refused: why });
    }
    this.read();
  }

  private write(w: Waiting<T>) {
    this.store.setItem(this.prefix + w.entry.id, JSON.stringify(w));
  }
}
