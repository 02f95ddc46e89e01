/** The title of the page in the browser: what it is about first. */
export function Title({ of }: { of: string }) {
  return <title>{`${of} · Patient Ladder`}</title>;
}
