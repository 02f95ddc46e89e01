export function Week() { return null; }
