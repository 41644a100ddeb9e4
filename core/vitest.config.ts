import { defineConfig } from 'vitest/config'

export default defineConfig({
  // a run that takes a second on a free machine takes ten on a busy one, and is right all the same
  test: {
    name: 'core',
    include: ['**/*.test.ts'],
    environment: 'node',
    globalSetup: ['cli/testing.ts'],
    testTimeout: 60_000,
  },
})
