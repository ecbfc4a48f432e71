import { useSyncExternalStore } from 'react';

const never = () => () => {};

/** Whether the page listens to hands yet: what a server drew is seen before. */
export const useAlive = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
