import { client, Refusal } from "../contract/client";
import { device } from "./device";

/** Says that whoever was signed in has left, and the server was not told yet. */
const leaving = "leaving";

/** Whoever is signed in leaves: until the server was told, nobody is signed in on this device. */
export const beginLeaving = () => device.tryItem(leaving, "yes");

/** Tells the server that somebody left, where that is still to be done; throws as long as it cannot. */
export async function leave() {
  if (!device.getItem(leaving)) return;
  try {
    await client.DELETE("/session");
  } catch (error) {
    if (!(error instanceof Refusal)) throw new Refusal(401, "Sign in first.");
    if (error.status !== 401) throw error;
  }
  device.removeItem(leaving);
}

if (typeof window !== "undefined")
  window.addEventListener("online", () => void leave().catch(() => undefined));
