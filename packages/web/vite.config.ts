// Builds the web application; in development it passes API calls on to the server.
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const CORE = fileURLToPath(new URL('../core/src', import.meta.url));
const server = process.env.API_ADDRESS ?? 'http://127.0.0.1:4780';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // From its sources: the bundle does not wait for the core to be compiled.
  resolve: {
    alias: [{ find: /^@dusky-otter\/core\/(.+)$/, replacement: `${CORE}/$1/index.ts` }],
  },
  server: {
    host: '127.0.0.1',
    proxy: { '/api': server, '/files': server, '/preview': server, '/proofs': server },
  },
  build: { chunkSizeWarningLimit: 900 },
});
