import type { Anchors } from '../exercise/keys';
import { nearestOctave } from '../music/pitch';
import { median, quantile } from '../signal/stats';
import type { NoteSpan, TakeFindings, Trace } from '../take/types';

/**
 * The one-minute check of how a voice is today: counting aloud, one soft high note (always the same one), one soft siren. It is
 * compared with this voice's own good days only (core/practice/readiness.ts).
 */
export const CHECK_PARTS = ['count', 'marker', 'siren'] as const;
export type CheckPart = (typeof CHECK_PARTS)[number];

/** What the soft note is sung on: on closed vowels the tract keeps back the noise of air (simulated: 8 dB of clearness on “ah”, 1 on “oo”). */
export const MARKER_SOUND = 'ah';
export const SIREN_SOUND = 'oo';

/** What is read from it, with its unit, which way is worse, and what good days usually differ by (assumed: nothing published is at hand). */
export const CHECKED = [
  { id: 'speaks', name: 'Speaking pitch', unit: 'note', worse: -1, usual: 0.8 },
  { id: 'late', name: 'Air before the soft note', unit: 's', worse: 1, usual: 0.03 },
  { id: 'airy', name: 'Clearness of the soft note', unit: 'dB', worse: -1, usual: 2.5 },
  { id: 'unsteady', name: 'Unrest of the soft note', unit: 'cents', worse: 1, usual: 4 },
  { id: 'loud', name: 'Loudness the soft note needs', unit: 'dB', worse: 1, usual: 3 },
  { id: 'breaks', name: 'Breaks in the siren', unit: '', worse: 1, usual: 1 },
  { id: 'top', name: 'Top of the siren', unit: 'note', worse: -1, usual: 1 },
] as const;
export type CheckedId = (typeof CHECKED)[number]['id'];
export type Checked = Partial<Record<CheckedId, number>>;

/** One part as it was heard. */
export interface PartHeard {
  findings: TakeFindings;
  trace: Trace;
}

/** The soft note lies so far over the change and under the top; in a voice that is spared its top, over where it speaks (common practice, no source). */
const MARKER_OVER_CHANGE_ST = 4;
const MARKER_UNDER_TOP_ST = 3;
const MARKER_OVER_SPEAKING_ST = 7;

/**
 * The note that is sung softly, the same every day as long as the map stays: a little over the change, well under the top.
 *
 * @param spared nothing is asked of the top: a small, young or changing voice
 */
export function markerNote({ low, high, change, speaking }: Anchors, spared: boolean): number {
  const wanted = spared ? speaking + MARKER_OVER_SPEAKING_ST : change + MARKER_OVER_CHANGE_ST;
  return Math.max(low, Math.min(wanted, high - MARKER_UNDER_TOP_ST));
}

/** Sung so near, in whatever octave it was heard. */
const ON_MARKER_ST = 1.5;
const LEAST_HELD_S = 0.4;
/** Looked at for air so long before a note. */
const AIR_BEFORE_S = 0.4;
/** What stands out of the room by so much is air, or voice. */
const OVER_ROOM_DB = 6;
/** Air is heard within so much of the note it comes before; what is softer is somebody moving. */
const MOST_UNDER_NOTE_DB = 30;
/** Where the room is louder than this under the voice it decides how clear a note sounds. */
const CLEAR_ROOM_DB = 20;
const LONGEST_HOLE_S = 1;
const SHORTEST_HOLE_S = 0.06;

const pitchOf = ({ midi, cents }: NoteSpan) => midi + cents / 100;
const offMarker = (midi: number, marker: number) => Math.abs(midi - nearestOctave(marker, midi));

/** The soft note in its part: the longest sung on the marker; null where it wasn't held. */
export function markerIn({ findings }: PartHeard, markerMidi: number) {
  const on = findings.notes.filter((n) => offMarker(pitchOf(n), markerMidi) <= ON_MARKER_ST && n.endS - n.startS >= LEAST_HELD_S);
  return on.reduce<(typeof on)[number] | null>((best, n) => (best && best.endS - best.startS >= n.endS - n.startS ? best : n), null);
}

/** Levels of the moments of a part that are (or are not) voice, dB. */
const levels = ({ midi, levelDb }: Trace, voiced: boolean): number[] => levelDb.filter((_, i) => midi[i] > 0 === voiced);

/** Seconds of air right before a note: louder than the room, and no voice yet. */
function airBefore(trace: Trace, startS: number): number {
  const quiet = levels(trace, false);
  const room = quiet.length ? quantile(quiet, 0.2) : -Infinity;
  const air = Math.max(room + OVER_ROOM_DB, median(levels(trace, true)) - MOST_UNDER_NOTE_DB);
  const start = Math.round(startS / trace.hopS);
  let i = start - 1;
  while (i >= 0 && start - i <= AIR_BEFORE_S / trace.hopS && !(trace.midi[i] > 0) && trace.levelDb[i] > air) i--;
  return (start - 1 - i) * trace.hopS;
}

/** Harmonics over noise, dB, from the share of a period's energy that repeats (Boersma 1993). */
const clearness = (share: number) => 10 * Math.log10(Math.min(0.9999, Math.max(0.0001, share)) / (1 - Math.min(0.9999, share)));

/** Holes of a voice between its first and last sound that are no breath between two sirens. */
function holesIn({ midi, hopS }: Trace): number {
  let holes = 0;
  let since = Infinity;
  for (const m of midi) {
    if (m > 0) {
      if (since * hopS >= SHORTEST_HOLE_S && since * hopS <= LONGEST_HOLE_S) holes++;
      since = 0;
    } else since++;
  }
  return holes;
}

/**
 * What the parts of a check say. What wasn't sung, or can't be told in this room, isn't there; `sounded` is false where the soft note
 * was tried and didn't come.
 */
export function checkedIn(parts: Partial<Record<CheckPart, PartHeard>>, markerMidi: number): { checked: Checked; sounded: boolean | null } {
  const checked: Checked = {};
  const { count, marker, siren } = parts;
  if (count?.findings.speakingMidi != null) checked.speaks = count.findings.speakingMidi;
  const note = marker && markerIn(marker, markerMidi);
  if (marker && note) {
    const profile = marker.findings.profile.filter((n) => Math.abs(n.midi - pitchOf(note)) <= 1);
    const seconds = profile.reduce((s, n) => s + n.seconds, 0);
    checked.late = airBefore(marker.trace, note.startS) + note.onsetS;
    checked.unsteady = note.unrestCents;
    if (seconds > 0 && marker.findings.quality.snrDb >= CLEAR_ROOM_DB)
      checked.airy = clearness(profile.reduce((s, n) => s + n.seconds * n.clarity, 0) / seconds);
    const spoken = count ? levels(count.trace, true) : [];
    if (spoken.length > 0) checked.loud = median(levels(marker.trace, true)) - median(spoken);
  }
  if (siren?.findings.range && siren.findings.legs.length > 0) {
    checked.top = siren.findings.range.highestMidi;
    checked.breaks = holesIn(siren.trace) + siren.findings.events.length;
  }
  return { checked, sounded: marker ? note !== null : null };
}
