import js from '@eslint/js'
import hooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['**/dist/', '**/node_modules/', '.data/', '.test/', '.mutate/', 'test-results/'] },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-console': 'error',
    },
  },
  {
    files: ['scripts/**', 'server/tests/*.mjs', 'demo/generate.ts', '*.config.*'],
    rules: { 'no-console': 'off' },
    languageOptions: { globals: globals.node },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'Date', 'performance', 'fetch'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random' }],
    },
  },
  {
    files: ['{core,contract,server,web,demo,rig,scripts}/**/*.{ts,tsx,mjs}'],
    ignores: ['**/*.test.{ts,tsx}', '**/tests/**', '**/*.fixture.ts'],
    rules: {
      // Sentences and class names stay whole, so that they can be searched for.
      'max-len': [
        'error',
        { code: 120, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: 'ConditionalExpression > ConditionalExpression > ConditionalExpression',
          message: 'Conditions in conditions go two deep at most: name the cases.',
        },
      ],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  { files: ['**/*.test.ts', 'e2e/**'], rules: { '@typescript-eslint/no-non-null-assertion': 'off' } },
  {
    files: ['web/public/*.js'],
    languageOptions: { globals: { ...globals.browser, ...globals.serviceworker } },
  },
  {
    files: ['**/*.cjs'],
    languageOptions: { globals: globals.node },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
)
