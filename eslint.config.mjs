import pluginVue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'
import vueParser from 'vue-eslint-parser'

/** What core may not touch: it runs in page, worker, server and test alike. */
const PLATFORM_GLOBALS = [
  'window',
  'document',
  'navigator',
  'localStorage',
  'fetch',
  'process',
  'Buffer',
  'require',
  'setTimeout',
  'performance',
]

export default tseslint.config(
  {
    ignores: ['**/dist/**', '**/node_modules/**', '.data/**', 'test-results/**', '**/*.cjs'],
  },
  {
    files: ['**/*.ts', '**/*.vue'],
    extends: [...tseslint.configs.strict, ...pluginVue.configs['flat/recommended']],
    languageOptions: {
      parser: vueParser,
      parserOptions: { parser: tseslint.parser, sourceType: 'module' },
    },
    rules: {
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false },
      ],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      'no-console': 'error',
      eqeqeq: 'error',
      // Layout is the formatter's business.
      'vue/html-indent': 'off',
      'vue/html-self-closing': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/component-api-style': ['error', ['script-setup']],
      'vue/define-emits-declaration': 'error',
      'vue/no-unused-refs': 'error',
      'vue/no-v-html': 'error',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', ...PLATFORM_GLOBALS],
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ['bench/**/*.ts', 'fuzz/**/*.ts', 'scripts/**/*.ts', 'cli/**/*.ts'],
    rules: { 'no-console': 'off' },
  },
)
