import { Check } from 'lucide-react';
import { Link } from '../kit/Link';
import { firstSteps, Started } from './first-steps';
import { useLanguage } from '../language/language';

/** What to do first, in a studio where nobody practises yet: the steps, and a button for the next one. */
export function FirstSteps({ singers, onAdd }: { singers: readonly Started[]; onAdd(): void }) {
  const { t } = useLanguage();
  const steps = firstSteps(singers);
  if (!steps) return null;
  const next = steps.findIndex((s) => !s.done);
  return (
    <section className="card mb-3" aria-labelledby="first-steps">
      <h2 id="first-steps" className="text-lg font-bold">
        {t('The first hour')}
      </h2>
      <ol className="mt-2 flex flex-col gap-2">
        {steps.map(({ name, says, done, href, button }, i) => (
          <li key={t(name)} className="grid grid-cols-[2rem_1fr_auto] items-start gap-x-2" aria-current={i === next ? 'step' : undefined}>
            <span className={`pt-0.5 text-center font-bold ${done ? 'text-accent' : 'text-soft'}`}>
              {done ? <Check role="img" aria-label={t('done')} size={20} className="mx-auto" /> : i + 1}
            </span>
            <span>
              <span className="font-semibold">{t(name)}</span>
              {i === next && <span className="block text-soft">{t(says)}</span>}
            </span>
            {i === next &&
              (href ? (
                <Link className="button-main" href={href}>
                  {t(button)}
                </Link>
              ) : (
                <button className="button-main" onClick={onAdd}>
                  {t(button)}
                </button>
              ))}
          </li>
        ))}
      </ol>
    </section>
  );
}
