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
];
export default config;
