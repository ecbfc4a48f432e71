import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useLanguage } from '../language/language';

/** A window over the page, with its title and a way out; Esc closes it too. `width`: a class; `foot`: buttons before the way out. */
export function Window({
  title,
  width = 'max-w-2xl',
  onClose,
  foot,
  children,
}: {
  title: string;
  width?: string;
  onClose(): void;
  foot?: React.ReactNode;
  children: React.ReactNode;
}) {
  const { t } = useLanguage();
  return (
    <Dialog open onClose={onClose} className="relative z-20">
      <div className="no-print fixed inset-0 bg-black/40" aria-hidden="true" />
      <div className="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 sm:pt-16">
        <DialogPanel className={`card flex w-full flex-col gap-3 ${width}`}>
          <DialogTitle className="text-xl font-bold">{title}</DialogTitle>
          {children}
          <div className="no-print flex flex-wrap justify-end gap-2">
            {foot}
            <button className="button" onClick={onClose}>
              {t('Close')}
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
