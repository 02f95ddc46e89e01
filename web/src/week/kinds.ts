import type { Schemas } from "../contract/client";

export type Kind = Schemas["WeekItem"]["kind"];

/** What is to be done, in words for a family. */
export const kindNames: Record<Kind, string> = {
  look: "Look and say",
  hear: "Listen and sing",
  chunk: "Short section",
  join: "Join",
  whole: "All the way through",
  spot: "Hard spot",
  again: "Again",
  review: "Play",
  preview: "For later",
  listen: "Listen",
  drill: "Exercise",
  game: "Game",
};

/** The layer that an item belongs to, by which it is drawn. */
export const layerOf = (kind: Kind): "working" | "preview" | "review" =>
  kind === "review" ? "review" : kind === "preview" || kind === "listen" ? "preview" : "working";

export const gateNames: Record<Schemas["Gate"], string> = {
  automatic: "by the way of teaching",
  right: "right hand only until the left is taught",
  left: "left hand only until the right is taught",
  apart: "each hand by itself",
  together: "both hands",
};
