import type { Instrumentation } from 'next';

/** The server in front asks whether there is a shed before it hands anything on. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { tellFront } = await import('@/features/health');
  tellFront();
}

/** Server errors as one structured line each. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { log } = await import('@/features/serverLog');
  const { isUnreadWish } = await import('@/features/gate/wish');
  if (isUnreadWish()) {
    log.warn({ path: request.path, why: String(error) }, 'what was sent stands for no wish');
    return;
  }
  log.error(
    { err: error, path: request.path, method: request.method, route: context.routePath },
    'request failed',
  );
};
