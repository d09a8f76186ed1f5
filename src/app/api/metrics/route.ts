import { found, openRoute } from '@/features/gate/route';
import { allFigures, mayMeasure, metrics } from '@/features/metrics';

/** Figures in the text format of Prometheus, for who brings the word of `SPIRAXIS_METRICS_WORD`; to others there are none. */
export const GET = openRoute(async (request) => {
  found(mayMeasure(request.headers.get('authorization')) || null, 'There is nothing here.');
  return new Response(await allFigures(), {
    headers: { 'content-type': metrics.registry.contentType, 'cache-control': 'no-store' },
  });
});
