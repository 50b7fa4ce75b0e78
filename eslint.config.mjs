import jest from 'eslint-plugin-jest';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      'node_modules/**',
      'next-env.d.ts',
      'test-results/**',
      'playwright-report/**',
      'data/**',
      '.mutate/**',
      // The machine's own code is written in another dialect; its compiler looks at it.
      'native/**',
    ],
  },
  ...tseslint.configs.recommended,
  reactHooks.configs.flat.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  { files: ['scripts/**', 'src/cli/**', 'tests/**'], rules: { 'no-console': 'off' } },
  {
    files: ['tests/unit/**'],
    plugins: { jest },
    rules: {
      'jest/no-conditional-expect': 'error',
      'jest/no-focused-tests': 'error',
      'jest/no-disabled-tests': 'error',
    },
  },
);
