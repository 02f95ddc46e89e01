import { strandNames } from "../data/words";

/** The strands, as the options of a select. */
export function StrandOptions() {
  return Object.entries(strandNames).map(([key, name]) => (
    <option key={key} value={key}>
      {name}
    </option>
  ));
}
