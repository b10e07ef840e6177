import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: {
    target: 'es2022',
    outDir: '../dist/web',
    emptyOutDir: true,
    chunkSizeWarningLimit: 2000,
    // What every page needs comes in one file: as many as there are modules would cost more in headers than in words.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'base', test: /node_modules[\\/](react|react-dom|react-router|scheduler|@tanstack|clsx|dayjs)[\\/]/ },
            { name: 'shell', test: /web[\\/]src[\\/](api[\\/]|shell[\\/](plural|inBytes|Mark|marks|NoticeBell|RunsNow)\.)/ },
          ],
        },
      },
    },
  },
  worker: { format: 'es' },
});
