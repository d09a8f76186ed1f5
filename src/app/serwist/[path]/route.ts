import { createSerwistRoute } from '@serwist/turbopack';

/** The service worker, made once with the build: it knows every file of the build by its content. */
export const { dynamic, dynamicParams, revalidate, generateStaticParams, GET } = createSerwistRoute({
  swSrc: 'src/serviceWorker.ts',
  useNativeEsbuild: true,
  // A new build is a new page of what is kept here.
  additionalPrecacheEntries: ['/offline', '/begun'].map((url) => ({
    url,
    revision: Date.now().toString(36),
  })),
});
