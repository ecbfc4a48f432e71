import Link from 'next/link';
import { useLanguage } from '../../../ui/language/language';

export const metadata = { title: 'Not for this account' };

export default function Page() {
  const { t } = useLanguage();
  return (
    <>
      <h1 className="text-2xl font-bold">{t('This page is not for your account')}</h1>
      <p>{t('The owner of the studio decides who may see and change what, under Settings.')}</p>
      <Link className="button self-start" href="/">
        {t('To the studio')}
      </Link>
    </>
  );
}
