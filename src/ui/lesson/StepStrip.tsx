import { PASSED_OVER } from '../../core/lesson/course';
import { Check } from 'lucide-react';
import type { Course } from '../../core/lesson/types';
import { useLanguage } from '../language/language';

/** The steps of the lesson in a row: behind, in hand, to come, and left out with the reason. Any can be gone to. */
export function StepStrip({ course, onGo }: { course: Course; onGo: (step: number) => void }) {
  const { t } = useLanguage();
  const reason = Object.values(course.skipped).find((r) => r !== PASSED_OVER);
  return (
    <nav aria-label={t('Steps of the lesson')}>
      <ol className="flex flex-wrap gap-1">
        {course.steps.map((step, i) => {
          const out = course.skipped[step.id];
          const here = i === course.at;
          return (
            <li key={`${step.id}${i}`}>
              <button
                className={`button-small ${here ? 'border-accent bg-accent text-accent-ink' : ''} ${out ? 'line-through' : ''}`}
                aria-current={here ? 'step' : undefined}
                title={out ?? t(step.how)}
                onClick={() => onGo(i)}
              >
                {i < course.at && !out && <Check aria-hidden size={14} />}{' '}
                {step.exercise ? t('{step}, {sound}', { step: step.name, sound: step.vowel }) : t(step.name)}
              </button>
            </li>
          );
        })}
      </ol>
      {reason && <p className="mt-1 font-semibold">{t(reason)}</p>}
    </nav>
  );
}
