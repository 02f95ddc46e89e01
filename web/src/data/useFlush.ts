import { useEffect } from "react";

/** What can be sent: an outbox of any kind. */
interface Flushing {
  read: () => void;
  flush: (who: string) => Promise<void>;
}

/** Sends what waits when the screen opens, when the network is back, and when the tab is looked at again. */
export function useFlush(outbox: Flushing, who: string) {
  useEffect(() => {
    if (!who) return;
    const go = () => {
      outbox.read();
      void outbox.flush(who);
    };
    go();
    window.addEventListener("online", go);
    document.addEventListener("visibilitychange", go);
    return () => {
      window.removeEventListener("online", go);
      document.removeEventListener("visibilitychange", go);
    };
  }, [outbox, who]);
}
