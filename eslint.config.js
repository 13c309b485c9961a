import imports from 'eslint-plugin-import-x'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'
import { noModelSpread } from './eslint.models.js'

/** Imports run one way: web, site and server -> contract -> core; stand-ins and core stand alone. */
const rooms = {
  core: ['contract', 'server', 'web', 'site', 'stand-ins', 'demo'],
  contract: ['server', 'web', 'site', 'stand-ins', 'demo'],
  server: ['web', 'stand-ins'],
  web: ['server', 'site', 'stand-ins', 'demo'],
  site: ['server', 'web', 'stand-ins', 'demo'],
  'stand-ins': ['core', 'contract', 'server', 'web', 'site', 'demo'],
}

const oneWay = Object.entries(rooms).map(([room, closed]) => ({
  files: [`${room}/**/*.{ts,vue}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: closed.map(other => ({
          regex: `^(@${other}(/|$)|(\\.\\./)+${other}/)`,
          message: `${room}/ must not import ${other}/ (see docs/decisions/rooms.md).`,
        })),
      },
    ],
  },
}))

/** Folders of the server, each of which imports only those before it: so there is no circle among them. */
const floors = [
  'database',
  'accounts',
  'access',
  'events',
  'jobs',
  'foreignText',
  'sound',
  'outside',
  'media',
  'pictures',
  'files',
  'shows',
  'history',
  'links',
  'episodes',
  'transcripts',
  'drafting',
  'chapters',
  'delivery',
  'strands',
  'feeds',
  'finishing',
  'soundbites',
  'measuring',
  'uploads',
  'remote',
  'hosts',
  'checking',
  'together',
  'mail',
  'directories',
  'releases',
  'travel',
  'calendar',
  'shelf',
  'search',
  'comments',
  'site',
  'looks',
  'ownPages',
  'sharing',
  'listeners',
  'preview',
  'tidying',
  'health',
  'studio',
]

const upwards = floors.map((folder, floor) => ({
  files: [`server/${folder}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...rooms.server.map(other => ({
            regex: `^(@${other}(/|$)|(\\.\\./)+${other}/)`,
            message: `server/ must not import ${other}/ (see docs/decisions/rooms.md).`,
          })),
          {
            regex: `^\\.\\./(${[...floors.slice(floor + 1), 'testing'].join('|')})/`,
            message: `server/${folder} imports only the folders that stand before it in eslint.config.js.`,
          },
        ],
      },
    ],
  },
}))

export default ts.config(
  { ignores: ['dist/', '.run/', 'node_modules/'] },
  { plugins: { 'import-x': imports } },
  ...ts.configs.recommended,
  ...vue.configs['flat/essential'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    files: ['web/src/**/*.vue'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '/api$',
              allowTypeImports: true,
              message: 'Components ask their store, and the store asks the API.',
            },
          ],
        },
      ],
    },
  },
  {
    // These rules ask the compiler for types; of Vue files it would have to make them up one by one, which takes minutes.
    files: ['{core,contract,server,web,site,theme,stand-ins,demo,bench,e2e}/**/*.ts'],
    languageOptions: {
      parserOptions: {
        project: './tsconfig.json',
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
    settings: {
      'import-x/resolver-next': [imports.createNodeResolver({ extensions: ['.ts', '.vue', '.js'] })],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts'] },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false, arguments: false, properties: false } },
      ],
      '@typescript-eslint/await-thenable': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      '@typescript-eslint/no-for-in-array': 'error',
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { varsIgnorePattern: '^_', argsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
    },
  },
  {
    files: ['{server,demo,bench}/**/*.ts'],
    plugins: { models: { rules: { 'no-model-spread': noModelSpread } } },
    rules: { 'models/no-model-spread': 'error' },
  },
  ...oneWay,
  ...upwards,
  {
    files: ['server/**/*.ts'],
    ignores: ['server/foreignText/**', '**/*.test.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [
            ['@core/transcript/formats', ['readTranscript']],
            ['@core/transcript/draft', ['readDraft']],
            ['@core/chapters/json', ['chaptersFault']],
            ['@core/feed/check', ['checkFeed']],
          ].map(([name, importNames]) => ({
            name,
            importNames,
            message: 'What others wrote is read by readText(), in a thread with a limit.',
          })),
        },
      ],
    },
  },
  {
    files: ['server/**/*.ts'],
    ignores: ['server/database/**', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.property.name='transaction']",
          message: 'Use transact(), which tries again where two transactions stand in each other’s way.',
        },
      ],
    },
  },
)
