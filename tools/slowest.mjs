#!/usr/bin/env node
// Prints how long the packages took, and the ten slowest tests, from what `go test -json` wrote.
import { readFileSync } from "node:fs";

const packages = [];
const tests = [];
for (const line of readFileSync(process.argv[2], "utf8").trim().split("\n")) {
  const { Action, Elapsed, Package, Test } = JSON.parse(line);
  if (!["pass", "fail"].includes(Action) || Elapsed === undefined) continue;
  const name = Package.replace("patientladder/", "");
  if (!Test) packages.push([Elapsed, name]);
  else if (!Test.includes("/")) tests.push([Elapsed, `${name} ${Test}`]);
}
for (const [title, rows] of [["seconds by package", packages], ["the slowest tests", tests]]) {
  console.log(title);
  for (const [seconds, name] of rows.sort((a, b) => b[0] - a[0]).slice(0, 10)) console.log(`${seconds.toFixed(1).padStart(8)}  ${name}`);
}
