'use client';
import { Plus, Trash2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { PROTOCOLS } from '../../core/lesson/protocols';
import type { Protocol } from '../../core/lesson/types';
import { Notice } from '../kit/Notice';
import { ProtocolSteps } from './ProtocolSteps';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** The coach's own lessons: made from the ones that come with Wendel by adding, taking out and reordering steps. */
export function ProtocolsRoom({ own }: { own: Protocol[] }) {
  const { t } = useLanguage();
  const router = useRouter();
  const [open, setOpen] = useState<Protocol | null>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  const [gone, setGone] = useState<Protocol | null>(null);

  const attempt = async (work: () => Promise<unknown>) => {
    setProblem(null);
    try {
      await work();
      router.refresh();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  const save = (protocol: Protocol) =>
    attempt(async () => {
      await ask('PUT /api/protocols/[protocolId]', { params: { protocolId: protocol.id }, body: protocol });
      setOpen(null);
      setGone(null);
    });
  const remove = (protocol: Protocol) =>
    attempt(async () => {
      await ask('DELETE /api/protocols/[protocolId]', { params: { protocolId: protocol.id } });
      setGone(protocol);
    });
  const copyOf = (protocol: Protocol): Protocol => ({
    ...protocol,
    id: crypto.randomUUID(),
    name: t('{name}, my way', { name: protocol.name }),
    purpose: '',
  });

  if (open)
    return (
      <main className="mx-auto flex max-w-3xl flex-col gap-3 px-4 py-4">
        <h1 className="text-2xl font-bold">{t('A lesson of your own')}</h1>
        <div className="grid gap-3 sm:grid-cols-2">
          <label className="flex flex-col gap-1 text-sm text-soft">
            {t('Its name')}
            <input
              className="field text-base"
              value={open.name}
              maxLength={80}
              onChange={(e) => setOpen({ ...open, name: e.target.value })}
            />
          </label>
          <label className="flex flex-col gap-1 text-sm text-soft">
            {t('What it is for (optional)')}
            <input
              className="field text-base"
              value={open.purpose}
              maxLength={200}
              onChange={(e) => setOpen({ ...open, purpose: e.target.value })}
            />
          </label>
        </div>
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-5"
            checked={open.asksHealth}
            onChange={(e) => setOpen({ ...open, asksHealth: e.target.checked })}
          />
          {t('Asks how the voice is today first')}
        </label>
        <ProtocolSteps steps={open.steps} onChange={(steps) => setOpen({ ...open, steps })} />
        {problem && <Notice>{t(problem)}</Notice>}
        <div className="flex justify-end gap-2">
          <button className="button" onClick={() => setOpen(null)}>
            {t('Cancel')}
          </button>
          <button className="button-main" onClick={() => void save(open)}>
            {t('Save the lesson')}
          </button>
        </div>
      </main>
    );

  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-3 px-4 py-4">
      <h1 className="text-2xl font-bold">{t('Lessons')}</h1>
      {problem && <Notice>{t(problem)}</Notice>}
      {gone && (
        <div role="status" className="flex items-center gap-3 rounded-lg border border-line bg-card p-3">
          <span className="flex-1">{t('{name} is gone.', { name: gone.name })}</span>
          <button className="button" onClick={() => void save(gone)}>
            {t('Undo')}
          </button>
        </div>
      )}
      <ul className="flex flex-col gap-2">
        {PROTOCOLS.map((p) => (
          <li key={p.id} className="card flex flex-wrap items-center gap-2">
            <div className="min-w-48 flex-1">
              <h2 className="text-lg font-bold">{t(p.name)}</h2>
              <p className="text-soft">{t(p.purpose)}</p>
            </div>
            <button className="button" aria-label={t('Make your own from {name}', { name: p.name })} onClick={() => setOpen(copyOf(p))}>
              <Plus aria-hidden size={18} /> {t('Make your own from it')}
            </button>
          </li>
        ))}
        {own.map((p) => (
          <li key={p.id} className="card flex flex-wrap items-center gap-2" data-testid="own-lesson">
            <div className="min-w-48 flex-1">
              <h2 className="text-lg font-bold">{t(p.name)}</h2>
              <p className="text-soft">{p.purpose || p.steps.map((s) => s.name).join(', ')}</p>
            </div>
            <button className="button" aria-label={t('Change {name}', { name: p.name })} onClick={() => setOpen(p)}>
              {t('Change')}
            </button>
            <button className="button px-3" aria-label={t('Delete {name}', { name: p.name })} onClick={() => void remove(p)}>
              <Trash2 aria-hidden size={18} />
            </button>
          </li>
        ))}
      </ul>
    </main>
  );
}
