import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import autoImport from 'unplugin-auto-import/vite'
import * as h3 from 'h3'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const alias = {
  '@oar-bench/core': here('./core'),
  '#shared': here('./shared'),
  '~': here('./app'),
}

const nitroImports = Object.keys(h3).filter((name) => /^[a-z]/.test(name))

export default defineConfig({
  test: {
    maxWorkers: '100%',
    projects: [
      './core/vitest.config.ts',
      {
        plugins: [
          // the imports that Nitro adds to routes
          autoImport({
            imports: [{ h3: nitroImports }, { [here('./server/testing/nitro')]: ['useRuntimeConfig'] }],
            dirs: [here('./server/utils')],
            dts: false,
          }),
        ],
        resolve: { alias: { ...alias, '#migrations': here('./server/testing/migrations') } },
        test: {
          name: 'server',
          include: ['server/**/*.test.ts', 'demo/**/*.test.ts', 'bench/**/*.test.ts'],
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
