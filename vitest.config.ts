import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import autoImport from 'unplugin-auto-import/vite'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const alias = {
  '@oar-bench/core': here('./core'),
  '#shared': here('./shared'),
  '~': here('./app'),
}

export default defineConfig({
  test: {
    projects: [
      './core/vitest.config.ts',
      {
        resolve: { alias },
        test: {
          name: 'server',
          include: ['server/**/*.test.ts', 'demo/**/*.test.ts'],
          environment: 'node',
          testTimeout: 60_000,
        },
      },
      {
        plugins: [
          vue(),
          // the imports that Nuxt adds to components
          autoImport({
            imports: ['vue', 'pinia', 'vue-router'],
            dirs: ['app/stores', 'app/composables', 'app/utils'].map(here),
            vueTemplate: true,
            dts: false,
          }),
        ],
        resolve: { alias },
        test: {
          name: 'app',
          include: ['app/**/*.test.ts'],
          environment: 'happy-dom',
          setupFiles: ['app/testing/setup.ts'],
          testTimeout: 60_000,
        },
      },
    ],
  },
})
