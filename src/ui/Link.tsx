import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A link within the application. Nothing is asked for ahead: every page is made of what stands in the database now, so that ahead there
 * would only be its frame, and a list of forty would be forty requests each time it is looked at.
 */
export function Link(props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) {
  return <NextLink {...props} prefetch={false} />;
}

/** Looks of a link that stands among words, and of one that has a line to itself. */
export const LINK = 'inline-flex min-h-11 items-center underline underline-offset-4';
export const LINE_LINK = 'flex min-h-11 items-center underline underline-offset-4';
