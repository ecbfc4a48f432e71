'use client';
import { Play, Square } from 'lucide-react';
import { useClip } from '../../audio/clip';
import type { OwnKey } from '../../sync/own-voice';

/** The last key, as the room heard it, beside the same exercise on an earlier day. Nothing of it leaves the phone. */
export function HearYourself({ now, before }: { now: OwnKey; before: OwnKey | null }) {
  const { playing, problem, play, stop } = useClip();
  const button = (name: string, words: string, key: OwnKey) => (
    <button className="button min-h-12 flex-1" onClick={() => (playing === name ? stop() : void play(name, key.sound))}>
      {playing === name ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />} {words}
    </button>
  );
  return (
    <div data-testid="hear-yourself">
      <div className="flex gap-2">
        {button('now', 'Hear your last key', now)}
        {before && button('before', `As on ${before.day}`, before)}
      </div>
      <p className="mt-1 text-sm text-soft">From outside a voice sounds other than from inside. This stays on your phone.</p>
      {problem && <p role="alert">{problem}</p>}
    </div>
  );
}
