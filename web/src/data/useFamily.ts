import { useQuery } from "@tanstack/react-query";
import { instrumentsQuery } from "./queries";

/** The family of an instrument; keyboard until the list of instruments is there. */
export function useFamily(instrument: string) {
  const instruments = useQuery(instrumentsQuery);
  return instruments.data?.find((i) => i.id === instrument)?.family ?? "keyboard";
}

/** The names of the instruments that can be taught, the given one among them in any case. */
export function useInstruments(chosen: string) {
  const instruments = useQuery(instrumentsQuery);
  return instruments.data?.map((i) => i.id) ?? [chosen];
}
