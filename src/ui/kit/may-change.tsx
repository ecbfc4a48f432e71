'use client';
import { createContext, useContext } from 'react';

const May = createContext(true);

/** Says for all that stands in it whether whoever looks may change anything (`value`); without it, they may. */
export const MayChange = May.Provider;

export const useMayChange = (): boolean => useContext(May);

/** What only those see who may change something. The server refuses the others in any case. */
export const ForCoaches = ({ children }: { children: React.ReactNode }) => (useMayChange() ? children : null);
