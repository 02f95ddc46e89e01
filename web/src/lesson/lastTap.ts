/** How soon the same mark on the same point is taken for a double tap. */
const doubleTap = 900;

/** Remembers the last tap, so that a double tap gives one mark. */
export class LastTap {
  #point = "";
  #mark = "";
  #at = Number.NEGATIVE_INFINITY;

  /** Says whether this tap only repeats the one before; remembers it if not. */
  repeats(point: string, mark: string, now = performance.now()): boolean {
    if (point === this.#point && mark === this.#mark && now - this.#at < doubleTap) return true;
    this.#point = point;
    this.#mark = mark;
    this.#at = now;
    return false;
  }
}
