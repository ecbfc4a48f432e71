'use client';
import type { Said } from '../../core/words/said';
import { useCallback, useRef, useState } from 'react';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { songTask } from '../../core/sim/song';
import { DEMO_SONGS } from '../../core/song/demo-songs';
import { sungIn } from '../../core/song/sung-in';
import type { Song } from '../../core/song/types';
import type { TimbreAxis } from '../../core/take/timbre';
import { Choice } from '../kit/Choice';
import { Notice } from '../kit/Notice';
import { SingIt } from './SingIt';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import { saidOf } from '../../core/words/said-error';

const METERS = { '4/4': [4, 4], '3/4': [3, 4], '2/4': [2, 4], '6/8': [6, 8] } as const;
type Meter = keyof typeof METERS;
/** Taps further apart begin anew, ms. */
const FORGOTTEN_MS = 2500;
const SLOWEST = 30;
const FASTEST = 240;

/** A song that is sung in: taken by ear from a take without accompaniment, barred by a tempo, to be corrected then. */
export function SungIn({
  singer,
  onSung,
}: {
  singer: { id: string; name: string; voiceType: VoiceTypeId; axis: TimbreAxis | null };
  onSung: (song: Song) => void;
}) {
  const { t } = useLanguage();
  const [tempo, setTempo] = useState(90);
  const [meter, setMeter] = useState<Meter>('4/4');
  const [upbeat, setUpbeat] = useState(0);
  const [problem, setProblem] = useState<Said | null>(null);
  const taps = useRef<number[]>([]);
  const tap = () => {
    const now = performance.now();
    const before = taps.current.filter((t) => now - t < FORGOTTEN_MS * taps.current.length + FORGOTTEN_MS);
    if (before.length && now - before[before.length - 1] > FORGOTTEN_MS) before.length = 0;
    taps.current = [...before, now].slice(-9);
    if (taps.current.length < 3) return;
    const each = (now - taps.current[0]) / (taps.current.length - 1);
    setTempo(Math.min(FASTEST, Math.max(SLOWEST, Math.round(60_000 / each))));
  };
  const simulated = useCallback(() => songTask(DEMO_SONGS[2], -12), []);
  const taken = async (takeId: string) => {
    setProblem(null);
    try {
      const { analysis } = await ask('GET /api/takes/[takeId]', { params: { takeId } });
      const findings = analysis?.findings;
      const song =
        findings?.quality.usable &&
        sungIn(findings.notes, { tempo, meter: [...METERS[meter]], upbeat, title: t('Sung in by {name}', { name: { own: singer.name } }) });
      if (song) onSung(song);
      else
        setProblem(
          findings?.quality.reasons[0] ?? t('No notes were heard: sing again, nearer to the microphone and without accompaniment.'),
        );
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  return (
    <div className="flex max-w-2xl flex-col gap-3">
      <div className="card flex flex-wrap items-end gap-3">
        <button type="button" className="button" onClick={tap} title={t('Press it in the song’s beat, four times or more')}>
          {t('Tap the beat')}
        </button>
        <label className="flex flex-col gap-1">
          <span className="text-sm text-soft">{t('Tempo, crotchets a minute')}</span>
          <input
            className="field w-28"
            type="number"
            min={SLOWEST}
            max={FASTEST}
            value={tempo}
            onChange={(e) => setTempo(Math.min(FASTEST, Math.max(1, Number(e.target.value) || 1)))}
          />
        </label>
        <Choice
          label={t('Meter')}
          value={meter}
          options={(Object.keys(METERS) as Meter[]).map((m) => [m, m] as const)}
          onChange={setMeter}
        />
        <label className="flex flex-col gap-1">
          <span className="text-sm text-soft">{t('Upbeat, crotchets')}</span>
          <input
            className="field w-24"
            type="number"
            min={0}
            max={8}
            step={0.5}
            value={upbeat}
            onChange={(e) => setUpbeat(Math.min(8, Math.max(0, Number(e.target.value) || 0)))}
          />
        </label>
      </div>
      <SingIt
        singer={singer}
        sung={null}
        simulated={simulated}
        heading={t('Sing it in')}
        hint={t('The melody alone, in that tempo, on “la” or with its words. What was heard is written down, and you correct it.')}
        onTaken={(id) => void taken(id)}
      />
      {problem && <Notice>{t(problem)}</Notice>}
    </div>
  );
}
