import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A link within the application. Nothing is asked for ahead: every page is made of what stands in the database now, so that ahead there
 * would only be its frame, and a list of forty would be forty requests each time it is looked at.
 */
export function Link(props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) {
  return <NextLink {...props} prefetch={false} />;
}
