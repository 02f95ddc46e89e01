import { expect, test } from "vitest";
import { changes } from "./PersonForm";

const was = {
  name: "Nell Farrow",
  called: "",
  born: "2016-02-03",
  bornAbout: false,
  notes: "afraid of the metronome",
  since: "",
  contacts: [],
  version: 4,
};

test("only what was changed is sent, with the version that was seen", () => {
  expect(changes(was, was)).toEqual({ version: 4 });
  expect(changes(was, { ...was, called: "Nelly" })).toEqual({ called: "Nelly", version: 4 });
  const dana = { id: "01", name: "Dana", relation: "mother", email: "", messages: false };
  expect(changes(was, { ...was, contacts: [dana], since: "2024-09-01" })).toEqual({
    contacts: [dana],
    since: "2024-09-01",
    version: 4,
  });
});
