// Builds the web application; in development it passes API calls on to the server.
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const server = process.env.API_ADDRESS ?? 'http://127.0.0.1:4780';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  server: { host: '127.0.0.1', proxy: { '/api': server, '/files': server, '/preview': server } },
  build: { chunkSizeWarningLimit: 900 },
});
