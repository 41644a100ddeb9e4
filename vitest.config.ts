import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  test: {
    projects: [
      './core/vitest.config.ts',
      {
        resolve: { alias: { '@oar-bench/core': here('./core'), '#shared': here('./shared') } },
        test: {
          name: 'application',
          include: ['app/**/*.test.ts', 'server/**/*.test.ts', 'demo/**/*.test.ts'],
          environment: 'node',
          testTimeout: 60_000,
        },
      },
    ],
  },
})
