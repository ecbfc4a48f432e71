import { mapVoice } from '../../core/map/pool';
import { TakeEvidence } from '../../core/map/types';
import { median } from '../../core/signal/stats';
import { analyseTake } from '../../core/take/analyse';
import { Draw } from './makers';
import { drawRecording, Recording } from './recording';

const TAKES = 3;
const FIRST_SEED = 5000;
/** A found event is the true one within this time. */
const SAME_S = 0.15;

/** What came of one singer. */
interface Outcome {
  recording: Recording | null;
  hits: number;
  alarms: number;
  missed: number;
  /** Passaggi too many. */
  extra: number;
  /** How far the nearest passaggio lies from the true one (Infinity: none found), and whether its interval holds it; null where there is none. */
  change: { audible: boolean; error: number; covered: boolean } | null;
  limits: boolean;
}

function hear(draw: Draw, seed: number, rooms: boolean): Outcome {
  const { style, changeMidi, siren } = draw(seed);
  const recording = rooms ? drawRecording(seed) : null;
  const out: Outcome = { recording, hits: 0, alarms: 0, missed: 0, extra: 0, change: null, limits: false };
  const takes: TakeEvidence[] = [];
  let [low, high] = [Infinity, -Infinity];
  for (let k = 0; k < TAKES; k++) {
    const { pcm, events, lowestMidi, highestMidi } = siren(k);
    const { findings } = analyseTake(recording ? recording.of(pcm, k) : pcm, 'siren');
    takes.push({ takeId: String(k), findings, marks: [] });
    low = Math.min(low, lowestMidi);
    high = Math.max(high, highestMidi);
    const found = events.filter((t) => findings.events.some((e) => Math.abs(e.timeS - t.timeS) <= SAME_S)).length;
    out.hits += found;
    out.missed += events.length - found;
    out.alarms += findings.events.filter((e) => !events.some((t) => Math.abs(e.timeS - t.timeS) <= SAME_S)).length;
  }
  const map = mapVoice(takes);
  out.limits = map.extreme !== null && Math.abs(map.extreme.low.midi - low) <= 1 && Math.abs(map.extreme.high.midi - high) <= 1;
  if (changeMidi === null) return { ...out, extra: map.passaggi.length };
  const [nearest, ...others] = [...map.passaggi].sort((a, b) => Math.abs(a.midi - changeMidi) - Math.abs(b.midi - changeMidi));
  const error = nearest ? Math.abs(nearest.midi - changeMidi) : Infinity;
  const covered = nearest !== undefined && nearest.lowMidi <= changeMidi && changeMidi <= nearest.highMidi;
  return { ...out, extra: others.length, change: { audible: style !== 'blend', error, covered } };
}

const percent = (n: number, of: number) => (of === 0 ? '     –' : `${((100 * n) / of).toFixed(0).padStart(4)} %`);

const HEADINGS = '  of     P     R    F1   median  audible 1 st  blends 1.5 st   too many  in 90 %   limits';

/** One row of figures over some singers. */
function row(outcomes: Outcome[]): string {
  const sum = (value: (o: Outcome) => number) => outcomes.reduce((s, o) => s + value(o), 0);
  const [hits, alarms, missed] = [sum((o) => o.hits), sum((o) => o.alarms), sum((o) => o.missed)];
  const changes = outcomes.flatMap((o) => (o.change ? [o.change] : []));
  const within = (audible: boolean, st: number) => {
    const own = changes.filter((c) => c.audible === audible);
    return `${percent(own.filter((c) => c.error <= st).length, own.length)} of ${String(own.length).padEnd(3)}`;
  };
  const placed = changes.filter((c) => c.error < Infinity);
  const ratio = (n: number, of: number) => (of === 0 ? '    –' : (n / of).toFixed(2).padStart(5));
  return [
    String(outcomes.length).padStart(4),
    ` ${ratio(hits, hits + alarms)} ${ratio(hits, hits + missed)} ${ratio(2 * hits, 2 * hits + alarms + missed)}`,
    `   ${changes.length ? median(changes.map((c) => c.error)).toFixed(2) : '   –'}  `,
    `   ${within(true, 1)}   ${within(false, 1.5)}  `,
    `     ${(sum((o) => o.extra) / outcomes.length).toFixed(2)}`,
    `   ${percent(placed.filter((c) => c.covered).length, placed.length)}`,
    `   ${percent(outcomes.filter((o) => o.limits).length, outcomes.length)}`,
  ].join('');
}

/** Conditions a row is made of. */
const CONDITIONS: readonly (readonly [name: string, holds: (r: Recording) => boolean])[] = [
  ['dry', (r) => r.room === null],
  ['living room', (r) => r.room === 'living room'],
  ['practice room', (r) => r.room === 'practice room'],
  ['bathroom', (r) => r.room === 'bathroom'],
  ['hall', (r) => r.room === 'hall'],
  ['direct sound under 5 dB', (r) => r.room !== null && r.directDb < 5],
  ['direct sound over 5 dB', (r) => r.room !== null && r.directDb >= 5],
  ['direct sound 5 to 12 dB', (r) => r.room !== null && r.directDb >= 5 && r.directDb < 12],
  ['direct sound over 12 dB', (r) => r.room !== null && r.directDb >= 12],
  ['studio microphone', (r) => r.microphone === 'studio'],
  ['laptop', (r) => r.microphone === 'laptop'],
  ['phone', (r) => r.microphone === 'phone'],
  ['noise 15 to 30 dB under', (r) => r.snrDb < 30],
  ['noise 30 to 50 dB under', (r) => r.snrDb >= 30],
  ['hum', (r) => r.hum],
];

/** Events of slides, pooled passaggi and limits of each maker's singers, `count` each, recorded and clean, and by condition. */
export function singersReport(makers: readonly (readonly [name: string, draw: Draw])[], count: number): string[] {
  const lines = [
    `Singers by maker, ${TAKES} slides each: events at 150 ms, pooled passaggi, both limits within a semitone`,
    `  ${''.padEnd(34)}${HEADINGS}`,
  ];
  const recorded: Outcome[] = [];
  for (const rooms of [true, false])
    for (const [name, draw] of makers) {
      const outcomes = Array.from({ length: count }, (_, s) => hear(draw, FIRST_SEED + s, rooms));
      if (rooms) recorded.push(...outcomes);
      lines.push(`  ${`${name}${rooms ? ', recorded' : ', clean'}`.padEnd(34)}${row(outcomes)}`);
    }
  lines.push(`  ${'all makers, recorded'.padEnd(34)}${row(recorded)}`);
  for (const [name, holds] of CONDITIONS) {
    const own = recorded.filter((o) => holds(o.recording!));
    if (own.length > 0) lines.push(`    ${name.padEnd(32)}${row(own)}`);
  }
  return lines;
}
