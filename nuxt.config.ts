import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import { build } from 'vite'
import { SECURITY_HEADERS } from './server/security/headers'

const core = fileURLToPath(new URL('./core', import.meta.url))
const migrations = fileURLToPath(new URL('./server/database/migrations', import.meta.url))

/** The SQL migrations in order, as a module, so that the built server carries them. */
function migrationsModule(): string {
  const list = readdirSync(migrations)
    .filter((name) => name.endsWith('.sql'))
    .sort()
    .map((name) => ({ name, sql: readFileSync(`${migrations}/${name}`, 'utf8') }))
  return `export const migrations = ${JSON.stringify(list)}`
}

/** Bundles the thread for long tasks beside the built server, whose packages it shares. */
async function buildThread(serverFolder: string): Promise<void> {
  await build({
    configFile: false,
    logLevel: 'warn',
    build: {
      ssr: fileURLToPath(new URL('./server/background/thread.ts', import.meta.url)),
      outDir: serverFolder,
      emptyOutDir: false,
      copyPublicDir: false,
      rollupOptions: { output: { entryFileNames: 'thread.mjs', inlineDynamicImports: true } },
    },
    ssr: { noExternal: true, external: ['better-sqlite3'] },
  })
}

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  ssr: false,
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt'],
  alias: { '@oar-bench/core': core },
  css: ['~/assets/css/main.css', '~/assets/css/sheet.css'],
  app: {
    head: {
      title: 'Oar Bench',
      htmlAttrs: { lang: 'en' },
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
    },
  },
  runtimeConfig: { dataFolder: '.data' },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: false } } },
  routeRules: { '/**': { headers: SECURITY_HEADERS } },
  nitro: {
    errorHandler: '~~/server/error',
    virtual: { '#migrations': migrationsModule },
    typescript: { tsConfig: { compilerOptions: { noUncheckedIndexedAccess: false } } },
    hooks: {
      compiled: (nitro) => (nitro.options.dev ? undefined : buildThread(nitro.options.output.serverDir)),
    },
  },
  // the development server of Nuxt looks for a server entry though nothing is rendered on the server
  $development: {
    vite: {
      environments: { ssr: { build: { rollupOptions: { input: { server: '#build/root-component.mjs' } } } } },
    },
  },
  vite: {
    plugins: [tailwindcss()],
    worker: { format: 'es' },
    optimizeDeps: {
      include: [
        '@headlessui/vue',
        '@vueuse/core',
        'comlink',
        'apexcharts',
        'vue3-apexcharts',
        'zod',
        'd3-zoom',
        'd3-selection',
        'lucide-vue-next',
      ],
    },
  },
})
