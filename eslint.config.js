import vue from 'eslint-plugin-vue';
import typescript from 'typescript-eslint';

/** Imports go one way: web, server, cli → contract, mail → core. */
const only = (files, ...forbidden) => ({
  files: [`${files}/src/**`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: forbidden.map((name) => ({
          group: [`@vocabula/${name}`, `@vocabula/${name}/*`],
          message: `${files} does not import ${name}.`,
        })),
      },
    ],
  },
});

/** What went wrong is told by a code and its fields; words are for people, and are made last. */
const WORDS_ARE_FOR_PEOPLE = [
  {
    selector:
      "CallExpression[callee.property.name=/^(includes|startsWith|endsWith|match|indexOf|search)$/][callee.object.property.name='message']",
    message: 'Ask for a code or a field, not for words of a message.',
  },
  {
    selector: "CallExpression[callee.property.name=/^(test|exec)$/][arguments.0.property.name='message']",
    message: 'Ask for a code or a field, not for words of a message.',
  },
];

export default typescript.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'data/**'] },
  ...typescript.configs.recommended,
  ...vue.configs['flat/essential'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: typescript.parser } } },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unused-expressions': 'off',
      'vue/multi-word-component-names': 'off',
      // A component that is not imported shows nothing, without any error.
      'vue/no-undef-components': ['error', { ignorePatterns: ['RouterLink', 'RouterView'] }],
      'vue/no-undef-directives': 'error',
    },
  },
  {
    files: ['*/src/**'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-syntax': ['error', ...WORDS_ARE_FOR_PEOPLE] },
  },
  {
    // A longer function says in a comment why it is one.
    files: ['*/src/**'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    rules: { 'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }] },
  },
  {
    // A composable is a scope rather than a function: small functions that share its state.
    files: ['web/src/**/use*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 100, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['server/src/**'],
    ignores: ['**/*.test.ts', 'server/src/http/**', 'server/src/db/schema/json.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        {
          object: 'JSON',
          property: 'parse',
          message: 'A column of JSON is decoded by its schema; see db/schema/json.ts.',
        },
      ],
    },
  },
  only('core', 'contract', 'mail', 'server', 'web', 'cli'),
  only('contract', 'mail', 'server', 'web', 'cli'),
  only('mail', 'server', 'web', 'cli'),
  only('web', 'mail', 'server', 'cli'),
  {
    files: ['web/src/**'],
    ignores: ['**/*.test.ts', '**/testing/**'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: '@vocabula/contract',
              allowTypeImports: true,
              message: 'Pages take types from the contract, and values from its constants: schemas are large.',
            },
          ],
        },
      ],
    },
  },
  only('server', 'web', 'cli'),
  only('cli', 'web', 'server'),
);
