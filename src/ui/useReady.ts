import { useSyncExternalStore } from 'react';

const never = () => () => {};

/** Whether the page answers to hands yet: false while it is only what the server drew. */
export function useReady(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}
