import next from 'eslint-config-next/core-web-vitals';
import boundaries from 'eslint-plugin-boundaries';
import tseslint from 'typescript-eslint';

/** The rooms of the house, and which may look into which. Nothing looks upwards. */
const ROOMS = [
  { type: 'core', pattern: 'core/src' },
  { type: 'cli', pattern: 'cli/src' },
  { type: 'demo', pattern: 'demo' },
  { type: 'data', pattern: 'web/src/data' },
  { type: 'video', pattern: 'web/src/video' },
  { type: 'tracking', pattern: 'web/src/tracking' },
  { type: 'ui', pattern: 'web/src/ui' },
  { type: 'screens', pattern: 'web/src/screens' },
  { type: 'app', pattern: 'web/src/app' },
  { type: 'e2e', pattern: 'e2e' },
  { type: 'tests', pattern: ['core/test', 'web/test', 'cli/test'] },
];
const MAY_IMPORT = {
  core: ['core'],
  cli: ['cli', 'core'],
  video: ['video', 'core'],
  tracking: ['tracking', 'video', 'core'],
  data: ['data', 'video', 'tracking', 'core'],
  ui: ['ui', 'core'],
  screens: ['screens', 'ui', 'video', 'tracking', 'data', 'core'],
  app: ['app', 'screens', 'ui', 'video', 'tracking', 'data', 'core'],
  demo: ['demo', 'data', 'video', 'tracking', 'core'],
  e2e: ['e2e', 'demo', 'data', 'tracking', 'core'],
  tests: ['tests', 'core', 'demo', 'data', 'video', 'tracking', 'ui', 'screens', 'app', 'cli'],
};

/** The stages of the core in the order of the data; a stage may not know those behind it. */
const STAGES = [
  ['signal', 'geometry', 'uncertainty', 'body', 'reading', 'sound', 'calendar'],
  ['technique'],
  ['school', 'audit', 'drill'],
  ['footage', 'take'],
  ['track'],
  ['calibration'],
  ['motion'],
  ['events'],
  ['chain'],
  ['measures'],
  ['simulate'],
  ['fault'],
  ['cost', 'library'],
  ['work', 'swing'],
  ['progress'],
];
const stagesAfter = (index) => STAGES.slice(index + 1).flat();

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
    plugins: { boundaries },
    settings: {
      'boundaries/elements': ROOMS.map((room) => ({ ...room, mode: 'folder' })),
      'boundaries/include': ['{core,cli,demo,web,e2e}/**/*.{ts,tsx}'],
      'import/resolver': { typescript: { project: ['web/tsconfig.json', 'core/tsconfig.json'] } },
    },
    rules: {
      'boundaries/element-types': [
        'error',
        {
          default: 'disallow',
          rules: Object.entries(MAY_IMPORT).map(([from, allow]) => ({ from, allow })),
        },
      ],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-console': ['error', { allow: ['error'] }],
      eqeqeq: 'error',
    },
  },
  ...STAGES.slice(0, -1).flatMap((stages, index) =>
    stages.map((stage) => ({
      files: [`core/src/${stage}/**/*.ts`],
      rules: {
        'no-restricted-imports': [
          'error',
          {
            patterns: [
              {
                group: stagesAfter(index).map((later) => `**/${later}/*`),
                message: 'A stage of the core does not know the stages behind it.',
              },
            ],
          },
        ],
      },
    })),
  ),
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
    files: ['demo/src/gym/seed.ts', 'demo/src/render/make-*.ts', 'cli/**', 'e2e/bench/**'],
    rules: { 'no-console': 'off' },
  },
);
