import type { Schemas } from "../contract/client";
import { useOverrule } from "../data/library";
import { useFamily } from "../data/people";
import { Refused } from "../parts/Problem";
import { Sheet } from "../parts/Sheet";
import { barName } from "../score/choose";

/** Asks for the finger of one note. */
export function FingerSheet(props: {
  piece: Schemas["Piece"];
  finger: Schemas["NoteFinger"] | undefined;
  close: () => void;
}) {
  const { piece, finger: f } = props;
  const overrule = useOverrule(piece.material.id);
  const strings = useFamily(piece.material.instrument) !== "keyboard";
  const place = f && {
    kind: "finger" as const,
    part: f.part,
    staff: f.partStaff,
    bars: [f.bar],
    at: f.atExact,
    pitch: f.pitch,
  };
  const set = (change: { finger?: string; remove?: boolean }) =>
    place && overrule.mutate({ ...place, ...change }, { onSuccess: props.close });
  return (
    <Sheet
      open={f !== undefined}
      onOpenChange={(open) => !open && props.close()}
      title={f ? `${f.name} in ${barName(piece, f.bar)}` : ""}
      says={
        f?.own
          ? "You set this finger. It stays when another file of the piece is brought."
          : f?.given
            ? "This finger is printed in the file."
            : "This finger is proposed from the position of the hand."
      }
    >
      <fieldset disabled={overrule.isPending} className="flex flex-wrap gap-2 border-0 p-0">
        <legend className="sr-only">Finger</legend>
        {(strings ? ["0", "1", "2", "3", "4"] : ["1", "2", "3", "4", "5"]).map((n) => (
          <button
            key={n}
            type="button"
            className="press min-w-touch text-xl"
            aria-pressed={f?.given && f.finger === Number(n)}
            onClick={() => set({ finger: n })}
          >
            {n}
          </button>
        ))}
        <button type="button" className="press" onClick={() => set({ finger: "" })}>
          none printed
        </button>
        {f?.own && (
          <button type="button" className="quiet" onClick={() => set({ remove: true })}>
            as in the file
          </button>
        )}
      </fieldset>
      <Refused error={overrule.error} />
      <p className="fine mt-4">
        The positions are found anew with this finger. A finger that hurts is the wrong one: small hands do
        not stretch.
      </p>
    </Sheet>
  );
}
