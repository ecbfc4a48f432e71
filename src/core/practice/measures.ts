import { ceilingOf } from '../map/ceiling';
import { lowestCeiling } from '../map/how-soft';
import { evennessOf, pooledNotes } from '../map/findings';
import { Passaggio, TakeEvidence, VoiceMap } from '../map/types';
import { votesOf } from '../map/votes';
import { passesBy } from '../map/zone';
import { DayValues } from './change';

/**
 * What is followed over time, with its unit, what is better (less, more, or neither), and what days and passes usually differ by
 * (assumed: nothing published is at hand; the voice's own days take over as they come). Where a day has one value it has no passes.
 */
export const MEASURED = [
  { id: 'low', name: 'Lowest note', unit: 'note', better: -1, usual: { day: 0.6, pass: 0 } },
  { id: 'high', name: 'Highest note', unit: 'note', better: 1, usual: { day: 0.6, pass: 0 } },
  { id: 'change-up', name: 'Change, going up', unit: 'note', better: 0, usual: { day: 0.5, pass: 0.5 } },
  { id: 'change-down', name: 'Change, coming down', unit: 'note', better: 0, usual: { day: 0.5, pass: 0.5 } },
  { id: 'heard', name: 'Passes where the change is heard', unit: '%', better: -1, usual: { day: 10, pass: 40 } },
  { id: 'leap', name: 'Leap at the change', unit: 'st', better: -1, usual: { day: 0.35, pass: 0.5 } },
  { id: 'dip', name: 'Dip at the change', unit: 'dB', better: -1, usual: { day: 1, pass: 1.5 } },
  { id: 'ceiling', name: 'Loudest that stays joined at the change', unit: 'dB', better: 1, usual: { day: 1.5, pass: 0 } },
  { id: 'width', name: 'Width of the blend', unit: 'st', better: 1, usual: { day: 1, pass: 1.5 } },
  { id: 'stray', name: 'Unevenness', unit: 'dB', better: -1, usual: { day: 0.6, pass: 0 } },
  { id: 'off', name: 'Off the note', unit: 'cents', better: -1, usual: { day: 4, pass: 12 } },
] as const;
export type MeasureId = (typeof MEASURED)[number]['id'];

/** One day's values, and the passes (or takes) each is the mean of; what wasn't sung isn't there. */
export interface DayMeasures {
  day: string;
  values: Partial<Record<MeasureId, number>>;
  passes: Partial<Record<MeasureId, number[]>>;
}

/** The days on which a value was measured, as `realChange` takes them. */
export const daysWith = (measured: readonly DayMeasures[], id: MeasureId): DayValues[] =>
  measured.flatMap((d) => (d.passes[id] ? [{ at: Date.parse(d.day), passes: d.passes[id] }] : []));

/** The change a voice is followed by: the one its map is surest of; null where none is known. */
export const mainChange = ({ passaggi }: Pick<VoiceMap, 'passaggi'>): Passaggio | null =>
  [...passaggi].sort((a, b) => b.confidence - a.confidence)[0] ?? null;

/** A change counts as the voice's main one within this many semitones of where the map has it. */
const NEAR_ST = 6;

/**
 * What a voice measured on each day on which something could be, from that day's takes alone; `changeMidi` is the main change of the map (null:
 * none known), so that the same change is followed. Takes in any order; days oldest first.
 */
export function measuresByDay(takes: readonly (TakeEvidence & { day: string })[], changeMidi: number | null): DayMeasures[] {
  const days = new Map<string, TakeEvidence[]>();
  for (const t of takes) if (t.findings.quality.usable) days.set(t.day, [...(days.get(t.day) ?? []), t]);
  return [...days.entries()]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([day, of]) => dayMeasures(day, of, changeMidi))
    .filter(({ values }) => Object.keys(values).length > 0);
}

