import { Refusal } from "../contract/client";
import { clock } from "./clock";
import { device, keptPrefix } from "./device";

declare const __BUILD__: string;

/** What is kept was made by one build of the page, and is read by that alone. */
const build: string = __BUILD__;

/** After how long without an answer what is kept is shown, in milliseconds. */
const patience = 2_000;

/** For how long after that nothing else is waited for either. */
const stalledFor = 30_000;

let timer: ReturnType<typeof setTimeout> | undefined;
let onLater = () => {};
let onFresh: (key: string, answer: unknown) => void = () => {};
let owner = "";
let stalledUntil = 0;

/** Says what to do some seconds after an old answer was given: ask the server anew. */
export function askAgain(later: () => void) {
  onLater = later;
}

/** Says what to do with an answer that came after what was kept had been shown. */
export function whenFresh(take: (key: string, answer: unknown) => void) {
  onFresh = take;
}

/** Whose answers are kept from now on: nobody else who signs in on this device is shown them. */
export function keepFor(account: string) {
  owner = account;
}

/** Answers of before that are shown now, with their times. */
const old = new Map<string, number>();
const listeners = new Set<() => void>();
let oldest = 0;
const tell = () => {
  oldest = Math.min(...old.values(), Number.POSITIVE_INFINITY);
  for (const l of listeners) l();
};

/** When the oldest answer of before that is shown came, in milliseconds; 0 when all of them are fresh. */
export const shownSince = {
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  get: () => (Number.isFinite(oldest) ? oldest : 0),
};

interface Kept {
  at: number;
  build: string;
  answer: unknown;
}

const nameOf = (key: string) => `${keptPrefix}${mine.has(key.split(" ")[0] ?? "") ? "" : `${owner} `}${key}`;

/** Answers that are kept whoever is signed in: who that is, and pages that a link opens. */
const mine = new Set(["session", "at"]);

function read(key: string): Kept | undefined {
  const text = device.getItem(nameOf(key));
  if (!text) return undefined;
  try {
    const last = JSON.parse(text) as Kept;
    return last.build === build ? last : undefined;
  } catch {
    return undefined;
  }
}

const write = (key: string, answer: unknown, at = clock.now()) =>
  device.tryItem(nameOf(key), JSON.stringify({ at, build, answer } satisfies Kept));

/** The server is there, and says that it cannot answer now: as good as no connection. */
export const unavailable = (error: unknown) =>
  error instanceof Refusal && (error.status === 502 || error.status === 503 || error.status === 504);

/**
 * Asks the server, and keeps the answer on this device. Without a connection, or where no answer comes for some
 * seconds, the last one is given, so that a lesson can be opened and taught; the answer takes its place when it
 * comes. A refusal is an answer, and is not covered up.
 */
export async function kept<T>(key: string, ask: () => Promise<T>): Promise<T> {
  const last = read(key);
  const answer = ask().then((fresh) => {
    stalledUntil = 0;
    write(key, fresh);
    if (old.delete(key)) tell();
    return fresh;
  });
  if (!last) return answer;
  let shown = false;
  const before = (): T => {
    shown = true;
    old.set(key, last.at);
    tell();
    return last.answer as T;
  };
  const outcome = answer.then(
    (fresh) => {
      if (shown) onFresh(key, fresh);
      return fresh;
    },
    (error: unknown) => {
      const said = error instanceof Refusal && !unavailable(error);
      if (said && !shown) throw error;
      clearTimeout(timer);
      timer = setTimeout(() => onLater(), said ? 0 : 3_000);
      return before();
    },
  );
  const stalled = new Promise<T>((give) => {
    const wait = Date.now() < stalledUntil ? 0 : patience;
    const giveUp = setTimeout(() => {
      stalledUntil = Date.now() + stalledFor;
      give(before());
    }, wait);
    const stop = () => clearTimeout(giveUp);
    outcome.then(stop, stop);
  });
  return Promise.race([outcome, stalled]);
}

/** Changes what is kept, so that it holds what the server took since it answered. */
export function amendKept<T>(key: string, amend: (last: T) => T) {
  const last = read(key);
  if (last) write(key, amend(last.answer as T), last.at);
}

/** What was typed in a form and not saved, of whoever is signed in; nothing where nothing was. */
export const draft = <T>(key: string) => read(`draft ${key}`)?.answer as T | undefined;

/** Keeps what was typed in a form until it is saved, or forgets it. */
export function keepDraft(key: string, typed: unknown) {
  write(`draft ${key}`, typed, Date.now());
}

/** Forgets all that was kept of the studio, when somebody signs out; what waits to be sent stays. */
export function forgetKept() {
  for (const key of device.keys(keptPrefix)) device.removeItem(key);
  old.clear();
  tell();
}
