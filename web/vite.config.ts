import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';
import { carbon } from './build/carbon.ts';
import { serviceWorker } from './build/sw.ts';

export default defineConfig({
  plugins: [carbon(), svelte(), serviceWorker()],
  build: {
    target: 'es2022',
    sourcemap: false,
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: {
        // what stages share comes as one file: twenty small ones take longer than one that is a little larger
        advancedChunks: {
          groups: [
            { name: 'svelte', test: /node_modules[\\/](svelte|esm-env|clsx)[\\/]/, priority: 2 },
            {
              name: 'stage',
              test: /src[\\/](drawing[\\/]|shell[\\/](Workbench|TwoColumns|Answer|Wide|Views|Missing)|entry[\\/](Lengths?Field|NumberPad)|words[\\/]Explained)/,
            },
          ],
        },
      },
    },
  },
  optimizeDeps: {
    // served file by file in dev: pre-bundling them starts anew at each component first used
    exclude: ['carbon-components-svelte', 'carbon-icons-svelte'],
  },
  server: { proxy: { '/api': 'http://localhost:8000' } },
  resolve: process.env['VITEST'] ? { conditions: ['browser'] } : {},
  // the first test of a file also loads what it tests: a busy machine is not a fault of it
  test: {
    environment: 'happy-dom',
    testTimeout: 30_000,
    pool: 'threads',
    experimental: { fsModuleCache: true }, // what was compiled once need not be again
    // each file in a world of its own takes four times as long: only those have one that put stand-ins in place of modules
    projects: [
      {
        extends: true,
        test: {
          name: 'together',
          include: ['src/**/*.test.ts'],
          exclude: ['src/**/*.mocked.test.ts'],
          isolate: false,
        },
      },
      { extends: true, test: { name: 'mocked', include: ['src/**/*.mocked.test.ts'] } },
    ],
  },
});
