import { device } from "./device";

const prefix = "boxes ";

/** The boxes of one thing on one day, as they were tapped on this device. */
export interface Boxes {
  token: string;
  day: string;
  item: string;
}

const key = (b: Boxes) => `${prefix}${b.day} ${b.token} ${b.item}`;

/** How many boxes were tapped so far; they stay when one looks elsewhere, and until the thing is done. */
export const tapped = (b: Boxes) => Number(device.getItem(key(b)) ?? 0);

/** Keeps how many boxes were tapped; none forgets them. What is older than two weeks goes. */
export function tap(b: Boxes, times: number) {
  const old = new Date(Date.parse(`${b.day}T00:00:00Z`) - 14 * 24 * 60 * 60 * 1000)
    .toISOString()
    .slice(0, 10);
  for (const k of device.keys(prefix))
    if (k.slice(prefix.length, prefix.length + 10) < old) device.removeItem(k);
  // Where the storage is full the boxes count as long as the page is open.
  if (times > 0) device.tryItem(key(b), String(times));
  else device.removeItem(key(b));
}
