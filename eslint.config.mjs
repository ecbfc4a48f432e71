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
    // What is said is an object until it is put into a language: in a template it would read "[object Object]".
    files: ['src/**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true, allowNever: true, allowArray: true, allowAny: true },
      ],
      // A form's field is a text or a file; ours are texts.
      '@typescript-eslint/no-base-to-string': ['error', { ignoredTypeNames: ['File'] }],
    },
  },
  {
    // What the React compiler can't keep of hand-written memos it leaves as they are: no fault.
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
