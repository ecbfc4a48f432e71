import { changesOf } from '../take/changes';
import type { TakeFindings } from '../take/types';
import { said, Said } from '../words/said';

/** What was found in a take, in a few words each: range, where it changes, what was wrong with the sound. Or why nothing was. */
export function foundInWords({ findings, error }: { findings: TakeFindings | null; error: string | null }): Said[] {
  if (!findings) return [error ?? said('could not be listened to')];
  const { quality, range, speakingMidi } = findings;
  if (!quality.usable) return [said('{all}', { all: { all: quality.reasons, as: 'semicolon' } })];
  if (speakingMidi !== null) return [said('speaks around {note}', { note: { note: speakingMidi } })];
  const at = [...new Set(changesOf(findings).map((c) => Math.round(c.midi)))];
  return [
    ...(range ? [said('{low} to {high}', { low: { note: range.lowestMidi }, high: { note: range.highestMidi } })] : []),
    ...(at.length
      ? [said('changes at {notes}', { notes: { all: at.map((midi) => said('{note}', { note: { note: midi } })), as: 'comma' } })]
      : []),
    ...quality.reasons,
  ];
}
