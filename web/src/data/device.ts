/** Begins the names of answers that are kept; they give way when the device is full. */
export const keptPrefix = "kept ";

let onFull = () => {};
let told = false;

/** Says what to do when something had to give way, or had no room: once, until the page is opened again. */
export function whenFull(tell: () => void) {
  onFull = tell;
}

const full = () => {
  if (told) return;
  told = true;
  onFull();
};

/** When a kept answer came, in milliseconds; 0 for one that says nothing of it. */
const age = (key: string): number => {
  try {
    return Number((JSON.parse(localStorage.getItem(key) ?? "{}") as { at?: number }).at) || 0;
  } catch {
    return 0;
  }
};

/**
 * The storage of this device. It may be shut or full: then kept answers give way, the oldest first, never what
 * was tapped, and nothing that is shown breaks.
 */
export const device = {
  get length(): number {
    try {
      return localStorage.length;
    } catch {
      return 0;
    }
  },
  key(i: number): string | null {
    return localStorage.key(i);
  },
  keys(prefix: string): string[] {
    try {
      return Object.keys(localStorage).filter((k) => k.startsWith(prefix));
    } catch {
      return [];
    }
  },
  getItem(key: string): string | null {
    try {
      return localStorage.getItem(key);
    } catch {
      return null;
    }
  },
  /** Keeps something; throws when there is no room for it even without what gives way. */
  setItem(key: string, value: string) {
    const others = this.keys(keptPrefix).filter((k) => k !== key);
    others.sort((a, b) => age(a) - age(b));
    for (;;) {
      try {
        localStorage.setItem(key, value);
        return;
      } catch (error) {
        full();
        const oldest = others.shift();
        if (oldest === undefined) throw error;
        localStorage.removeItem(oldest);
      }
    }
  },
  /** Keeps something that the page can do without; says whether it is kept. */
  tryItem(key: string, value: string): boolean {
    try {
      this.setItem(key, value);
      return true;
    } catch {
      return false;
    }
  },
  removeItem(key: string) {
    try {
      localStorage.removeItem(key);
    } catch {
      // A storage that is shut holds nothing.
    }
  },
};
