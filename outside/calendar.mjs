// Reads a calendar with ical.js, a parser that nobody here wrote, and lists what
// happens between two times as the reader of a calendar would show it, in UTC.
// The time zones are those that the file spells out.
// Usage: node calendar.mjs FILE FROM TO
import { readFileSync } from "node:fs";
import path from "node:path";
import { pathToFileURL } from "node:url";

const at = path.resolve(import.meta.dirname, "../web/node_modules/ical.js/dist/ical.js");
const { default: ICAL } = await import(pathToFileURL(at).href);
const [file, from, to] = process.argv.slice(2);
const calendar = new ICAL.Component(ICAL.parse(readFileSync(file, "utf8")));
for (const zone of calendar.getAllSubcomponents("vtimezone")) ICAL.TimezoneService.register(zone);
const out = [];
const components = calendar.getAllSubcomponents("vevent");
const add = (event, start, duration) => {
  const day = start.isDate;
  const utc = start.toJSDate().toISOString();
  out.push({ title: event.summary, start: day ? start.toString() : utc, minutes: duration.toSeconds() / 60, words: event.description ?? "" });
};
for (const component of components) {
  if (component.hasProperty("recurrence-id")) continue; // it stands in place of a repetition of its event
  const event = new ICAL.Event(component);
  for (const other of components)
    if (other.hasProperty("recurrence-id") && other.getFirstPropertyValue("uid") === event.uid) event.relateException(other);
  if (!event.isRecurring()) {
    add(event, event.startDate, event.duration);
    continue;
  }
  const every = event.iterator();
  for (let next = every.next(); next && next.toJSDate() < new Date(to); next = every.next()) {
    const shown = event.getOccurrenceDetails(next);
    if (shown.startDate.toJSDate() >= new Date(from)) add(shown.item, shown.startDate, shown.endDate.subtractDate(shown.startDate));
  }
}
console.log(JSON.stringify(out));
