export function Piece() { return null; }
