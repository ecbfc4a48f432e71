import type { SongKey } from './keys';
import type { Song } from './types';
import type { SongVoice } from './voice';

/** A song in the key it is sung in. */
export interface SetSong {
  id: string;
  song: Song;
  key: SongKey;
}

export interface SetPlace {
  id: string;
  /** Seconds sung. */
  seconds: number;
  /** Seconds weighed by how high and how risky: what it costs the voice. */
  load: number;
  heavy: boolean;
  /** Minutes in which this voice is silent after it. */
  restMinutes: number;
  /** Load of the evening up to and with it, share of the whole. */
  soFar: number;
}

/** A second in the upper third of a voice costs so much more, and one in a phrase that is sure to go wrong (common practice: height and trouble tire, no source for the figures). */
const HIGH_COSTS = 1;
const RISK_COSTS = 1;
const UPPER = 2 / 3;
/** Heavier than this against the mean of the set a song is heavy. */
const HEAVY = 1.15;
/** Rest as long as the song, and twice as long after a heavy one (common practice: rest as long as work). */
const REST = { usual: 1, heavy: 2 };

const loadOf = ({ key }: SetSong, voice: SongVoice): number => {
  const upper = voice.low + UPPER * (voice.high - voice.low);
  const high = key.tessitura.histogram.filter((h) => h.midi > upper).reduce((sum, h) => sum + h.seconds, 0);
  return key.tessitura.seconds * (1 + RISK_COSTS * key.risk) + HIGH_COSTS * high;
};

/**
 * An order for a show: the lightest first, to sing into the voice; then the heavier ones with a lighter one between, the heaviest as
 * the last but one; a light one at the end (common practice, no source). With what each costs, and how long to rest after it.
 */
export function setlistFor(songs: readonly SetSong[], voice: SongVoice): SetPlace[] {
  if (songs.length === 0) return [];
  const weighed = songs.map((s) => ({ s, load: loadOf(s, voice) })).sort((a, b) => a.load - b.load || a.s.id.localeCompare(b.s.id));
  const last = weighed.length > 2 ? [weighed[1]] : [];
  const between = weighed.slice(1 + last.length);
  // The heavier half from light to heavy, one of the lighter half before or between.
  const lighter = between.slice(0, Math.floor(between.length / 2));
  const heavier = between.slice(lighter.length);
  const order = [weighed[0], ...between.map((_, i) => ((between.length - 1 - i) % 2 === 0 ? heavier : lighter).shift()!), ...last];
  const mean = weighed.reduce((sum, w) => sum + w.load, 0) / weighed.length;
  const whole = mean * weighed.length;
  let sum = 0;
  return order.map(({ s, load }, i): SetPlace => {
    sum += load;
    const heavy = weighed.length > 1 && load > HEAVY * mean;
    const seconds = s.key.tessitura.seconds;
    const rest = i === order.length - 1 ? 0 : seconds * (heavy ? REST.heavy : REST.usual);
    return { id: s.id, seconds, load, heavy, restMinutes: Math.ceil(rest / 30) / 2, soFar: sum / whole };
  });
}
