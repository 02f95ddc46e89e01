import { useState } from "react";
import { draft, keepDraft } from "./kept";

/**
 * What was typed in a form and not saved, kept on the device while one goes elsewhere and comes back. It goes when
 * somebody signs out.
 */
export function useDraft<T>(key: string, empty: T): [T, (next: T) => void] {
  const [value, set] = useState<T>(() => draft<T>(key) ?? empty);
  return [
    value,
    (next) => {
      keepDraft(key, next);
      set(next);
    },
  ];
}
