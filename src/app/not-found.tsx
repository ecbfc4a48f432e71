import Link from 'next/link';
import { useLanguage } from '../ui/language/language';

export default function NotFound() {
  const { t } = useLanguage();
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-10">
      <h1 className="text-2xl font-bold">{t('There is nothing here')}</h1>
      <p className="mt-2">{t('It may have been discarded, or the address is mistyped.')}</p>
      <Link className="button mt-4" href="/">
        {t('To the studio')}
      </Link>
    </main>
  );
}
