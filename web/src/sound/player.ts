/** One note to be heard, in quarter notes from the start of the piece. */
export interface Heard {
  at: number;
  length: number;
  midi: number;
}

/** Something to be played: notes, and the beats for the click. */
export interface Performance {
  notes: Heard[];
  beats: { at: number; first: boolean }[];
  start: number;
  end: number;
  /** Quarter notes a minute. */
  tempo: number;
  click: boolean;
}

/** What sounds when, in seconds from the beginning; the click counts one bar in. */
export function schedule(p: Performance) {
  const seconds = 60 / p.tempo;
  const within = (at: number) => at >= p.start - 1e-6 && at < p.end - 1e-6;
  const beats = p.beats.filter((b) => within(b.at));
  const [one, two] = beats;
  const beat = one && two ? two.at - one.at : 1;
  const next = beats.findIndex((b, i) => i > 0 && b.first);
  const count = p.click ? (next > 0 ? Math.min(next, 4) : Math.min(beats.length, 4)) : 0;
  const lead = count * beat * seconds;
  return {
    lead,
    length: lead + (p.end - p.start) * seconds,
    notes: p.notes
      .filter((n) => within(n.at))
      .map((n) => ({
        from: lead + (n.at - p.start) * seconds,
        to: lead + (Math.min(n.at + n.length, p.end) - p.start) * seconds,
        midi: n.midi,
      })),
    clicks: p.click
      ? [
          ...Array.from({ length: count }, (_, i) => ({ at: i * beat * seconds, first: i === 0 })),
          ...beats.map((b) => ({ at: lead + (b.at - p.start) * seconds, first: b.first })),
        ]
      : [],
  };
}

/** A plain synthesised sound, made by the browser itself. Nothing is fetched. */
export class Player {
  private context?: AudioContext;
  private out?: GainNode;
  private frame = 0;

  /** Plays; tells which pitches sound and where in the piece it is, and undefined at the end. */
  play(p: Performance, tell: (now: { midi: number[]; at: number } | undefined) => void) {
    this.stop();
    this.context ??= new AudioContext();
    const context = this.context;
    void context.resume();
    const out = context.createGain();
    out.gain.value = 0.5; // a moderate level, for the sake of the ears
    out.connect(context.destination);
    this.out = out;
    const plan = schedule(p);
    const zero = context.currentTime + 0.1;
    for (const n of plan.notes) this.note(out, zero + n.from, zero + Math.max(n.to, n.from + 0.05), n.midi);
    for (const c of plan.clicks) this.click(out, zero + c.at, c.first);
    let last = "";
    const follow = () => {
      const t = context.currentTime - zero;
      if (t > plan.length + 0.1) {
        this.stop();
        tell(undefined);
        return;
      }
      const midi = plan.notes.filter((n) => n.from <= t && t < n.to - 0.02).map((n) => n.midi);
      const at = p.start + (Math.max(0, t - plan.lead) * p.tempo) / 60;
      const state = `${midi.join()} ${Math.floor(at * 2)}`;
      if (state !== last) {
        last = state;
        tell({ midi, at });
      }
      this.frame = requestAnimationFrame(follow);
    };
    this.frame = requestAnimationFrame(follow);
  }

  stop() {
    cancelAnimationFrame(this.frame);
    if (this.out && this.context) {
      this.out.gain.setTargetAtTime(0, this.context.currentTime, 0.02);
      const out = this.out;
      setTimeout(() => out.disconnect(), 200);
      this.out = undefined;
    }
  }

  private note(out: AudioNode, from: number, to: number, midi: number) {
    const context = out.context;
    const gain = context.createGain();
    gain.gain.setValueAtTime(0, from);
    gain.gain.linearRampToValueAtTime(0.32, from + 0.012);
    gain.gain.exponentialRampToValueAtTime(0.12, Math.max(from + 0.4, from + 0.02));
    gain.gain.setTargetAtTime(0, to, 0.05);
    gain.connect(out);
    for (const [partial, share] of [
      [1, 1],
      [2, 0.28],
      [3, 0.1],
    ] as const) {
      const tone = context.createOscillator();
      tone.frequency.value = partial * 440 * 2 ** ((midi - 69) / 12);
      const level = context.createGain();
      level.gain.value = share;
      tone.connect(level).connect(gain);
      tone.start(from);
      tone.stop(to + 0.4);
    }
  }

  private click(out: AudioNode, at: number, first: boolean) {
    const context = out.context;
    const tone = context.createOscillator();
    tone.type = "square";
    tone.frequency.value = first ? 1568 : 1046;
    const gain = context.createGain();
    gain.gain.setValueAtTime(first ? 0.12 : 0.07, at);
    gain.gain.exponentialRampToValueAtTime(0.001, at + 0.05);
    tone.connect(gain).connect(out);
    tone.start(at);
    tone.stop(at + 0.06);
  }
}
