import ts from 'typescript-eslint'

/** Rules that ask types. A promise that nobody waits for fails unheard. */
export default [
  {
    files: ['src/**/*.ts', '.scripts/**/*.ts'],
    linterOptions: { reportUnusedDisableDirectives: 'off' }, // they are of the other rules
    languageOptions: {
      parser: ts.parser,
      parserOptions: { project: '.scripts/tsconfig.json', tsconfigRootDir: import.meta.dirname },
    },
    plugins: { '@typescript-eslint': ts.plugin },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
      '@typescript-eslint/await-thenable': 'error',
    },
  },
]
