import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist/**', 'node_modules/**', '.data/**', 'test-results/**', 'coverage/**', '*.cjs'] },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error', 'log'] }],
    },
  },
  {
    // Nothing else knows of React; a compiler goes over every file for these.
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      // The measured pattern: refs hold canvases and timers, and effects answer to the size of the room.
      'react-hooks/refs': 'off',
      'react-hooks/set-state-in-effect': 'off',
    },
  },
  {
    files: ['**/*.test.{ts,tsx}', '**/*.spec.ts', 'e2e/**'],
    rules: { '@typescript-eslint/no-explicit-any': 'off' },
  },
);
