import globals from 'globals'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

/** The calendar stands on date-fns and its companion for time zones; nothing else of core imports a package. */
const calendarOverDateFns = {
  files: ['core/calendar/*.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { regex: '^(?!\\.|date-fns$|@date-fns/tz$)', message: 'The calendar imports date-fns and core only.' },
        ],
      },
    ],
  },
}

/** Imports point inwards: core knows nothing of Vue, Nuxt, Nitro, Node, the database or the other folders. */
const coreStaysPure = {
  files: ['core/**/*.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          // Quantiles are a library's: pure arithmetic, without anything of the world.
          { regex: '^(?!jstat$)[^.]', message: 'core imports only core (relative paths).' },
          { regex: '(^|/)(app|server|shared|cli|tests)/', message: 'core imports only core.' },
        ],
      },
    ],
    'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage', 'useState'],
  },
}

export default ts.config(
  { ignores: ['.nuxt/**', '.output/**', '.data/**', '.cache/**', 'node_modules/**'] },
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      eqeqeq: 'error',
    },
  },
  coreStaysPure,
  calendarOverDateFns,
  prettier,
)
