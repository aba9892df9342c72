import next from 'eslint-config-next/core-web-vitals';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      '**/node_modules',
      '**/.next',
      '**/next-env.d.ts',
      '**/test-results',
      '**/playwright-report',
      'web/public',
      'web/src/tracking/prepared',
    ],
  },
  ...tseslint.configs.recommended,
  { files: ['web/**/*.{ts,tsx}'], extends: [...next], settings: { next: { rootDir: 'web' } } },
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-console': ['error', { allow: ['error'] }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...['window', 'document', 'process', 'fetch', 'setTimeout', 'performance', 'crypto'].map(
          (name) => ({ name, message: 'The core knows no browser, no server and no clock.' }),
        ),
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'The core uses only randomness it was given.',
        },
        {
          selector: "NewExpression[callee.name='Date'], MemberExpression[object.name='Date']",
          message: 'The core has no clock.',
        },
      ],
    },
  },
  {
    files: [
      'demo/src/gym/seed.ts',
      'demo/src/render/make-*.ts',
      'cli/**',
      'e2e/bench/**',
      'e2e/soak/**',
    ],
    rules: { 'no-console': 'off' },
  },
);
