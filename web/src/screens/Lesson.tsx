export function Lesson() { return null; }
