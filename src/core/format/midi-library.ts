import * as library from '@tonejs/midi';

// The package is a CommonJS one: plain Node shows its exports as `default` only, bundlers by name.
export const { Midi } = 'Midi' in library ? library : (library as { default: typeof import('@tonejs/midi') }).default;
