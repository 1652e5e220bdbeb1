import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const isolation = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
};

export default defineConfig({
  plugins: [react()],
  build: { outDir: '../../dist/web', emptyOutDir: true, chunkSizeWarningLimit: 900 },
  server: {
    headers: isolation,
    proxy: { '/api': { target: 'http://127.0.0.1:4680', changeOrigin: true } },
  },
});
