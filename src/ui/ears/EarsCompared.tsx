import { useState } from 'react';
import { Ears, PASS_NAMES } from '../../core/ears/passes';
import { schoolById } from '../../core/map/schools';
import { comparedInWords, PASS_WORDS } from './words';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const WITH = texts([
  ['machine', 'You and the machine'],
  ['others', 'You and the other coaches'],
  ['self', 'You, and you four weeks before'],
]);

/** How far a coach's ears agree with the machine's, with other coaches', and with their own of a month before. */
export function EarsCompared({ ears, onForget }: { ears: Ears; onForget: () => void }) {
  const { t } = useLanguage();
  const [sure, setSure] = useState(false);
  const asked = PASS_NAMES.filter((name) => ears.byName[name]);
  return (
    <section aria-label={t('How ears compare')} className="flex flex-col gap-3">
      <h2 className="text-lg font-bold">{t('How ears compare')}</h2>
      <dl className="grid gap-x-4 gap-y-1 sm:grid-cols-[auto_1fr]">
        {WITH.map(([which, words]) => (
          <div key={which} className="contents">
            <dt className="text-soft">{t(words)}</dt>
            <dd data-testid={`ears-${which}`}>{ears[which] ? t(comparedInWords(ears[which])) : t('Nothing to compare yet.')}</dd>
          </div>
        ))}
      </dl>
      {ears.bySchool.length > 1 && (
        <div>
          <h3 className="text-sm text-soft">{t('You and the machine, by how the singers are taught')}</h3>
          <dl className="grid gap-x-4 gap-y-1 sm:grid-cols-[auto_1fr]" data-testid="ears-by-school">
            {ears.bySchool.map(({ school, machine }) => (
              <div key={school} className="contents">
                <dt className="text-soft">{t(schoolById(school).name)}</dt>
                <dd>{t(comparedInWords(machine))}</dd>
              </div>
            ))}
          </dl>
        </div>
      )}
      {asked.length > 0 && (
        <div className="overflow-x-auto">
          <table className="w-full text-left">
            <thead className="text-sm text-soft">
              <tr>
                <th className="py-1 pr-4 font-normal">{t('Where the machine says')}</th>
                <th className="py-1 pr-4 text-right font-normal">{t('asked')}</th>
                <th className="py-1 pr-4 text-right font-normal">{t('you hear a change')}</th>
                <th className="py-1 text-right font-normal">{t('you call it the same')}</th>
              </tr>
            </thead>
            <tbody>
              {asked.map((name) => (
                <tr key={name} className="border-t border-line">
                  <td className="py-1 pr-4">{t(PASS_WORDS[name])}</td>
                  <td className="py-1 pr-4 text-right">{ears.byName[name]!.asked}</td>
                  <td className="py-1 pr-4 text-right">{ears.byName[name]!.there}</td>
                  <td className="py-1 text-right">{ears.byName[name]!.alike}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <p className="text-sm text-soft">
        {t(
          'Kappa is 0 where you agree as chance would have it, 1 where you agree on all. A kind of change that the machine hears and coaches here, asked blind, do not, weighs less on every map of the studio; your marks and pins stand as they are.',
        )}
      </p>
      {ears.machine &&
        (sure ? (
          <div className="flex flex-wrap items-center gap-2" role="alert">
            <p>{t('All your answers are forgotten, and weigh nothing any more.')}</p>
            <button className="button" onClick={() => (setSure(false), onForget())}>
              {t('Forget them')}
            </button>
            <button className="button" onClick={() => setSure(false)}>
              {t('Keep them')}
            </button>
          </div>
        ) : (
          <button className="button self-start" onClick={() => setSure(true)}>
            {t('Forget my answers')}
          </button>
        ))}
    </section>
  );
}
