'use client';
import { FlipHorizontal2, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useLanguage } from '../language/language';
import { texts } from '../../core/words/said';

/** What a camera that doesn't open says, and what to do. */
const WHY: Record<string, string> = texts({
  NotAllowedError: 'The camera is not allowed here: allow it beside the page’s address, or stand before a real mirror.',
  NotFoundError: 'No camera was found: a real mirror does as well.',
});

const COULD_NOT = texts('The camera could not be opened: another program may be using it.');

/** The phone's front camera as a mirror beside an exercise: asked for only when it is wanted, never recorded, gone with the page. */
export function Mirror() {
  const { t } = useLanguage();
  const [on, setOn] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const picture = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (!on) return;
    let stream: MediaStream | undefined;
    let left = false;
    const close = () => stream?.getTracks().forEach((track) => track.stop());
    navigator.mediaDevices.getUserMedia({ video: { facingMode: 'user' } }).then(
      (opened) => {
        stream = opened;
        if (left || !picture.current) return close();
        picture.current.srcObject = opened;
      },
      (error: DOMException) => {
        setProblem(WHY[error.name] ?? COULD_NOT);
        setOn(false);
      },
    );
    return () => {
      left = true;
      close();
    };
  }, [on]);
  return (
    <div>
      <button className="button min-h-12 w-full" aria-pressed={on} onClick={() => (setProblem(null), setOn(!on))}>
        {on ? <X aria-hidden size={18} /> : <FlipHorizontal2 aria-hidden size={18} />} {on ? t('Put the mirror away') : t('A mirror')}
      </button>
      {problem && <p role="alert">{t(problem)}</p>}
      {on && (
        <video
          ref={picture}
          className="mt-2 aspect-[4/3] w-full -scale-x-100 rounded-lg bg-ink object-cover"
          aria-label={t('Yourself, as in a mirror; nothing is recorded')}
          autoPlay
          muted
          playsInline
        />
      )}
    </div>
  );
}
