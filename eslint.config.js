import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** Math functions whose last bit may differ between engines; where pixels are decided, our own stand in for them. */
const ENGINE_MATH = [
  'sin',
  'cos',
  'tan',
  'asin',
  'acos',
  'atan',
  'atan2',
  'sinh',
  'cosh',
  'tanh',
  'exp',
  'expm1',
  'log',
  'log2',
  'log10',
  'log1p',
  'pow',
  'cbrt',
  'hypot',
];
const ownMathOnly = {
  'no-restricted-properties': [
    'error',
    ...ENGINE_MATH.map(property => ({ object: 'Math', property, message: 'Use number/trig.ts here: this decides pixels.' })),
  ],
};
const noChance = {
  'no-restricted-syntax': [
    'error',
    {
      selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
      message: 'The core is repeatable: use number/random.ts.',
    },
    { selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'The core reads no clock.' },
    { selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']", message: 'The core reads no clock.' },
  ],
};
/** Arrows go one way: what a part may not import. */
const arrows = (...forbidden) => ({
  'no-restricted-imports': [
    'error',
    {
      patterns: forbidden.map(group => ({
        group: [group, `${group}/**`],
        message: 'This arrow goes the wrong way; see docs/architecture.md.',
      })),
    },
  ],
});

export default tseslint.config(
  {
    ignores: [
      '**/dist/',
      '**/node_modules/',
      '**/.angular/',
      'packages/kernels/assembly/',
      '.zinc/',
      'bench/out/',
      'e2e/out/',
      'apps/server/drizzle/',
    ],
  },
  ...tseslint.configs.recommended.map(c => ({ ...c, files: ['**/*.ts'] })),
  {
    files: ['**/*.ts'],
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      'prefer-const': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', destructuredArrayIgnorePattern: '^_' },
      ],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
    },
  },
  {
    files: ['packages/core/src/**'],
    ignores: ['**/*.spec.ts'],
    rules: { ...arrows('@zinc/contract', '@zinc/scenes', 'node:*', '@angular/*', '**/apps'), ...noChance },
  },
  {
    files: ['packages/kernels/src/**'],
    ignores: ['**/*.spec.ts'],
    rules: { ...arrows('@zinc/*', 'node:*', '@angular/*', '**/apps'), ...noChance, ...ownMathOnly },
  },
  {
    files: ['packages/core/src/{paint,image,number,colour,measure,drift,mix}/**', 'packages/scenes/src/**'],
    ignores: ['**/*.spec.ts', '**/deltaE.ts'],
    rules: ownMathOnly,
  },
  {
    files: ['packages/scenes/src/**'],
    ignores: ['**/*.spec.ts'],
    rules: { ...arrows('@zinc/contract', 'node:*', '@angular/*', '**/apps'), ...noChance },
  },
  {
    files: ['packages/contract/src/**'],
    ignores: ['**/*.spec.ts'],
    rules: arrows('@zinc/scenes', 'node:*', '@angular/*', '**/apps'),
  },
  { files: ['apps/press/src/**'], rules: arrows('**/server', '**/web') },
  { files: ['apps/server/src/**'], rules: arrows('@zinc/scenes', '**/press/src', '**/web') },
  // Photographs of the demo house are made up by our own code.
  { files: ['apps/server/src/demo/photoWorker.ts'], rules: arrows('**/press/src', '**/web') },
  {
    files: ['apps/web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      ...arrows('node:*', '**/server', '**/press'),
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'zs', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@angular-eslint/no-output-native': 'off',
      '@angular-eslint/component-class-suffix': 'off',
    },
  },
  { files: ['apps/web/src/**/*.html'], extends: [...angular.configs.templateRecommended] },
  { files: ['apps/web/src/**/*.spec.ts', 'scripts/**', 'bench/**', 'apps/web/src/main.ts'], rules: { 'no-console': 'off' } },
);
