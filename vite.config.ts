import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    // Modules of core do nothing by being loaded, so a screen that wants one function takes no more than that.
    rolldownOptions: { treeshake: { moduleSideEffects: (id) => !/\/core\/.*\.ts$/.test(id) } },
  },
  worker: { format: 'es' },
  server: { proxy: { '/api': `http://127.0.0.1:${process.env.JUNTA_PORT ?? 4180}` } },
});
