'use client';
import { Play, Square } from 'lucide-react';
import { useClip } from '../../audio/clip';
import type { OwnKey } from '../../sync/own-voice';
import { useLanguage } from '../language/language';

/** What was sung last (a key, a phrase), as the room heard it, beside the same on an earlier day. */
export function HearYourself({
  now,
  before,
  sent,
  words,
}: {
  now: OwnKey;
  before: OwnKey | null;
  /** The recording goes to the coach, as was ticked. */
  sent: boolean;
  /** Absent: the last key. */
  words?: string;
}) {
  const { dateOf, t } = useLanguage();
  const { playing, problem, play, stop } = useClip();
  const button = (name: string, says: string, key: OwnKey) => (
    <button className="button min-h-12 flex-1" onClick={() => (playing === name ? stop() : void play(name, key.sound))}>
      {playing === name ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />} {says}
    </button>
  );
  return (
    <div data-testid="hear-yourself">
      <div className="flex gap-2">
        {button('now', words ?? t('Hear your last key'), now)}
        {before && button('before', t('As on {day}', { day: dateOf(before.day) }), before)}
      </div>
      <p className="mt-1 text-sm text-soft">
        {t('From outside a voice sounds other than from inside.')}{' '}
        {sent ? t('Your coach gets it too, as you ticked.') : t('This stays on your phone.')}
      </p>
      {problem && <p role="alert">{t(problem)}</p>}
    </div>
  );
}
