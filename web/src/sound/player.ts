/** One note to be heard, in quarter notes from the start of the piece. */
export interface Heard {
  at: number;
  length: number;
  midi: number;
  /** How loud, 0 to 1; as usual without it. */
  loud?: number;
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
  /** How the instrument sounds; like a keyboard by default. */
  tone?: Tone;
}

/** The sound of a family of instruments: its partials, how fast it begins, and how it goes on. */
export type Tone = "keyboard" | "bowed" | "plucked" | "wind" | "voice" | "percussion" | "other";

const tones: Record<
  Tone,
  {
    partials: readonly (readonly [number, number])[];
    attack: number;
    fade: number;
    hold: number;
    release: number;
  }
> = {
  keyboard: {
    partials: [
      [1, 1],
      [2, 0.28],
      [3, 0.1],
    ],
    attack: 0.012,
    fade: 0.4,
    hold: 0.12,
    release: 0.05,
  },
  bowed: {
    partials: [
      [1, 1],
      [2, 0.55],
      [3, 0.38],
      [4, 0.2],
      [5, 0.12],
    ],
    attack: 0.025,
    fade: 0.15,
    hold: 0.26,
    release: 0.025,
  },
  plucked: {
    partials: [
      [1, 1],
      [2, 0.5],
      [3, 0.3],
      [4, 0.12],
    ],
    attack: 0.004,
    fade: 0.28,
    hold: 0.03,
    release: 0.05,
  },
  wind: {
    partials: [
      [1, 1],
      [2, 0.18],
      [3, 0.22],
      [5, 0.05],
    ],
    attack: 0.03,
    fade: 0.12,
    hold: 0.26,
    release: 0.03,
  },
  voice: {
    partials: [
      [1, 1],
      [2, 0.4],
      [3, 0.12],
    ],
    attack: 0.04,
    fade: 0.15,
    hold: 0.25,
    release: 0.04,
  },
  percussion: {
    partials: [
      [1, 1],
      [1.6, 0.6],
      [2.3, 0.4],
      [3.7, 0.25],
    ],
    attack: 0.003,
    fade: 0.08,
    hold: 0.004,
    release: 0.02,
  },
  other: {
    partials: [
      [1, 1],
      [2, 0.3],
      [3, 0.12],
    ],
    attack: 0.012,
    fade: 0.4,
    hold: 0.14,
    release: 0.05,
  },
};

/**
 * How many beats are counted in: a bar of the piece, and before something that begins within a bar also what of it comes before.
 * Bars are as long as the one in which it begins, or the nearest whole one.
 */
function countIn(all: Performance["beats"], within: (at: number) => boolean) {
  const from = all.findIndex((b) => within(b.at));
  if (from < 0) return { count: 0, bar: 1 };
  const firsts = all.flatMap((b, i) => (b.first ? [i] : []));
  const before = firsts.filter((i) => i <= from).at(-1);
  const after = firsts.filter((i) => i > from);
  const [one = all.length, two = all.length] = before === undefined ? after : [before, after[0]];
  const earlier = firsts.filter((i) => i < one).at(-1);
  const bar = Math.max(1, two === all.length && earlier !== undefined ? one - earlier : two - one);
  const gone = before === undefined ? Math.max(0, bar - (one - from)) : from - before;
  return { count: gone === 0 ? bar : bar + gone, bar };
}

/** What sounds when, in seconds from the beginning; the click counts in. */
export function schedule(p: Performance) {
  const seconds = 60 / p.tempo;
  const within = (at: number) => at >= p.start - 1e-6 && at < p.end - 1e-6;
  const beats = p.beats.filter((b) => within(b.at));
  const [one, two] = beats;
  const beat = one && two ? two.at - one.at : 1;
  const before = countIn(p.beats, within);
  const count = p.click ? before.count : 0;
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
        ...(n.loud !== undefined && { loud: n.loud }),
      })),
    clicks: p.click
      ? [
          ...Array.from({ length: count }, (_, i) => ({
            at: i * beat * seconds,
            first: i % before.bar === 0,
          })),
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
    for (const n of plan.notes)
      sound(context, out, zero + n.from, zero + Math.max(n.to, n.from + 0.05), n.midi, p.tone, n.loud);
    for (const c of plan.clicks) tap(context, out, zero + c.at, c.first);
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

  /** A click at a tempo, until it is stopped. */
  beat(perMinute: number) {
    this.stop();
    this.context ??= new AudioContext();
    const context = this.context;
    void context.resume();
    const out = context.createGain();
    out.gain.value = 0.5;
    out.connect(context.destination);
    this.out = out;
    let next = context.currentTime + 0.08;
    const more = () => {
      for (; next < context.currentTime + 1; next += 60 / perMinute) tap(context, out, next, true);
      if (this.out === out) setTimeout(more, 400);
    };
    more();
  }
}

/** How loud a note is that has no level of its own, 0 to 1. */
const usualLoud = 0.68;

/** One note of an instrument. */
export function sound(
  context: BaseAudioContext,
  out: AudioNode,
  from: number,
  to: number,
  midi: number,
  tone: Tone = "keyboard",
  loud = usualLoud,
) {
  const level = loud / usualLoud;
  const { partials, attack, fade, hold, release } = tones[tone];
  const gain = context.createGain();
  gain.gain.setValueAtTime(0, from);
  gain.gain.linearRampToValueAtTime(0.32 * level, from + attack);
  gain.gain.exponentialRampToValueAtTime(hold * level, from + attack + fade);
  gain.gain.setTargetAtTime(0, to, release);
  gain.connect(out);
  for (const [partial, share] of partials) {
    const voice = context.createOscillator();
    voice.frequency.value = partial * 440 * 2 ** ((midi - 69) / 12);
    const part = context.createGain();
    part.gain.value = share;
    voice.connect(part).connect(gain);
    voice.start(from);
    voice.stop(to + 0.4);
  }
}

/** One click. */
export function tap(context: BaseAudioContext, out: AudioNode, at: number, first: boolean) {
  const voice = context.createOscillator();
  voice.type = "square";
  voice.frequency.value = first ? 1568 : 1046;
  const gain = context.createGain();
  gain.gain.setValueAtTime(first ? 0.12 : 0.07, at);
  gain.gain.exponentialRampToValueAtTime(0.001, at + 0.05);
  voice.connect(gain).connect(out);
  voice.start(at);
  voice.stop(at + 0.06);
}
