import { Mic, Square } from 'lucide-react';
import type { useHeardHere } from './useHeardHere';
import { useLanguage } from '../language/language';

/** Begin and end listening to something short, or leave it for today. */
export function ListenHere({
  listening: { state, end, close },
  sounding = false,
  onBegin,
  onLeave,
}: {
  listening: ReturnType<typeof useHeardHere>;
  /** Something is played first. */
  sounding?: boolean;
  onBegin: () => void;
  onLeave: () => void;
}) {
  const { t } = useLanguage();
  return (
    <>
      {state === 'recording' ? (
        <button className="button-main min-h-16 text-xl" onClick={() => void end()}>
          <Square aria-hidden /> {t('Done')}
        </button>
      ) : (
        <button className="button-main min-h-16 text-xl" disabled={sounding || state !== 'idle'} onClick={onBegin}>
          <Mic aria-hidden /> {sounding ? t('Listen …') : state === 'ending' ? t('Listening back …') : t('Begin')}
        </button>
      )}
      <NotToday
        onLeave={() => {
          close();
          onLeave();
        }}
      />
    </>
  );
}

/** The way out, and what becomes of what is sung. */
export function NotToday({ onLeave }: { onLeave: () => void }) {
  const { t } = useLanguage();
  return (
    <>
      <button className="button min-h-12" onClick={onLeave}>
        {t('Not today')}
      </button>
      <p className="text-sm text-soft">{t('Heard on this phone and forgotten: only the figures go to your coach.')}</p>
    </>
  );
}
