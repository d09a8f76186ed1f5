import type { NextConfig } from 'next';
import { ANSWER_HEADERS } from './scripts/lib/answerHeaders.mjs';

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  // Types are checked by `npm run types` and by CI; a start on a bare machine need not wait for it a second time.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['pino', 'mysql2', 'piscina'],
  experimental: {
    // The largest body that a route takes is an archive of 100 MB; each route has its own limit below that and says so.
    proxyClientMaxBodySize: '120mb',
    // A code book of 2 MB goes through an action.
    serverActions: { bodySizeLimit: '5mb' },
  },
  headers: async () => [
    // Which files a build is made of is asked anew each time, whatever stands between.
    { source: '/serwist/:path*', headers: [{ key: 'Cache-Control', value: 'no-cache' }] },
    {
      source: '/:path*',
      headers: ANSWER_HEADERS,
    },
  ],
};

export default config;
