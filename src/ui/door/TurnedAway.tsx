'use client';
import { Link } from '../kit/Link';
import type { Said } from '../../core/words/said';
import { useLanguage } from '../language/language';

/** Why somebody came to nothing, and a way on where there is one. */
export function TurnedAway({ title, says, back = false }: { title: Said; says: Said; back?: boolean }) {
  const { t } = useLanguage();
  return (
    <>
      <h1 className="text-2xl font-bold">{t(title)}</h1>
      <p>{t(says)}</p>
      {back && (
        <Link className="button self-start" href="/">
          {t('To the studio')}
        </Link>
      )}
    </>
  );
}
