'use client';
import { Mic, Play, Square, Trash2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useClip } from '../../audio/clip';
import { Manner, MANNERS, Model, modelsOf } from '../../core/exercise/model';
import { SHORT_S } from '../../core/format/short-sound';
import { useMayChange } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import { useShortRecording } from '../listen/useShortRecording';
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
  const mine = modelsOf(models, exercise.id, singer?.id ?? null);

  const keep = async (wav: Uint8Array<ArrayBuffer>, manner: Manner) => {
    const query = new URLSearchParams({ exerciseId: exercise.id, manner, ...(singer ? { singerId: singer.id } : {}) });
    try {
      await fetchAnswer(`${addressOf('PUT /api/models/[modelId]', { modelId: crypto.randomUUID() })}?${query}`, {
        method: 'PUT',
        body: wav,
      });
      router.refresh();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  const recording = useShortRecording(({ wav }) => void keep(wav, making!));
  const under = recording.state !== 'idle';
  const begin = async (manner: Manner) => {
    clip.stop();
    setProblem(null);
    setMaking(manner);
    await recording.begin();
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

  const wrong = problem ?? recording.problem ?? clip.problem;
  if (!mayChange && !Object.keys(mine).length) return null;
  return (
    <section aria-label={t('How {name} should and should not sound', { name: exercise.name })} className="flex flex-col gap-1 text-sm">
      <p className="text-soft">
        {t('Your own voice, up to {seconds} seconds, for {whom}: heard on the phone before it is sung.', {
          seconds: SHORT_S,
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
              (making === manner && under ? (
                <>
                  <button
                    className="button-main min-h-11 px-3"
                    disabled={recording.state !== 'recording'}
                    onClick={() => void recording.finish()}
                  >
                    <Square aria-hidden size={16} /> {t('That is it')}
                  </button>
                  <span className="tabular-nums text-soft">{t('{heard} of {of} s', { heard: recording.heardS, of: SHORT_S })}</span>
                </>
              ) : (
                <button
                  className="button-small min-h-11 px-3"
                  aria-label={t('Record “{manner}”', { manner: words })}
                  disabled={under}
                  onClick={() => void begin(manner)}
                >
                  <Mic aria-hidden size={16} /> {own ? t('Anew') : t('Record')}
                </button>
              ))}
            {mayChange && model && own && !(making === manner && under) && (
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
      {wrong && <Notice>{t(wrong)}</Notice>}
    </section>
  );
}
