'use client';

import type { ComponentProps } from 'react';
import type { Deed } from '@/core/people/roles';
import { mayNotWords } from '@/words/en/people';
import { useReady } from './useReady';
import { useMay, useWho } from './who';

/**
 * A form that takes nothing before it can keep it. On a slow tablet a field of a page that the server drew could be typed in
 * before the page was ready, and what was typed was gone a moment later. One for some roles only says so to the others, and
 * takes nothing from them.
 */
export function Form({ children, deed = 'own', ...rest }: ComponentProps<'form'> & { deed?: Deed }) {
  const ready = useReady();
  const who = useWho();
  const may = useMay(deed);
  const shut = who !== null && !may;
  return (
    <form {...rest}>
      <fieldset disabled={!ready || shut} className="contents">
        {children}
      </fieldset>
      {shut ? <p className="py-2 text-[16px] text-ink2">{mayNotWords(who.role, deed)}</p> : null}
    </form>
  );
}
