import { Refusal } from "../contract/client";

const prefix = "kept ";

let timer: ReturnType<typeof setTimeout> | undefined;
let onLater = () => {};

/** Says what to do some seconds after an old answer was given: ask the server anew. */
export function askAgain(later: () => void) {
  onLater = later;
}

/**
 * Asks the server, and keeps the answer on this device: without a connection the
 * last one is given, so that a lesson can be opened and taught. A refusal is an
 * answer, and is not covered up.
 */
export async function kept<T>(key: string, ask: () => Promise<T>): Promise<T> {
  try {
    const answer = await ask();
    try {
      localStorage.setItem(prefix + key, JSON.stringify(answer));
    } catch {
      // The storage is full or closed: then only what is online can be opened.
    }
    return answer;
  } catch (error) {
    const last = localStorage.getItem(prefix + key);
    if (error instanceof Refusal || !last) throw error;
    clearTimeout(timer);
    timer = setTimeout(() => onLater(), 3_000);
    return JSON.parse(last) as T;
  }
}

/** Changes what is kept, so that it holds what the server took since it answered. */
export function amendKept<T>(key: string, amend: (last: T) => T) {
  const last = localStorage.getItem(prefix + key);
  if (last) localStorage.setItem(prefix + key, JSON.stringify(amend(JSON.parse(last) as T)));
}

/** Forgets all that was kept of the studio, when somebody signs out; what waits to be sent stays. */
export function forgetKept() {
  for (const key of Object.keys(localStorage)) if (key.startsWith(prefix)) localStorage.removeItem(key);
}
