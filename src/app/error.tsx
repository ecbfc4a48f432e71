'use client';
import { useLanguage } from '../ui/language/language';

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  const { t } = useLanguage();
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-10">
      <h1 className="text-2xl font-bold">{t('This page could not be shown')}</h1>
      <p className="mt-2">
        {t('Nothing stored was changed. If it happens again, look at the messages where Wendel was started: the database may be away.')}
      </p>
      <button className="button-main mt-4" onClick={reset}>
        {t('Try again')}
      </button>
    </main>
  );
}
