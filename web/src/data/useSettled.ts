import { useEffect } from "react";

/**
 * Lets go of entries that have arrived once an answer that has them is shown. sent are their ids; ask asks anew and is done when
 * the answer is there. Where more arrive meanwhile, what was asked is given up for what is asked then, and only that answer has
 * all of them: nothing is let go before it.
 */
export function useSettled(
  sent: readonly string[],
  ask: () => Promise<unknown>,
  settle: (ids: string[]) => void,
) {
  const key = sent.join(" ");
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is asked and let go of follows from the ids alone
  useEffect(() => {
    if (!key) return;
    let later = false;
    void ask().then(() => {
      if (!later) settle(key.split(" "));
    });
    return () => {
      later = true;
    };
  }, [key]);
}
