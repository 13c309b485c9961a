import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

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
    'no-restricted-imports': ['error', {
      patterns: closed.map(other => ({
        regex: `^(@${other}(/|$)|(\\.\\./)+${other}/)`,
        message: `${room}/ must not import ${other}/ (see docs/decisions/rooms.md).`,
      })),
    }],
  },
}))

export default ts.config(
  { ignores: ['dist/', '.run/', 'node_modules/'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/essential'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      'vue/multi-word-component-names': 'off', '@typescript-eslint/no-explicit-any': 'error',
    },
  },
  ...oneWay,
  {
    files: ['server/**/*.ts'],
    ignores: ['server/database/**', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': ['error', {
        selector: "CallExpression[callee.property.name='transaction']",
        message: 'Use transact(), which tries again where two transactions stand in each other’s way.',
      }],
    },
  },
)
