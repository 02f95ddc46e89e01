// Reads histories of hearings from standard input and writes what ts-fsrs makes of them.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";

const { FSRSAlgorithm, generatorParameters, default_w } = createRequire(new URL("../web/package.json", import.meta.url))("ts-fsrs");
const model = new FSRSAlgorithm(generatorParameters({ w: [...default_w], enable_short_term: true }));
const histories = JSON.parse(readFileSync(0, "utf8"));
const out = histories.map((history) => {
  let state = null;
  return history.map(({ days, rating }) => {
    const recall = state ? model.forgetting_curve(days, state.stability) : 0;
    state = model.next_state(state, days, rating);
    return { ...state, recall };
  });
});
process.stdout.write(JSON.stringify(out));
