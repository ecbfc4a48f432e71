'use client';
import { Play, Square } from 'lucide-react';
import { useClip } from '../../audio/clip';
import type { OwnKey } from '../../sync/own-voice';

/** What was sung last (a key, a phrase), as the room heard it, beside the same on an earlier day. */
export function HearYourself({
  now,
  before,
  sent,
  words = 'Hear your last key',
}: {
  now: OwnKey;
  before: OwnKey | null;
  /** The recording goes to the coach, as was ticked. */
  sent: boolean;
  words?: string;
}) {
  const { playing, problem, play, stop } = useClip();
  const button = (name: string, says: string, key: OwnKey) => (
    <button className="button min-h-12 flex-1" onClick={() => (playing === name ? stop() : void play(name, key.sound))}>
      {playing === name ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />} {says}
    </button>
  );
  return (
    <div data-testid="hear-yourself">
      <div className="flex gap-2">
        {button('now', words, now)}
        {before && button('before', `As on ${before.day}`, before)}
      </div>
      <p className="mt-1 text-sm text-soft">
        From outside a voice sounds other than from inside. {sent ? 'Your coach gets it too, as you ticked.' : 'This stays on your phone.'}
      </p>
      {problem && <p role="alert">{problem}</p>}
    </div>
  );
}
