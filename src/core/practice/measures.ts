import { evennessOf, pooledNotes } from '../map/findings';
import { TakeEvidence } from '../map/types';
import { votesOf } from '../map/votes';
import { median } from '../signal/stats';

/** What is followed over time, with its unit and what is better: less, more, or neither. */
export const MEASURED = [
  { id: 'low', name: 'Lowest note', unit: 'note', better: -1 },
  { id: 'high', name: 'Highest note', unit: 'note', better: 1 },
  { id: 'change-up', name: 'Change, going up', unit: 'note', better: 0 },
  { id: 'change-down', name: 'Change, coming down', unit: 'note', better: 0 },
  { id: 'heard', name: 'Passes where the change is heard', unit: '%', better: -1 },
  { id: 'leap', name: 'Leap at the change', unit: 'st', better: -1 },
  { id: 'dip', name: 'Dip at the change', unit: 'dB', better: -1 },
  { id: 'width', name: 'Width of the blend', unit: 'st', better: 1 },
  { id: 'stray', name: 'Unevenness', unit: 'dB', better: -1 },
  { id: 'off', name: 'Off the note', unit: 'cents', better: -1 },
] as const;
export type MeasureId = (typeof MEASURED)[number]['id'];

/** One day's values; what wasn't sung isn't there. */
export interface DayMeasures {
  day: string;
  values: Partial<Record<MeasureId, number>>;
}

/** A change counts as the voice's main one within this many semitones of where the map has it. */
const NEAR_ST = 6;

const middle = (values: number[]): number | undefined => (values.length ? median(values) : undefined);

/**
 * What a voice measured on each day it was heard, from that day's takes alone; `changeMidi` is the main change of the map (null:
 * none known), so that the same change is followed. Takes in any order; days oldest first.
 */
export function measuresByDay(takes: readonly (TakeEvidence & { day: string })[], changeMidi: number | null): DayMeasures[] {
  const days = new Map<string, TakeEvidence[]>();
  for (const t of takes) if (t.findings.quality.usable) days.set(t.day, [...(days.get(t.day) ?? []), t]);
  return [...days.entries()].sort(([a], [b]) => a.localeCompare(b)).map(([day, of]) => ({ day, values: measuresOf(of, changeMidi) }));
}

/** Of the legs that pass the change, the share in which it is heard (a leap, a dip or a colour that turns at once), per cent. */
function heardShare(wide: TakeEvidence[], near: (midi: number) => boolean): number | undefined {
  const passes = wide.flatMap(({ findings: { legs, events } }) =>
    legs
      .filter((leg) => leg.crossOvers.some((c) => near(c.midi)) || events.some((e) => near(e.midi) && within(e.timeS, leg)))
      .map((leg) => events.some((e) => near(e.midi) && within(e.timeS, leg))),
  );
  return passes.length ? (100 * passes.filter(Boolean).length) / passes.length : undefined;
}

const within = (timeS: number, leg: { startS: number; endS: number }) => timeS >= leg.startS && timeS <= leg.endS;

function measuresOf(takes: TakeEvidence[], changeMidi: number | null): DayMeasures['values'] {
  const wide = takes.filter((t) => t.findings.task === 'siren' || t.findings.task === 'scale');
  const ranges = wide.flatMap((t) => (t.findings.range ? [t.findings.range] : []));
  const near = (midi: number) => changeMidi !== null && Math.abs(midi - changeMidi) <= NEAR_ST;
  const votes = wide.flatMap((t) => votesOf(t)).filter((v) => near(v.midi));
  const events = wide.flatMap((t) => t.findings.events).filter((e) => near(e.midi));
  const leaps = events.filter((e) => e.kind === 'flip' || e.kind === 'crack');
  const offs = takes.flatMap((t) =>
    (t.findings.pattern?.keys ?? []).flatMap((k) => k.notes.flatMap((n) => (n.cents === null ? [] : [Math.abs(n.cents)]))),
  );
  const crossings = wide.flatMap((t) => t.findings.legs.flatMap((l) => l.crossOvers)).filter((c) => near(c.midi) && c.confidence >= 0.3);
  const passes = votes.length > 0 || events.length > 0 || crossings.length > 0;
  const values: Partial<Record<MeasureId, number | undefined>> = {
    low: ranges.length ? Math.min(...ranges.map((r) => r.lowestMidi)) : undefined,
    high: ranges.length ? Math.max(...ranges.map((r) => r.highestMidi)) : undefined,
    'change-up': middle(votes.filter((v) => v.direction === 'up').map((v) => v.midi)),
    'change-down': middle(votes.filter((v) => v.direction === 'down').map((v) => v.midi)),
    heard: heardShare(wide, near),
    // No leap where the voice was heard to pass is a leap of nothing.
    leap: leaps.length ? middle(leaps.map((e) => Math.abs(e.toMidi - e.fromMidi))) : passes ? 0 : undefined,
    dip: events.length ? middle(events.map((e) => e.dipDb)) : passes ? 0 : undefined,
    width: middle(crossings.map((c) => c.widthSt)),
    stray: evennessOf(pooledNotes(wide))?.strayDb,
    off: offs.length ? middle(offs) : undefined,
  };
  return Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined));
}
