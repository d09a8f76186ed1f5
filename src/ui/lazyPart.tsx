'use client';

import { lazy, Suspense, type ComponentType } from 'react';

/**
 * A piece of a screen that is loaded when it is called for. It has a boundary of its own, so that the screen around it
 * stays while it comes; where the network is away it says so in its place, and work goes on.
 */
export function lazyPart<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Part = lazy(() =>
    load().then(
      (found) => ({ default: found }),
      () => ({ default: Away as ComponentType<P> }),
    ),
  );
  return function LazyPart(props: P) {
    return (
      <Suspense fallback={null}>
        <Part {...props} />
      </Suspense>
    );
  };
}

function Away() {
  return (
    <p role="alert" className="bg-well px-4 py-2 text-[15.5px]">
      This is not on this device yet, and the server is away. Open the page again when it is back.
    </p>
  );
}
