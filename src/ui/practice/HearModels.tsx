'use client';
import { Play, Square } from 'lucide-react';
import { useRef, useState } from 'react';
import { clipOf, useClip } from '../../audio/clip';
import { singAside } from '../../audio/simulated';
import { Manner, MANNERS, Model } from '../../core/exercise/model';
import type { SimulatedModel } from '../../core/sim/model';
import { MANNER_WORDS } from '../models/words';
import { useLanguage } from '../language/language';

/** How an exercise should and should not sound: the coach's own voice, else the simulated singer in this voice's place. */
export function HearModels({
  token,
  models,
  simulated,
}: {
  token: string;
  models: Partial<Record<Manner, Model>>;
  simulated: Record<Manner, SimulatedModel | null>;
}) {
  const { t } = useLanguage();
  const { playing, problem, play, stop } = useClip();
  const made = useRef(new Map<Manner, Blob>());
  const [making, setMaking] = useState(false);
  const offered = MANNERS.filter((m) => models[m] ?? simulated[m]);
  if (offered.length === 0) return null;

  const hear = async (manner: Manner) => {
    if (playing === manner) return stop();
    const own = models[manner];
    if (own) return play(manner, modelPath(token, own.id));
    setMaking(true);
    try {
      const sound = made.current.get(manner) ?? clipOf(await singAside(simulated[manner]!));
      made.current.set(manner, sound);
      await play(manner, sound);
    } finally {
      setMaking(false);
    }
  };
  return (
    <div>
      <div className="flex gap-2">
        {offered.map((manner) => (
          <button
            key={manner}
            aria-pressed={playing === manner}
            className="button min-h-12 flex-1"
            disabled={making}
            onClick={() => void hear(manner)}
          >
            {playing === manner ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />} {t(MANNER_WORDS[manner])}
          </button>
        ))}
      </div>
      <p className="mt-1 text-sm text-soft">
        {offered.every((m) => models[m])
          ? t('Your coach’s voice.')
          : offered.some((m) => models[m])
            ? t('Your coach’s voice, and a made one.')
            : t('A made voice of your kind, with your change.')}
      </p>
      {problem && <p role="alert">{t(problem)}</p>}
    </div>
  );
}

/** Where a model's sound lies on a singer's page; kept for offline with the rest of it. */
export const modelPath = (token: string, modelId: string) => `/p/${token}/models/${modelId}`;
