import { Popover } from "radix-ui";
import type { ReactNode } from "react";

/** A number that answers "why?" with the inputs that made it. */
export function Why({ label, children, shown }: { label: string; shown: ReactNode; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="quiet figures font-semibold">
        {shown}
        <span className="sr-only">: {label}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-30 max-h-[min(70vh,var(--radix-popover-content-available-height))] w-96 max-w-[94vw] overflow-y-auto rounded-lg border border-line bg-sheet p-4 shadow-lg"
          collisionPadding={10}
          aria-label={label}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
