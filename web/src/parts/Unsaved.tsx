import { AlertDialog } from "radix-ui";
import { useEffect } from "react";
import { useBlocker } from "react-router";

/** Asks before what was entered and not saved is forgotten. */
export function AskToDiscard(props: { open: boolean; onKeep: () => void; onDiscard: () => void }) {
  return (
    <AlertDialog.Root open={props.open} onOpenChange={(open) => !open && props.onKeep()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-50 bg-black/45" />
        <AlertDialog.Content className="fixed inset-x-4 top-[20vh] z-50 mx-auto max-w-md rounded-2xl border border-line bg-sheet p-6 shadow-xl">
          <AlertDialog.Title className="font-head text-[1.4rem] font-semibold">
            Not saved yet
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-1">
            What you entered is not saved. Do you want to go on with it?
          </AlertDialog.Description>
          <div className="mt-4 flex flex-wrap gap-2">
            <AlertDialog.Cancel className="press press-main">Go on with it</AlertDialog.Cancel>
            <AlertDialog.Action className="press" onClick={props.onDiscard}>
              Discard it
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

/** Guards a form on a page: leaving the page asks first. */
export function Unsaved({ dirty }: { dirty: boolean }) {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => dirty && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    if (!dirty) return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [dirty]);
  return (
    <AskToDiscard
      open={blocker.state === "blocked"}
      onKeep={() => blocker.reset?.()}
      onDiscard={() => blocker.proceed?.()}
    />
  );
}
