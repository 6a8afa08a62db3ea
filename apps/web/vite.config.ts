import { constants } from 'node:zlib';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';

const server = process.env.LAMBENT_SERVER ?? 'http://127.0.0.1:7450';

export default defineConfig({
  plugins: [
    react(),
    tailwind(),
    compression({
      algorithms: ['gzip', defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: 10 } })],
    }),
  ],
  resolve: { conditions: ['lambent-source', 'module', 'browser', 'development|production'] },
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 1500, manifest: true },
  server: {
    host: '127.0.0.1',
    proxy: { '/api': { target: server, changeOrigin: true, headers: { origin: server } } },
  },
});
