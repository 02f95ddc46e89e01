import type { Schemas } from "../contract/client";

/** The order of everything on a ladder that was not begun. */
export type Order = Schemas["PlacedRung"][];

type View = Pick<Schemas["LadderView"], "rails">;

const ahead = (r: Schemas["Rung"]) => r.layer === "ahead" || r.layer === "preview";

/** Reads the order from a ladder as it is drawn. */
export const orderOf = (view: View): Order =>
  view.rails.flatMap((rail) =>
    rail.rungs
      .filter(ahead)
      .map((r) => ({ material: r.material, strand: rail.strand, aside: r.aside ?? ("" as const) })),
  );

/** Moves a rung by some places on its strand: below 0 is earlier. It stops at the ends. */
export function move(order: Order, material: string, by: number): Order {
  const rung = order.find((r) => r.material === material);
  if (!rung) return order;
  const strand = order.filter((r) => r.strand === rung.strand);
  const at = strand.indexOf(rung);
  const to = Math.min(Math.max(at + by, 0), strand.length - 1);
  if (to === at) return order;
  strand.splice(at, 1);
  strand.splice(to, 0, rung);
  return [...order.filter((r) => r.strand !== rung.strand), ...strand];
}

/** Sets a rung aside, or back. */
export const setAside = (order: Order, material: string, aside: Order[number]["aside"]): Order =>
  order.map((r) => (r.material === material ? { ...r, aside } : r));

/** Puts a material next on its strand. */
export const insert = (order: Order, material: string, strand: Schemas["Strand"]): Order => [
  ...order.filter((r) => r.strand !== strand && r.material !== material),
  { material, strand },
  ...order.filter((r) => r.strand === strand && r.material !== material),
];

/** Lets two rungs of a strand change places; one that is not on the ladder takes the place of the other. */
export function swap(order: Order, material: string, other: string): Order {
  const a = order.find((r) => r.material === material);
  const b = order.find((r) => r.material === other);
  if (!a) return order;
  return order.map((r) => (r === a ? (b ?? { material: other, strand: a.strand }) : r === b ? a : r));
}

/** Takes a rung off. */
export const takeOff = (order: Order, material: string): Order =>
  order.filter((r) => r.material !== material);

/** Where a rung stands on its strand among those ahead, from 0, and how many there are. */
export function placeOf(order: Order, material: string): { at: number; of: number } {
  const strand = order.find((r) => r.material === material)?.strand;
  const list = order.filter((r) => r.strand === strand);
  return { at: list.findIndex((r) => r.material === material), of: list.length };
}
