import angular from 'angular-eslint';
import prettier from 'eslint-config-prettier';
import tseslint from 'typescript-eslint';

/** The core computes; it knows no framework, no host, no clock and no chance. Colour libraries compute too. */
const CORE_PURITY = {
  'no-restricted-imports': [
    'error',
    {
      patterns: [
        {
          group: ['@angular/*', '@ngrx/*', 'rxjs', 'rxjs/*', 'node:*', '@zaffet/*', '**/apps/**'],
          message: 'The core imports itself and colour libraries, nothing else.',
        },
      ],
    },
  ],
  'no-restricted-globals': [
    'error',
    'window',
    'document',
    'navigator',
    'localStorage',
    'fetch',
    'process',
    'performance',
    'setTimeout',
  ],
  'no-restricted-properties': [
    'error',
    { object: 'Math', property: 'random', message: 'Randomness comes from a seed.' },
    { object: 'Date', property: 'now', message: 'Time is an argument.' },
  ],
};

/** What a medium is decides, never what it is called: a painter's own copy of it is the same thing. */
const NO_MEDIUM_KEYS = {
  'no-restricted-syntax': [
    'error',
    ...['[object.name=/^(medium|below|above|media)$/]', "[object.property.name='medium']"].map((of) => ({
      selector: `BinaryExpression[operator=/^[!=]==$/] > MemberExpression[property.name='key']${of}`,
      message: 'Ask for a trait of the medium (isOf), or compare what it is like; a key is only its name.',
    })),
    {
      selector:
        'BinaryExpression[operator=/^[!=]==$/]:has(> Literal[value=/^(milk|pva|hide|crackle|shellac|lacquer|spray|gesso|mineral|texture|clearWax|whiteWax|darkWax|stain|glaze)$/]) > MemberExpression[property.name=/^(key|medium)$/]',
      message: 'Ask for a trait of the medium (isOf); a key is only its name.',
    },
  ],
};

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.angular/**',
      'apps/server/drizzle/**',
      'test-results/**',
      'playwright-report/**',
      'data/**',
    ],
  },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.ts'],
    rules: {
      '@typescript-eslint/explicit-function-return-type': [
        'error',
        { allowExpressions: true, allowTypedFunctionExpressions: true },
      ],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],
      // Types of a library that ships none are declared beside the one file that uses it.
      '@typescript-eslint/triple-slash-reference': ['error', { path: 'always' }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['**/*.mjs', '**/*.cjs', '**/*.js'],
    rules: {
      '@typescript-eslint/explicit-function-return-type': 'off',
      '@typescript-eslint/no-require-imports': 'off',
    },
  },
  {
    files: ['packages/*/src/**/*.ts', 'apps/*/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**'],
    rules: NO_MEDIUM_KEYS,
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/golden.ts'],
    rules: CORE_PURITY,
  },
  {
    files: ['apps/web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'zf', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
    },
  },
  {
    files: ['apps/web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
  },
  prettier,
);
