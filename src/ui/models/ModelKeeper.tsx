'use client';
import { Mic, Play, Square, Trash2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { useClip } from '../../audio/clip';
import { Live, openMicrophone } from '../../audio/input';
import { Manner, MANNERS, Model, MODEL_RATE, MODEL_S, modelsOf } from '../../core/exercise/model';
import { readWav, writeWav } from '../../core/format/wav';
import { resample } from '../../core/signal/resample';
import { HOP_S } from '../../core/voice/types';
import type { LiveStore } from '../take/LiveTrace';
import { useMayChange } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import { chosenMicrophone } from '../listen/sources';
import { useRecorder } from '../listen/useRecorder';
import { MANNER_WORDS } from './words';
import { addressOf, ask, fetchAnswer } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** The coach's own voice on an exercise or a phrase, as it should and should not sound: recorded, heard, taken away. For one singer, or for all. */
export function ModelKeeper({
  exercise,
  singer,
  models,
}: {
  exercise: { id: string; name: string };
  singer: { id: string; name: string } | null;
  models: readonly Model[];
}) {
  const { t } = useLanguage();
  const router = useRouter();
  const [making, setMaking] = useState<Manner | null>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  const clip = useClip();
  const mayChange = useMayChange();
  /** Whole seconds that have been heard: they stand still when the microphone gives nothing. */
  const [heardS, setHeardS] = useState(0);
  const countSeconds = (_: Live, track: LiveStore) => setHeardS(Math.floor(track.midi.length * HOP_S));
  const recorder = useRecorder(null, countSeconds, async () => setProblem(t('The microphone went away: nothing was kept of it.')));
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const mine = modelsOf(models, exercise.id, singer?.id ?? null);

  const finish = async (manner: Manner) => {
    clearTimeout(timer.current);
    const finished = await recorder.stop();
    recorder.close();
    setMaking(null);
    if (!finished) return;
    if (finished.recording.durationS === 0)
      return setProblem(t('No sound came from the microphone: see that it is on and not muted, then record again.'));
    try {
      const { samples, sampleRate } = readWav(new Uint8Array(finished.recording.wav));
      const wav = writeWav({ samples: resample(samples, sampleRate, MODEL_RATE), sampleRate: MODEL_RATE }, 16);
      const query = new URLSearchParams({ exerciseId: exercise.id, manner, ...(singer ? { singerId: singer.id } : {}) });
      await fetchAnswer(`${addressOf('PUT /api/models/[modelId]', { modelId: crypto.randomUUID() })}?${query}`, {
        method: 'PUT',
        body: wav,
      });
      router.refresh();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  const begin = async (manner: Manner) => {
    clip.stop();
    setProblem(null);
    setHeardS(0);
    setMaking(manner);
    try {
      await recorder.start(
        {
          id: crypto.randomUUID(),
          singerId: singer?.id ?? '',
          singerName: singer?.name ?? '',
          task: 'free',
          vowel: '',
          colour: null,
          source: 'microphone',
          recordedAt: new Date().toISOString(),
          lessonId: null,
          step: 'model',
          asked: null,
          hereOnly: true,
        },
        (events) => openMicrophone(chosenMicrophone(), events),
      );
      timer.current = setTimeout(() => void finish(manner), MODEL_S * 1000);
    } catch (error) {
      setMaking(null);
      setProblem(saidOf(error));
    }
  };
  const remove = async (model: Model) => {
    setProblem(null);
    try {
      await ask('DELETE /api/models/[modelId]', { params: { modelId: model.id } });
      router.refresh();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };

  if (!mayChange && !Object.keys(mine).length) return null;
  return (
    <section aria-label={t('How {name} should and should not sound', { name: exercise.name })} className="flex flex-col gap-1 text-sm">
      <p className="text-soft">
        {t('Your own voice, up to {seconds} seconds, for {whom}: heard on the phone before it is sung.', {
          seconds: MODEL_S,
          whom: singer ? { own: singer.name } : 'all singers',
        })}
      </p>
      {MANNERS.map((manner) => {
        const model = mine[manner];
        const own = model && model.singerId === (singer?.id ?? null);
        const words = MANNER_WORDS[manner];
        return (
          <div key={manner} className="flex flex-wrap items-center gap-1" data-testid={`model-${manner}`}>
            <span className="w-28 font-semibold">{t(words)}</span>
            {model && (
              <button
                className="button-small min-h-11 min-w-11"
                aria-label={clip.playing === model.id ? t('Stop') : t('Play “{manner}”', { manner: words })}
                onClick={() =>
                  clip.playing === model.id
                    ? clip.stop()
                    : void clip.play(model.id, addressOf('GET /api/models/[modelId]', { modelId: model.id }))
                }
              >
                {clip.playing === model.id ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}
              </button>
            )}
            {mayChange &&
              (making === manner ? (
                <>
                  <button
                    className="button-main min-h-11 px-3"
                    disabled={recorder.state !== 'recording'}
                    onClick={() => void finish(manner)}
                  >
                    <Square aria-hidden size={16} /> {t('That is it')}
                  </button>
                  <span className="tabular-nums text-soft">{t('{heard} of {of} s', { heard: heardS, of: MODEL_S })}</span>
                </>
              ) : (
                <button
                  className="button-small min-h-11 px-3"
                  aria-label={t('Record “{manner}”', { manner: words })}
                  disabled={making !== null || recorder.state !== 'idle'}
                  onClick={() => void begin(manner)}
                >
                  <Mic aria-hidden size={16} /> {own ? t('Anew') : t('Record')}
                </button>
              ))}
            {mayChange && model && own && making !== manner && (
              <button
                className="button-small min-h-11 min-w-11"
                aria-label={t('Take “{manner}” away', { manner: words })}
                onClick={() => void remove(model)}
              >
                <Trash2 aria-hidden size={16} />
              </button>
            )}
            {model && singer && !own && <span className="text-soft">{t('made for all')}</span>}
          </div>
        );
      })}
      {(problem ?? clip.problem) && <Notice>{t((problem ?? clip.problem)!)}</Notice>}
    </section>
  );
}
