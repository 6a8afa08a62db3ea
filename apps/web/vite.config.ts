import { constants } from 'node:zlib';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';

const server = process.env.LAMBENT_SERVER ?? 'http://127.0.0.1:7450';

/** Has the browser fetch what the page starts with at once, and not only when it is asked for. */
function fetchEarly(...modules: string[]): Plugin {
  return {
    name: 'fetch-early',
    transformIndexHtml: {
      order: 'post',
      handler: (_, { bundle = {} }) => {
        const early = new Set<string>();
        const take = (file: string) => {
          const chunk = bundle[file];
          if (chunk?.type !== 'chunk' || early.has(file)) return;
          early.add(file);
          for (const other of chunk.imports) take(other);
        };
        for (const chunk of Object.values(bundle)) {
          if (chunk.type !== 'chunk' || chunk.isEntry) continue;
          if (modules.some((module) => chunk.facadeModuleId?.endsWith(module))) take(chunk.fileName);
        }
        return [...early].map((file) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${file}` },
        }));
      },
    },
  };
}

export default defineConfig({
  plugins: [
    react(),
    tailwind(),
    fetchEarly('/src/app.tsx'),
    compression({
      algorithms: ['gzip', defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: 10 } })],
    }),
  ],
  resolve: { conditions: ['lambent-source', 'module', 'browser', 'development|production'] },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 1500,
    manifest: true,
    // No links for what a part needs when it is loaded: to make dozens of them keeps the page busy, and the browser finds all
    // that it needs in the part's own head.
    modulePreload: { polyfill: false, resolveDependencies: () => [] },
  },
  server: {
    host: '127.0.0.1',
    proxy: { '/api': { target: server, changeOrigin: true, headers: { origin: server } } },
  },
});
