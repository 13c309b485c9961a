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

/** Attributes that are read by somebody: on the screen, or out loud. */
const readAttributes = [
  'title',
  'alt',
  'placeholder',
  'aria-label',
  'aria-description',
  'aria-valuetext',
  'label',
  'hint',
  'header',
  'heading',
  'tip',
  'add',
  'without',
  'words',
  'what',
  'about',
  'selected-items-label',
  'empty-search-message',
]

/** Signs that mean the same in every language, and keys. */
const allowed = [...'·:,.“”()…×?–→↑↓/', 'https://', 'Alt C', 'Ctrl K', 'UTC']

const closed = room =>
  rooms[room.split('/')[0]].map(other => ({
    regex: `^(@${other}(/|$)|(\\.\\./)+${other}/)`,
    message: `${room}/ must not import ${other}/ (see docs/decisions/rooms.md).`,
  }))

const oneWay = Object.keys(rooms).map(room => ({
  files: [`${room}/**/*.{ts,vue}`],
  rules: { 'no-restricted-imports': ['error', { patterns: closed(room) }] },
}))

/**
 * Districts of server and studio and the folders of each: everything imports only what stands before it, so there is no circle
 * among them.
 */
const districts = {
  server: {
    platform: ['deliveries', 'events', 'foreignText', 'http', 'outside', 'database', 'jobs', 'storage'],
    people: ['accounts', 'access'],
    media: ['sound', 'pictures', 'files'],
    show: ['history', 'links', 'shows', 'episodes', 'strands'],
    words: ['transcripts', 'drafting', 'chapters', 'search'],
    production: ['finishing', 'measuring', 'uploads', 'remote', 'shelf', 'soundbites'],
    release: ['mail', 'releases', 'calendar', 'bulkEdits'],
    site: ['comments', 'pages', 'themes', 'ownPages', 'sharing', 'customDomains'],
    feed: ['delivery', 'feeds', 'checking', 'directories', 'listeners', 'preview'],
    numbers: ['counting', 'figures', 'logs', 'weekly'],
    app: ['health', 'clockOffset', 'studio', 'retention'],
    testing: [],
  },
  'web/src': {
    platform: ['messages', 'api', 'theme', 'saving', 'news', 'parts', 'time'],
    people: ['account'],
    show: ['shows', 'history', 'episodes', 'strands'],
    production: ['uploads', 'files', 'shelf', 'sound', 'soundbites'],
    words: ['writing', 'chapters', 'transcripts'],
    feed: ['feeds', 'directories', 'listeners', 'preview'],
    release: ['mail', 'table', 'rhythm', 'releases', 'calendar'],
    site: ['comments', 'themes', 'ownPages', 'sharing', 'customDomains'],
    numbers: ['charts', 'figures'],
    app: ['clockOffset', 'show', 'desk', 'frame'],
  },
}

const upwards = Object.entries(districts).flatMap(([room, floors]) =>
  Object.entries(floors).flatMap(([district, folders], floor) => {
    const rule = (place, ...above) => ({
      files: [`${room}/${place}/**/*.{ts,vue}`],
      ignores: ['**/*.test.ts'],
      rules: {
        'no-restricted-imports': [
          'error',
          {
            patterns: [
              ...closed(room),
              ...above.map(regex => ({
                regex,
                message: `${room}/${place} imports only what stands before it in eslint.config.js.`,
              })),
            ],
          },
        ],
      },
    })
    const districtsAbove = `^(\\.\\./)+(${[...Object.keys(floors).slice(floor + 1), '-'].join('|')})/`
    return [
      rule(district, districtsAbove),
      ...folders.map((folder, at) =>
        rule(`${district}/${folder}`, districtsAbove, `^\\.\\./(${[...folders.slice(at + 1), '-'].join('|')})/`),
      ),
    ]
  }),
)

export default ts.config(
  { ignores: ['dist/', '.run/', 'node_modules/'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/essential'].map(each => ({ files: ['{web,site}/**/*.{ts,vue}'], ...each })),
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
    // What is read stands in messages: the site's are in twelve languages, the studio's are read and changed in one go.
    files: ['site/*.vue', 'web/src/**/*.vue'],
    rules: {
      'vue/no-bare-strings-in-template': [
        'error',
        {
          allowlist: allowed,
          attributes: { '/.+/': readAttributes },
        },
      ],
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
    // This rule asks the compiler for types; the others that do are oxlint's, which is quicker (.oxlintrc.json).
    files: ['{server,demo,bench}/**/*.ts'],
    languageOptions: {
      parserOptions: {
        project: './tsconfig.json',
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
    plugins: { models: { rules: { 'no-model-spread': noModelSpread } } },
    rules: { 'models/no-model-spread': 'error' },
  },
  ...oneWay,
  ...upwards,
  {
    files: ['server/**/*.ts'],
    ignores: ['server/platform/foreignText/**', '**/*.test.ts'],
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
    ignores: ['server/platform/database/**', '**/*.test.ts'],
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
