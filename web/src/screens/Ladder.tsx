export function Ladder() { return null; }
