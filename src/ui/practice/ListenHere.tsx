import { Mic, Square } from 'lucide-react';
import type { useHeardHere } from './useHeardHere';

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
  return (
    <>
      {state === 'recording' ? (
        <button className="button-main min-h-16 text-xl" onClick={() => void end()}>
          <Square aria-hidden /> Done
        </button>
      ) : (
        <button className="button-main min-h-16 text-xl" disabled={sounding || state !== 'idle'} onClick={onBegin}>
          <Mic aria-hidden /> {sounding ? 'Listen …' : state === 'ending' ? 'Listening back …' : 'Begin'}
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
  return (
    <>
      <button className="button min-h-12" onClick={onLeave}>
        Not today
      </button>
      <p className="text-sm text-soft">Heard on this phone and forgotten: only the figures go to your coach.</p>
    </>
  );
}
