import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

/** A sheet laid over the screen for one task; Escape or a tap beside it puts it away. */
export function Sheet(props: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  says: string;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={props.open} onOpenChange={props.onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/45" />
        <Dialog.Content className="fixed inset-x-0 bottom-0 z-40 mx-auto max-h-[94dvh] max-w-xl overflow-y-auto rounded-t-2xl border border-line bg-sheet p-5 shadow-xl sm:bottom-auto sm:top-[6vh] sm:rounded-2xl sm:p-7">
          <Dialog.Title>{props.title}</Dialog.Title>
          <Dialog.Description className="fine mt-1">{props.says}</Dialog.Description>
          <div className="mt-4">{props.children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** A labelled field of a form. */
export function Field({ label, children }: { label: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is the child
    <label className="flex flex-col gap-1">
      <span className="fine">{label}</span>
      {children}
    </label>
  );
}
