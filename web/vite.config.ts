import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2022', outDir: '../dist/web', emptyOutDir: true, chunkSizeWarningLimit: 2000 },
  worker: { format: 'es' },
});