/** What a voice measured by day about the change it is followed by (null: none known), and one siren of each day by its take, to be heard. */
export interface SungDays {
  changeMidi: number | null;
  measured: DayMeasures[];
  sirens: Record<string, string>;
}

/** What the takes of a voice say by day, in any order; of a day's sirens the one given last stands for it. */
export const sungDays = (takes: readonly (TakeEvidence & { day: string })[], changeMidi: number | null): SungDays => ({
  changeMidi,
  measured: measuresByDay(takes, changeMidi),
  sirens: Object.fromEntries(takes.filter((t) => t.findings.task === 'siren' && t.findings.quality.usable).map((t) => [t.day, t.takeId])),
});

const within = (timeS: number, leg: { startS: number; endS: number }) => timeS >= leg.startS && timeS <= leg.endS;

/** A cross-over less sure than this tells no width. */
const LEAST_CONFIDENCE = 0.3;

/** From slides alone, but for how far off the notes of scales lie: like is compared with like. */
function dayMeasures(day: string, takes: TakeEvidence[], changeMidi: number | null): DayMeasures {
  const slides = takes.filter((t) => t.findings.task === 'siren');
  const ranges = slides.flatMap((t) => (t.findings.range ? [t.findings.range] : []));
  const near = (midi: number) => changeMidi !== null && Math.abs(midi - changeMidi) <= NEAR_ST;
  const votes = slides.flatMap((t) => votesOf(t)).filter((v) => near(v.midi));
  // Every pass by the change with what was heard in it; nothing heard is a leap and a dip of nothing.
  const crossed = slides.flatMap(({ findings: { legs, events } }) =>
    legs
      .filter((l) => changeMidi !== null && passesBy(l, changeMidi))
      .map((leg) => ({ leg, heard: events.filter((e) => near(e.midi) && within(e.timeS, leg)) })),
  );
  const offs = takes.flatMap((t) =>
    (t.findings.pattern?.keys ?? []).flatMap((k) => k.notes.flatMap((n) => (n.cents === null ? [] : [Math.abs(n.cents)]))),
  );
  const stray = evennessOf(pooledNotes(slides))?.strayDb;
  const ceiling = changeMidi === null ? null : lowestCeiling(ceilingOf(slides), changeMidi - NEAR_ST, changeMidi + NEAR_ST);
  const passes: Record<MeasureId, number[]> = {
    // Ends are reached once in a day, or not: they aren't means of anything.
    low: ranges.length ? [Math.min(...ranges.map((r) => r.lowestMidi))] : [],
    high: ranges.length ? [Math.max(...ranges.map((r) => r.highestMidi))] : [],
    'change-up': votes.filter((v) => v.direction === 'up').map((v) => v.midi),
    'change-down': votes.filter((v) => v.direction === 'down').map((v) => v.midi),
    heard: crossed.map(({ heard }) => (heard.length > 0 ? 100 : 0)),
    leap: crossed.map(({ heard }) =>
      Math.max(0, ...heard.filter((e) => e.kind === 'flip' || e.kind === 'crack').map((e) => Math.abs(e.toMidi - e.fromMidi))),
    ),
    dip: crossed.map(({ heard }) => Math.max(0, ...heard.map((e) => e.dipDb))),
    width: crossed.flatMap(({ leg }) =>
      leg.crossOvers.filter((c) => near(c.midi) && c.confidence >= LEAST_CONFIDENCE).map((c) => c.widthSt),
    ),
    ceiling: ceiling ? [ceiling.db] : [],
    stray: stray === undefined ? [] : [stray],
    off: offs,
  };
  const sung = (Object.keys(passes) as MeasureId[]).filter((id) => passes[id].length > 0);
  return {
    day,
    values: Object.fromEntries(sung.map((id) => [id, passes[id].reduce((s, v) => s + v, 0) / passes[id].length])),
    passes: Object.fromEntries(sung.map((id) => [id, passes[id]])),
  };
}
