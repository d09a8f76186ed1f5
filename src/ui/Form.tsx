'use client';

import { useSyncExternalStore, type ComponentProps } from 'react';

const never = () => () => {};

/** Whether the page answers to hands yet: false while it is only what the server drew. */
function useReady(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}

/**
 * A form that takes nothing before it can keep it. On a slow tablet a field of a page that the server drew could be typed in
 * before the page was ready, and what was typed was gone a moment later.
 */
export function Form({ children, ...rest }: ComponentProps<'form'>) {
  const ready = useReady();
  return (
    <form {...rest}>
      <fieldset disabled={!ready} className="contents">
        {children}
      </fieldset>
    </form>
  );
}
