import js from '@eslint/js';
import angular from 'angular-eslint';
import ts from 'typescript-eslint';

/** Every part by its own configuration of the compiler, with its specs. */
const PROJECTS = [
  'web/tsconfig.spec.json',
  'web/tsconfig.worker.json',
  'server/tsconfig.json',
  'e2e/tsconfig.json',
  'core/tsconfig.spec.json',
  'contract/tsconfig.spec.json',
  'files/tsconfig.json',
  'cli/tsconfig.json',
  'bench/tsconfig.json',
];

export default ts.config(
  { ignores: ['**/dist/', '**/node_modules/', '.data/', '**/.angular/', '**/*.generated.ts', '**/*.d.mts'] },
  {
    files: ['**/*.ts'],
    extends: [js.configs.recommended, ...ts.configs.strict, ...ts.configs.stylistic],
    languageOptions: { parserOptions: { project: PROJECTS, tsconfigRootDir: import.meta.dirname } },
    rules: {
      // With types: a promise that nobody waits for, one where none is expected, a case that was forgotten.
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false, arguments: false } }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      complexity: ['error', 15],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      // An index that a line above has just proved is safe; the strict index check would ask twice.
      '@typescript-eslint/no-non-null-assertion': 'off',
      // Empty callbacks are the documented default of an optional one.
      '@typescript-eslint/no-empty-function': 'off',
      '@typescript-eslint/no-extraneous-class': ['error', { allowWithDecorator: true }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false }],
      // output<void>() and Promise<void> are how the libraries say "nothing".
      '@typescript-eslint/no-invalid-void-type': 'off',
      eqeqeq: 'error',
      'max-lines': ['error', { max: 340, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    // Outside of the compiler's configurations: a page for the bench, built by itself.
    files: ['web/bench/**/*.ts'],
    extends: [ts.configs.disableTypeChecked],
    languageOptions: { parserOptions: { project: null } },
  },
  {
    // Tables of data: one file a joint or a source, as long as it is.
    files: ['core/src/catalogue/**/*.ts', 'core/src/norms/**/*.ts'],
    // A table that is written for both directions of a motion has a branch a cell.
    rules: { 'max-lines': ['error', { max: 700, skipBlankLines: true, skipComments: true }], complexity: 'off' },
  },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'dg', style: 'kebab-case' }],
      '@angular-eslint/directive-selector': ['error', { type: 'attribute', prefix: 'dg', style: 'camelCase' }],
    },
  },
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
  },
  {
    files: ['**/*.mjs'],
    extends: [js.configs.recommended],
    languageOptions: {
      globals: {
        jasmine: 'readonly',
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        Buffer: 'readonly',
        crypto: 'readonly',
        performance: 'readonly',
        clearInterval: 'readonly',
        setInterval: 'readonly',
        clearTimeout: 'readonly',
        setTimeout: 'readonly',
      },
    },
  },
);
