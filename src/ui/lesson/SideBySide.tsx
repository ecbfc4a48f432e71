import { asKey } from '../../core/music/scale';
import { Play } from 'lucide-react';
import { Sung, tally } from '../../core/lesson/record';
import type { JudgedKey } from '../../core/lesson/types';
import { VERDICT_SIGNS } from '../kit/verdict';
import { useLanguage } from '../language/language';

/** One exercise as it was sung in this lesson: each sound beside the others, on the same keys. */
export function SideBySide({ sung: { name, tonics, sounds }, onPlay }: { sung: Sung; onPlay: (takeId: string) => void }) {
  const { keyNote, t } = useLanguage();
  return (
    <div className="overflow-x-auto">
      <table className="text-sm" data-testid="side-by-side">
        <caption className="text-left font-semibold">{t(name)}</caption>
        <thead>
          <tr className="text-soft">
            <th scope="col" className="pr-2 text-left font-normal">
              {t('Sung on')}
            </th>
            {tonics.map((t) => (
              <th key={t} scope="col" className="px-1 font-normal">
                {keyNote(t)}
              </th>
            ))}
            <th scope="col" className="pl-2 text-left font-normal">
              {t('As meant')}
            </th>
          </tr>
        </thead>
        <tbody>
          {sounds.map(({ sound, keys }) => (
            <tr key={sound}>
              <th scope="row" className="pr-2 text-left font-semibold">
                {sound}
              </th>
              {tonics.map((t) => (
                <td key={t} className="p-0.5">
                  <Cell judged={keys.get(t)} sound={sound} onPlay={onPlay} />
                </td>
              ))}
              <td className="pl-2">{t('{yes} of {size}', { yes: tally(keys.values()).yes, size: keys.size })}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Cell({ judged, sound, onPlay }: { judged: JudgedKey | undefined; sound: string; onPlay: (takeId: string) => void }) {
  const { t } = useLanguage();
  if (!judged) return null;
  const { takeId, tonicMidi, verdict, says } = judged;
  return (
    <button
      className={`button-small min-h-11 min-w-11 ${verdict === 'yes' ? 'border-accent' : ''}`}
      aria-label={t('{tonicMidi} on {sound}: {verdict}. Play it', {
        tonicMidi: asKey(tonicMidi),
        sound,
        verdict,
      })}
      title={t(says)}
      onClick={() => onPlay(takeId)}
    >
      <span aria-hidden>{t(VERDICT_SIGNS[verdict])}</span> <Play aria-hidden size={12} />
    </button>
  );
}
