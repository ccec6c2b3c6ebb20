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
    chunkSizeWarningLimit: 1500,
    rollupOptions: {
      // Large, and of use only where a name is made: by itself, or it would come along with every form.
      output: { codeSplitting: { groups: [{ name: 'letters', test: /any-ascii/ }] } },
    },
  },
});
