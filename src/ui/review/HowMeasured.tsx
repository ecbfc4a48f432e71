'use client';
import { inCents } from '../../core/words/said';
import { useEffect, useState } from 'react';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { readWav } from '../../core/format/wav';
import { hzToMidi } from '../../core/music/pitch';
import type { Change } from '../../core/take/changes';
import { trackVoice } from '../../core/voice/track';
import { HARMONICS, HOP_S, NO_HARMONIC_DB } from '../../core/voice/types';
import { addressOf } from '../../sync/ask';
import { useLanguage } from '../language/language';

/** Looked at on each side of a change, seconds from it. */
const NEAR_S = 0.06;
const FAR_S = 0.26;
const SHOWN = 10;

interface Side {
  midi: number;
  levelDb: number;
  harmonics: (number | null)[];
}

/** Averages over the voiced frames from `fromS` to `toS`. */
function sideOf(track: ReturnType<typeof trackVoice>, fromS: number, toS: number): Side | null {
  let n = 0;
  let midi = 0;
  let level = 0;
  const sums = Array.from({ length: SHOWN }, () => ({ db: 0, n: 0 }));
  for (let i = Math.max(0, Math.round(fromS / HOP_S)); i < Math.min(track.frames, Math.round(toS / HOP_S)); i++) {
    if (!(track.f0[i] > 0)) continue;
    n++;
    midi += hzToMidi(track.f0[i]);
    level += track.levelDb[i];
    for (let k = 0; k < SHOWN; k++) {
      const db = track.harmonicsDb[i * HARMONICS + k];
      if (db > NO_HARMONIC_DB) {
        sums[k].db += db;
        sums[k].n++;
      }
    }
  }
  return n ? { midi: midi / n, levelDb: level / n, harmonics: sums.map((s) => (s.n ? s.db / s.n : null)) } : null;
}

/** What the machine measured on both sides of a change: pitch, level and the strength of each harmonic, from the sound itself. */
export function HowMeasured({ takeId, change }: { takeId: string; change: Change }) {
  const { t } = useLanguage();
  const [sides, setSides] = useState<{ before: Side; after: Side } | null | 'none'>(null);
  useEffect(() => {
    let current = true;
    void (async () => {
      const response = await fetch(addressOf('GET /api/takes/[takeId]/audio', { takeId }));
      const pcm = readWav(new Uint8Array(await response.arrayBuffer()));
      const from = Math.max(0, change.timeS - 1);
      const part = { ...pcm, samples: pcm.samples.slice(from * pcm.sampleRate, (change.timeS + 1) * pcm.sampleRate) };
      const at = change.timeS - from;
      const track = trackVoice(part);
      const before = sideOf(track, at - FAR_S, at - NEAR_S);
      const after = sideOf(track, at + NEAR_S, at + FAR_S);
      if (current) setSides(before && after ? { before, after } : 'none');
    })().catch(() => current && setSides('none'));
    return () => {
      current = false;
    };
  }, [takeId, change]);
  if (sides === null) return <p className="text-soft">{t('Measuring …')}</p>;
  if (sides === 'none') return <p className="text-soft">{t('There is too little voice around this moment to show.')}</p>;
  const { before, after } = sides;
  const data = before.harmonics.map((db, k) => ({
    harmonic: k + 1,
    before: db === null ? null : Math.round(10 * (db - before.levelDb)) / 10,
    after: after.harmonics[k] === null ? null : Math.round(10 * (after.harmonics[k]! - after.levelDb)) / 10,
  }));
  return (
    <div className="flex flex-col gap-1 text-sm" data-testid="measured">
      <p>
        {t('Before: {before}, {beforeDb} dB. After: {after}, {afterDb} dB. Each is the mean of a fifth of a second.', {
          before: inCents(before.midi),
          beforeDb: before.levelDb.toFixed(0),
          after: inCents(after.midi),
          afterDb: after.levelDb.toFixed(0),
        })}
      </p>
      <div aria-hidden="true" className="h-44">
        <ResponsiveContainer>
          <BarChart accessibilityLayer={false} data={data} margin={{ left: -24, right: 4, top: 4, bottom: 0 }}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis dataKey="harmonic" stroke="var(--soft)" fontSize={11} />
            <YAxis stroke="var(--soft)" fontSize={11} />
            <Legend wrapperStyle={{ fontSize: 12 }} />
            <Bar dataKey="before" name="before, dB" fill="var(--accent)" isAnimationActive={false} />
            <Bar dataKey="after" name="after, dB" fill="var(--band)" isAnimationActive={false} />
          </BarChart>
        </ResponsiveContainer>
      </div>
      <p className="text-soft">
        {t('Harmonics against the whole level. In head the first stands higher and the upper ones fall faster; confidence {what} %.', {
          what: Math.round(100 * change.confidence),
        })}
      </p>
      <table className="sr-only">
        <caption>{t('Strength of each harmonic against the whole level, decibels')}</caption>
        <tbody>
          {data.map((d) => (
            <tr key={d.harmonic}>
              <th scope="row">{t('Harmonic {harmonic}', { harmonic: d.harmonic })}</th>
              <td>{t('before {level}', { level: d.before ?? 'not heard' })}</td>
              <td>{t('after {level}', { level: d.after ?? 'not heard' })}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
