import pino from 'pino';
import { manySheds, shedNow } from '@/db/shed';
import { askingNow } from './gate/asking';

/** The server's log: one JSON line an event, on standard output, with who asked, from where, and under which number. */
export const log = pino({
  name: 'spiraxis',
  level: process.env.SPIRAXIS_LOG ?? 'info',
  mixin: () => {
    const asking = askingNow();
    if (!asking) return {};
    const { requestId, address, person } = asking;
    return {
      requestId,
      address,
      ...(manySheds() ? { shed: shedNow() } : {}),
      ...(person === null ? {} : { person }),
    };
  },
});
