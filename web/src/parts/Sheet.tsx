import { Dialog } from "radix-ui";
import { type ReactNode, useState } from "react";
import { AskToDiscard } from "./Unsaved";

/**
 * A sheet laid over the screen for one task; Escape or a tap beside it puts it away. Where something was
 * entered in it that is not saved, it asks first.
 */
export function Sheet(props: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  says: string;
  children: ReactNode;
}) {
  const [entered, setEntered] = useState(false);
  const [asking, setAsking] = useState(false);
  const close = () => {
    setEntered(false);
    setAsking(false);
    props.onOpenChange(false);
  };
  return (
    <Dialog.Root
      open={props.open}
      onOpenChange={(open) => {
        if (open) props.onOpenChange(true);
        else if (entered) setAsking(true);
        else close();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/45" />
        <Dialog.Content
          className="fixed inset-x-0 bottom-0 z-40 mx-auto max-h-[94dvh] max-w-xl overflow-y-auto rounded-t-2xl border border-line bg-sheet p-5 shadow-xl sm:bottom-auto sm:top-[6vh] sm:rounded-2xl sm:p-7"
          onInput={(e) => {
            const to = e.target;
            if (to instanceof HTMLInputElement || to instanceof HTMLTextAreaElement)
              setEntered(to.value !== "");
          }}
          onSubmit={() => setEntered(false)}
        >
          <Dialog.Title>{props.title}</Dialog.Title>
          <Dialog.Description className="fine mt-1">{props.says}</Dialog.Description>
          <div className="mt-4">{props.children}</div>
        </Dialog.Content>
      </Dialog.Portal>
      <AskToDiscard open={asking} onKeep={() => setAsking(false)} onDiscard={close} />
    </Dialog.Root>
  );
}

/** A labelled field of a form. */
export function Field({ label, children }: { label: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is the child
    <label className="flex min-w-0 flex-col gap-1">
      <span className="fine">{label}</span>
      {children}
    </label>
  );
}
