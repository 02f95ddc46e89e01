import { useState, useSyncExternalStore } from "react";
import { clock } from "../data/clock";
import { whenFull } from "../data/device";
import { shownSince } from "../data/kept";
import { useSession } from "../data/people";

const full = {
  is: false,
  listeners: new Set<() => void>(),
  subscribe: (l: () => void) => {
    full.listeners.add(l);
    return () => full.listeners.delete(l);
  },
};

whenFull(() => {
  full.is = true;
  for (const l of full.listeners) l();
});

/** A time on the clocks of the studio, with its day where that is not today. */
function moment(at: number, zone: string | undefined): string {
  const form = (o: Intl.DateTimeFormatOptions) => {
    try {
      return new Intl.DateTimeFormat("en-GB", { ...o, timeZone: zone }).format(at);
    } catch {
      return new Intl.DateTimeFormat("en-GB", o).format(at);
    }
  };
  const time = form({ hour: "2-digit", minute: "2-digit" });
  const day = form({ year: "numeric", month: "2-digit", day: "2-digit" }).split("/").reverse().join("-");
  return day === clock.today(zone) ? time : `${form({ day: "numeric", month: "long" })}, ${time}`;
}

/** What the teacher is told of this device: that something of before is shown, and that it is full. */
export function DeviceNotes() {
  const since = useSyncExternalStore(shownSince.subscribe, shownSince.get);
  const isFull = useSyncExternalStore(full.subscribe, () => full.is);
  const [read, setRead] = useState(false);
  const zone = useSession().data?.timezone;
  return (
    <>
      {since > 0 && (
        <p role="status" className="no-print mx-auto max-w-6xl border-l-4 border-preview px-4 py-2 sm:px-6">
          The server does not answer. This is how it was at {moment(since, zone)}; what you enter is kept here
          and sent later.
        </p>
      )}
      {isFull && !read && (
        <p
          role="status"
          className="no-print mx-auto flex max-w-6xl flex-wrap items-center gap-3 border-l-4 border-cliff px-4 py-2 sm:px-6"
        >
          This device is full. Pages that were kept for a lesson without a connection made room; what you
          tapped is kept. Delete something on the device.
          <button type="button" className="quiet" onClick={() => setRead(true)}>
            I will
          </button>
        </p>
      )}
    </>
  );
}
