'use client';
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { UserPlus } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { FormEvent, useState } from 'react';
import { VOICE_TYPES } from '../../core/plan/voice-types';
import { Notice } from '../kit/Notice';
import { sendJson } from '../kit/request';

export function AddSinger() {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);

  const add = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    setProblem(null);
    try {
      const { id } = await sendJson<{ id: string }>('POST', '/api/singers', Object.fromEntries(new FormData(event.currentTarget)));
      setOpen(false);
      router.push(`/singers/${id}/listen`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };

  return (
    <>
      <button className="button-main" onClick={() => setOpen(true)}>
        <UserPlus aria-hidden size={18} /> Add a singer
      </button>
      <Dialog open={open} onClose={setOpen} className="relative z-10">
        <div className="fixed inset-0 bg-black/40" aria-hidden="true" />
        <div className="fixed inset-0 grid place-items-center p-4">
          <DialogPanel className="card w-full max-w-md">
            <DialogTitle className="text-xl font-bold">A new singer</DialogTitle>
            <form onSubmit={add} className="mt-3 flex flex-col gap-3">
              <label className="flex flex-col gap-1 text-sm text-soft">
                Name
                <input className="field text-base" name="name" required maxLength={120} autoComplete="off" />
              </label>
              <label className="flex flex-col gap-1 text-sm text-soft">
                Voice, as far as you know
                <select className="field text-base" name="voiceType" defaultValue="mezzo">
                  {VOICE_TYPES.map((t) => (
                    <option key={t.id} value={t.id}>
                      {t.name}
                    </option>
                  ))}
                </select>
              </label>
              <label className="flex flex-col gap-1 text-sm text-soft">
                Part or style (optional)
                <input className="field text-base" name="part" maxLength={120} autoComplete="off" />
              </label>
              {problem && <Notice>{problem}</Notice>}
              <div className="mt-1 flex justify-end gap-2">
                <button type="button" className="button" onClick={() => setOpen(false)}>
                  Cancel
                </button>
                <button className="button-main">Add and listen</button>
              </div>
            </form>
          </DialogPanel>
        </div>
      </Dialog>
    </>
  );
}
