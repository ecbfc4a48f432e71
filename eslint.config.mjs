import next from 'eslint-config-next/core-web-vitals';
import typescript from 'eslint-config-next/typescript';

const config = [
  {
    ignores: [
      'node_modules/**',
      '.next*/**',
      'dist/**',
      '.data/**',
      'public/**',
      'kernel/**',
      'src/core/signal/kernel-bytes.ts',
      'next-env.d.ts',
    ],
  },
  ...next,
  ...typescript,
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  {
    // The React compiler isn't used, so what it could not optimise is no fault.
    rules: { 'react-hooks/preserve-manual-memoization': 'off' },
  },
  {
    rules: { '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }], eqeqeq: ['error', 'always', { null: 'ignore' }] },
  },
  {
    files: ['src/app/**', 'src/server/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name='request'][callee.property.name=/^(json|text|formData|arrayBuffer|blob)$/]",
          message: 'Read bodies through jsonOf (src/server/body.ts), which stops at what a body may hold, or as a stream.',
        },
      ],
    },
  },
];
export default config;
