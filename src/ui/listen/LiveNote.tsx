'use client';
import { memo, RefObject, useEffect, useRef } from 'react';
import { useLanguage } from '../language/language';
import type { LiveStore } from '../take/LiveTrace';

/** Told about ten times a second: quicker can't be read. */
const EVERY_MS = 100;

/** The note that is being sung, large enough to be read from across a piano, and how far off it is. */
export const LiveNote = memo(function LiveNote({ store }: { store: RefObject<LiveStore> }) {
  const { note: named } = useLanguage();
  const note = useRef<HTMLSpanElement>(null);
  const cents = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    let last = 0;
    let frame = requestAnimationFrame(function paint(now) {
      frame = requestAnimationFrame(paint);
      if (now - last < EVERY_MS || !note.current || !cents.current) return;
      last = now;
      const { midi } = store.current;
      const sung = midi[midi.length - 1] ?? 0;
      const off = Math.round(100 * (sung - Math.round(sung)));
      const [name, by] = sung > 0 ? [named(Math.round(sung)), `${off > 0 ? '+' : off < 0 ? '−' : ''}${Math.abs(off)} ¢`] : ['', ''];
      if (note.current.textContent !== name) note.current.textContent = name;
      if (cents.current.textContent !== by) cents.current.textContent = by;
    });
    return () => cancelAnimationFrame(frame);
  }, [store, named]);
  return (
    <p className="flex h-14 items-baseline gap-3 contain-strict" aria-hidden="true">
      <span ref={note} data-testid="live-note" className="min-w-24 text-[56px] leading-none font-bold"></span>
      <span ref={cents} className="text-2xl text-soft" />
    </p>
  );
});
