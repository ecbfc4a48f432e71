'use client';
import { Mic, Play, Square, Trash2 } from 'lucide-react';
import { useClip } from '../../audio/clip';
import { SHORT_S } from '../../core/format/short-sound';
import { useLanguage } from '../language/language';
import type { ShortRecording, useShortRecording } from '../listen/useShortRecording';

/** A word to the coach in the singer's own voice: said, heard back, said anew or taken away before it is told. */
export function SayIt({
  recording: { state, heardS, problem, begin, finish },
  spoken,
  onTakeAway,
}: {
  recording: ReturnType<typeof useShortRecording>;
  spoken: ShortRecording | null;
  onTakeAway: () => void;
}) {
  const { t } = useLanguage();
  const clip = useClip();
  const speak = () => {
    clip.stop();
    void begin();
  };
  const wrong = problem ?? clip.problem;
  return (
    <div className="-mt-2 flex flex-wrap items-center gap-2" data-testid="say-it">
      {state !== 'idle' ? (
        <>
          <button className="button-main min-h-12" disabled={state !== 'recording'} onClick={() => void finish()}>
            <Square aria-hidden size={18} /> {t('That is it')}
          </button>
          <span className="tabular-nums">{t('{heard} of {of} s', { heard: heardS, of: SHORT_S })}</span>
        </>
      ) : (
        <>
          {spoken && (
            <button
              className="button min-h-12 flex-1"
              onClick={() => (clip.playing ? clip.stop() : void clip.play('spoken', new Blob([spoken.wav], { type: 'audio/wav' })))}
            >
              {clip.playing ? <Square aria-hidden size={18} /> : <Play aria-hidden size={18} />} {t('Hear it back')}
            </button>
          )}
          <button className="button min-h-12 flex-1" onClick={speak}>
            <Mic aria-hidden size={18} /> {spoken ? t('Anew') : t('Or say it, up to {seconds} seconds', { seconds: SHORT_S })}
          </button>
          {spoken && (
            <button className="button min-h-12 min-w-12" aria-label={t('Take what you said away')} onClick={onTakeAway}>
              <Trash2 aria-hidden size={18} />
            </button>
          )}
        </>
      )}
      {wrong && (
        <p role="alert" className="w-full">
          {t(wrong)}
        </p>
      )}
    </div>
  );
}
