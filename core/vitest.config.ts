import { defineConfig } from 'vitest/config'

export default defineConfig({
  // modules of the core keep no state but caches: the files of a worker share them, compiled and warmed up;
  // a run that takes a second on a free machine takes ten on a busy one, and is right all the same
  test: {
    name: 'core',
    include: ['**/*.test.ts'],
    environment: 'node',
    isolate: false,
    globalSetup: ['cli/testing.ts'],
    testTimeout: 60_000,
  },
})
