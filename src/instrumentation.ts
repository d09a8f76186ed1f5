import type { Instrumentation } from 'next';

/** Server errors as one structured line each. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { log } = await import('@/features/serverLog');
  log.error(
    { err: error, path: request.path, method: request.method, route: context.routePath },
    'request failed',
  );
};
