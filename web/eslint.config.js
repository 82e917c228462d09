import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default ts.config(
  {
    ignores: ['dist/', '.scripts/', 'src/api/schema.d.ts', 'src/api/limits.gen.ts', 'src/device/'],
  },
  js.configs.recommended,
  ts.configs.recommended,
  vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  { rules: { 'no-undef': 'off', 'vue/multi-word-component-names': 'off' } }, // the type checker knows the globals
  prettier,
)
