import { device } from "./device";

/** From how far off on a device's clock counts as wrong, in milliseconds; less is the way of the answer. */
const slack = 5_000;

/**
 * The clock of the studio on this device. Every answer of the server says what time it is there; a device whose
 * clock is wrong lives by that all the same, also later without a connection. It never goes back.
 */
export class StudioClock {
  private offset = 0;
  private last = 0;

  constructor(
    private device: () => number = Date.now,
    private store?: Pick<Storage, "getItem" | "setItem">,
  ) {
    this.offset = Number(store?.getItem("clock offset")) || 0;
  }

  /** Takes the time that an answer brought. */
  heard(now: string | null) {
    const server = now ? Date.parse(now) : Number.NaN;
    if (Number.isNaN(server)) return;
    if (Math.abs(server - this.device() - this.offset) <= slack) return;
    this.offset = server - this.device();
    this.store?.setItem("clock offset", String(this.offset));
  }

  /** Milliseconds since 1970, as the server counts them. */
  now(): number {
    this.last = Math.max(this.last, this.device() + this.offset);
    return this.last;
  }

  /** The moment, as entries carry it. Two entries never share one, so that their order is kept. */
  moment(): string {
    this.last = Math.max(this.last + 1, this.device() + this.offset);
    return new Date(this.last).toISOString();
  }

  /** The day in a zone, as 2026-05-05; in the device's where the zone is not known. */
  today(zone?: string): string {
    const at = new Date(this.now());
    try {
      return new Intl.DateTimeFormat("en-CA", { timeZone: zone }).format(at);
    } catch {
      return new Intl.DateTimeFormat("en-CA").format(at);
    }
  }
}

export const clock = new StudioClock(
  Date.now,
  typeof localStorage === "undefined"
    ? undefined
    : { getItem: (k) => device.getItem(k), setItem: (k, v) => void device.tryItem(k, v) },
);
