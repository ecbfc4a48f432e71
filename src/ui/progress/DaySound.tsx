import { useLanguage } from '../language/language';
import { Play, Square } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { addressOf } from '../../sync/ask';

/** A day's siren, to be heard beside another day's. */
export function DaySound({ day, takeId }: { day: string; takeId: string | undefined }) {
  const { dateOf, t } = useLanguage();
  const sound = useRef<HTMLAudioElement | null>(null);
  const [playing, setPlaying] = useState(false);
  const [silent, setSilent] = useState(false);
  useEffect(() => () => sound.current?.pause(), []);
  if (!takeId || silent) return null;
  const press = () => {
    if (playing) return sound.current?.pause();
    const audio = new Audio(addressOf('GET /api/takes/[takeId]/audio', { takeId }));
    sound.current = audio;
    audio.onpause = () => setPlaying(false);
    setPlaying(true);
    // Its sound may have been deleted when its time was over.
    audio.play().catch(() => (setPlaying(false), setSilent(true)));
  };
  const words = t(playing ? 'Stop the siren of {day}' : 'Hear the siren of {day}', { day: dateOf(day) });
  return (
    <button className="button min-h-9 px-2" aria-label={words} title={words} onClick={press}>
      {playing ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}
    </button>
  );
}
