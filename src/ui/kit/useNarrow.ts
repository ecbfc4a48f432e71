import { useSyncExternalStore } from 'react';

const query = () => matchMedia('(max-width: 1023px)');
const watch = (changed: () => void) => {
  const narrow = query();
  narrow.addEventListener('change', changed);
  return () => narrow.removeEventListener('change', changed);
};

/** Whether what stands side by side on a laptop stands one below the other here (a tablet upright). */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    watch,
    () => query().matches,
    () => false,
  );
