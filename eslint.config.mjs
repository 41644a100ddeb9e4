import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import regexp from 'eslint-plugin-regexp'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'
import vueParser from 'vue-eslint-parser'

/** What each room of the core may import; arrows point one way. */
const order = [
  'units',
  'fluid',
  'catalogue',
  'sheet',
  ['check', 'simulate', 'size'],
  'control',
  'explain',
  'study',
]
const rooms = order.flat()
const mayImport = (room) => {
  const at = order.findIndex((level) => [level].flat().includes(room))
  return order.slice(0, at).flat()
}
/** Within a level: compiling a sheet for a run asks the checks. */
const beside = { simulate: ['check'] }

const arrows = rooms.map((room) => {
  const allowed = [room, ...mayImport(room), ...(beside[room] ?? [])]
  const forbidden = [...rooms, 'formats', 'cli'].filter((other) => !allowed.includes(other))
  return {
    files: [`core/${room}/**/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: `^(\\.\\./)+(${forbidden.join('|')})(/|$)`,
              message: `core/${room} may import only ${allowed.join(', ')}.`,
            },
            {
              regex: '^(node:|vue|nuxt|pinia|drizzle|better-sqlite3|[#~@])',
              message: 'The core stands on its own.',
            },
          ],
        },
      ],
    },
  }
})

/** Words that the glossary has others for (docs/glossary.md): left of them stands the standard term. */
const superseded = {
  remedy: ['cure'],
  acceptWarning: ['silence', 'silenced'],
  reroute: ['layAnew', 'leadRound'],
  junction: ['joint', 'joints'],
  manualRoute: ['shaped'],
  smoothSquareRoot: ['rootDrop'],
  describeState: ['say'],
  safetyNote: ['care'],
  hasVariableVolume: ['swells'],
  eventFunctions: ['guards'],
  steadyState: ['asSet', 'settled'],
  workerClient: ['helperOf'],
  editor: ['desk', 'useDesk'],
  sheetDocument: ['useDrawing'],
}

export default ts.config(
  { ignores: ['.nuxt/', '.output/', 'node_modules/', 'playwright-report/', 'test-results/', '.data/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parser: vueParser, parserOptions: { parser: ts.parser, sourceType: 'module' } },
  },
  {
    files: ['**/*.ts', '**/*.vue', '**/*.mjs'],
    plugins: { regexp },
    rules: {
      // types and Nuxt's imports are checked by the compiler
      'no-undef': 'off',
      'vue/multi-word-component-names': 'off',
      eqeqeq: ['error', 'always'],
      'id-denylist': ['error', ...Object.values(superseded).flat()],
      'no-console': 'off',
      // files of any size meet them: none may take more than linear time
      'regexp/no-super-linear-backtracking': 'error',
      'regexp/no-super-linear-move': 'error',
    },
  },
  // texts of tests are their own
  {
    files: ['**/*.test.ts', '**/testing.ts', '**/testing/**/*.ts', 'e2e/**/*.ts'],
    rules: { 'regexp/no-super-linear-backtracking': 'off', 'regexp/no-super-linear-move': 'off' },
  },
  // the fields of older files
  { files: ['core/sheet/read.ts', 'core/formats/formats.test.ts'], rules: { 'id-denylist': 'off' } },
  { files: ['core/**/*.ts'], rules: { 'no-console': 'error' } },
  ...arrows,
  prettier,
)
