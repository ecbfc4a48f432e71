'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Smartphone } from 'lucide-react';
import { Link } from '../kit/Link';
import { useState } from 'react';
import { POPOVER } from '../kit/popover';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import { Said, texts } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** The singer's own page: a new link for it, or an end to the old one. */
export function SendPage({
  singer,
  onLink,
}: {
  singer: { id: string; name: string };
  /** Told the new address, and when it has ended. */
  onLink: (address: string | null) => void;
}) {
  const { t } = useLanguage();
  const [address, setAddress] = useState<string | null>(null);
  const [told, setTold] = useState<Said>('');
  const doing = async (work: () => Promise<void>) => {
    setTold('');
    try {
      await work();
    } catch (error) {
      setTold(saidOf(error));
    }
  };
  return (
    <Popover>
      <PopoverButton className="button-main">
        <Smartphone aria-hidden size={18} /> {t('To {what}’s phone', { what: singer.name.split(' ')[0] })}
      </PopoverButton>
      <PopoverPanel anchor="bottom end" className={POPOVER}>
        <div className="flex flex-col gap-3">
          <p>{t('A page of their own, without a password: the newest week plays, listens and writes down what was done.')}</p>
          <button
            className="button-main"
            onClick={() =>
              void doing(async () => {
                const made = await ask('POST /api/singers/[singerId]/link', { params: { singerId: singer.id } });
                setAddress(made.address);
                onLink(made.address);
                setTold(texts('A message with this link is in the post, and the printed sheet now carries it. Any older link has ended.'));
              })
            }
          >
            {t('Make a new link')}
          </button>
          {address && (
            <p className="text-sm break-all">
              <Link href={address} className="underline" target="_blank" data-testid="practice-link">
                {address}
              </Link>
            </p>
          )}
          <button
            className="button"
            onClick={() =>
              void doing(async () => {
                await ask('DELETE /api/singers/[singerId]/link', { params: { singerId: singer.id } });
                setAddress(null);
                onLink(null);
                setTold(texts('The link has ended.'));
              })
            }
          >
            {t('End the link')}
          </button>
          <p aria-live="polite" className="text-sm">
            {t(told)}
          </p>
        </div>
      </PopoverPanel>
    </Popover>
  );
}
