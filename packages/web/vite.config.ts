import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** What each path of the API is for stands in its description for other programs; the browser does not need it. */
const withoutSummaries = {
  name: 'without-summaries',
  enforce: 'pre' as const,
  transform: (code: string, id: string) =>
    id.includes('/contract/routes/')
      ? { code: code.replace(/summary:\s*'(?:[^'\\]|\\.)*'/g, "summary: ''"), map: null }
      : null,
};

export default defineConfig({
  plugins: [
    withoutSummaries,
    react(),
    // The walk of a stocktake opens without network; nothing else is kept by the browser.
    VitePWA({
      filename: 'walk-offline.js',
      scope: '/stocktake/',
      injectRegister: false,
      manifest: false,
      workbox: {
        globPatterns: ['**/*.{js,css,html,woff2}'],
        maximumFileSizeToCacheInBytes: 4_000_000,
        navigateFallback: null,
        skipWaiting: true,
        clientsClaim: true,
        runtimeCaching: [
          {
            urlPattern: ({ request }) => request.mode === 'navigate',
            handler: 'NetworkFirst',
            options: {
              networkTimeoutSeconds: 5,
              plugins: [{ handlerDidError: () => caches.match('/index.html', { ignoreSearch: true }) }],
            },
          },
          {
            urlPattern: ({ url }) => /^\/api\/(welcome|set-up|stocktakes(\/\d+)?)$/.test(url.pathname),
            handler: 'NetworkFirst',
            options: { cacheName: 'walk', networkTimeoutSeconds: 5 },
          },
        ],
      },
    }),
  ],
  build: { outDir: 'dist', sourcemap: false, chunkSizeWarningLimit: 1200 },
  server: { proxy: { '/api': 'http://127.0.0.1:4600' } },
});
