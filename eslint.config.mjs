import js from '@eslint/js';
import accessibility from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';
import tseslint from 'typescript-eslint';

const isomorphic = ['folio', 'compose', 'structure', 'motion', 'check', 'language', 'edit', 'api', 'paint/svg'].map(
  (f) => `core/src/${f}/**/*.ts`,
);

export default tseslint.config(
  { ignores: ['**/node_modules', 'dist', 'data', 'test-results'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      eqeqeq: ['error', 'always'],
      'no-console': 'off',
    },
  },
  {
    // What comes in may be written to be slow: no expression takes more than linear time.
    files: ['{core,server,cli,web,player}/src/**/*.{ts,tsx}'],
    plugins: { regexp },
    rules: { 'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }], 'regexp/no-super-linear-move': 'error' },
  },
  {
    // Lists out of files may be longer than a call takes arguments.
    files: ['core/src/read/**/*.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'CallExpression[callee.property.name=/^(push|unshift)$/] > SpreadElement', message: 'Put them in one by one.' },
        { selector: 'CallExpression[callee.object.name="Math"] > SpreadElement', message: 'Go through them one by one.' },
      ],
    },
  },
  {
    files: ['**/*.mjs', '**/*.cjs'],
    languageOptions: { globals: { process: 'readonly', console: 'readonly', module: 'writable', URL: 'readonly', setTimeout: 'readonly' } },
  },
  {
    files: isomorphic,
    rules: {
      'no-restricted-imports': ['error', { patterns: [{ group: ['node:*'], message: 'This part of the core also runs in a browser.' }] }],
      'no-restricted-globals': ['error', 'process', 'Buffer', 'window', 'document'],
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks, 'jsx-a11y': accessibility },
    rules: {
      ...accessibility.flatConfigs.recommended.rules,
      // Fields of Ant Design stand in their labels, at any depth.
      'jsx-a11y/label-has-associated-control': [
        'error',
        {
          controlComponents: [
            'AutoComplete',
            'Checkbox',
            'ColorPicker',
            'DatePicker',
            'Draft*',
            'Input*',
            'LanguageTag',
            'Select',
            'Slider',
            'Switch',
            'TextArea',
          ],
          depth: 5,
        },
      ],
      // What scrolls can be reached with the keyboard (WCAG 2.2, 2.1.1).
      'jsx-a11y/no-noninteractive-tabindex': ['error', { tags: [], roles: ['tabpanel', 'region'] }],
      // What is opened to be typed into has the focus (WAI-ARIA Authoring Practices, dialogs).
      'jsx-a11y/no-autofocus': ['error', { ignoreNonDOM: true }],
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
    },
  },
);
