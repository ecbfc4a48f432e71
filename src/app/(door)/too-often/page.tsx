import { useLanguage } from '../../../ui/language/language';
export const metadata = { title: 'Too often' };

export default function Page() {
  const { t } = useLanguage();
  return (
    <>
      <h1 className="text-2xl font-bold">{t('That was tried too often')}</h1>
      <p>
        {t(
          'From your network many addresses were tried that are none. Wait a quarter of an hour and open your link again; nothing is lost.',
        )}
      </p>
    </>
  );
}
