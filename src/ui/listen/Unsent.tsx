import { Notice } from '../kit/Notice';
import type { Unsent as UnsentTake } from './useRecorder';
import { useLanguage } from '../language/language';

/** Takes that are not on the server yet: why, whether they are safe, and what can be done. */
export function Unsent({ takes, onTryAgain }: { takes: UnsentTake[]; onTryAgain: (take: UnsentTake) => void }) {
  const { t } = useLanguage();
  return takes.map((u) => (
    <Notice
      key={u.take.id}
      actions={
        <>
          <button className="button" onClick={() => onTryAgain(u)}>
            {t('Try again')}
          </button>
          <a
            className="button"
            download={`take-${u.take.recordedAt.slice(0, 16)}.wav`}
            href={URL.createObjectURL(new Blob([u.recording.wav], { type: 'audio/wav' }))}
          >
            {t('Keep as a file')}
          </a>
        </>
      }
    >
      {t(u.why)}{' '}
      {u.waits
        ? t('Nothing here is lost: the take is safe in this browser and goes to the server by itself as soon as it can. You can go on.')
        : t('The take is in this page only: try again, or keep it as a file.')}
    </Notice>
  ));
}
