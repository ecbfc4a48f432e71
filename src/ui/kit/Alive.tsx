'use client';
import { useEffect } from 'react';

/** Marks the page once it listens to hands (`data-alive`): globals.css keeps buttons from taking a press before, which would be lost. */
export function Alive() {
  useEffect(() => {
    document.documentElement.dataset.alive = '';
  }, []);
  return null;
}
