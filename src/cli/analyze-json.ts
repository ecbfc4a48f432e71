import { VoiceMap } from '../core/map/types';
import { zoneOf } from '../core/map/zone';
import { placeIn } from '../core/take/pattern';
import { Asked, TakeFindings, Task } from '../core/take/types';
import { HOP_S, VoiceTrack } from '../core/voice/types';

export interface Options {
  files: string[];
  task: Task;
  json: boolean;
  frames: boolean;
  f0Csv: boolean;
  asked: Asked | null;
}

export interface TakeOutcome {
  file: string;
  error?: string;
  findings?: TakeFindings;
  track?: VoiceTrack;
}

export const round = (x: number, places = 3) => Math.round(x * 10 ** places) / 10 ** places;

export function takeJson({ file, error, findings: f, track }: TakeOutcome, { task, frames, asked }: Options) {
  if (error || !f || !track) return { file, task, error };
  return {
    file,
    task,
    durationS: round(f.durationS),
    sampleRate: f.sampleRate,
    quality: f.quality,
    ...(frames ? { f0: { hopS: HOP_S, startS: 0, hz: Array.from(track.f0, (hz) => round(hz, 2)) } } : {}),
    notes: f.notes.map((n) => ({ startS: round(n.startS), endS: round(n.endS), midi: n.midi, cents: n.cents })),
    // Beyond the documented form, and only where a pattern was asked for.
    ...(asked
      ? {
          pattern: f.pattern && {
            name: f.pattern.name,
            keys: f.pattern.keys.map(({ tonicMidi, notes }) => ({ tonicMidi, cents: notes.map((n) => n.cents) })),
          },
        }
      : {}),
    range: f.range && { lowestMidi: round(f.range.lowestMidi), highestMidi: round(f.range.highestMidi) },
    events: f.events.map((e) => ({
      timeS: round(e.timeS),
      midi: round(e.midi),
      direction: e.direction,
      kind: e.kind,
      confidence: round(e.confidence),
      // The key and degree of the note before the change.
      ...(asked && f.pattern && e.note !== undefined ? { in: placeIn(f.pattern, e.note - 1) } : {}),
    })),
  };
}

export function voiceJson(map: VoiceMap) {
  return {
    range: map.extreme && { lowestMidi: round(map.extreme.low.midi), highestMidi: round(map.extreme.high.midi) },
    passaggi: map.passaggi.map((p) => ({
      midi: round(p.midi),
      lowMidi: round(p.lowMidi),
      highMidi: round(p.highMidi),
      upMidi: p.upMidi === null ? null : round(p.upMidi),
      downMidi: p.downMidi === null ? null : round(p.downMidi),
      confidence: round(p.confidence),
      zone: zoneOf(p),
      impression: p.impression,
    })),
  };
}
