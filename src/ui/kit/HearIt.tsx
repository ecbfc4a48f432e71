'use client';
import { Play, Square } from 'lucide-react';
import type { useFollowAlong } from '../../audio/follow-along';
import type { KeyInTime } from '../../core/exercise/render';
import { useLanguage } from '../language/language';

/** Plays an exercise through its keys, and stops it. */
export function HearIt({
  along: { sounding, play, stop },
  id,
  keys,
  className,
}: {
  along: ReturnType<typeof useFollowAlong>;
  id: string;
  keys: () => KeyInTime[];
  className: string;
}) {
  const { t } = useLanguage();
  return (
    <button type="button" className={className} onClick={() => (sounding ? stop() : void play(id, keys()))}>
      {sounding ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />} {sounding ? t('Stop') : t('Hear it')}
    </button>
  );
}
