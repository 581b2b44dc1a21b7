import next from '@next/eslint-plugin-next';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      '.next-test/**',
      'node_modules/**',
      '.data/**',
      'next-env.d.ts',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  ...tseslint.configs.strictTypeChecked,
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowBoolean: true }],
      '@typescript-eslint/no-confusing-void-expression': [
        'error',
        { ignoreArrowShorthand: true, ignoreVoidReturningFunctions: true },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
      // `as number` after a check that the type cannot express is clearer than a non-null bang.
      '@typescript-eslint/non-nullable-type-assertion-style': 'off',
      // There are no enums: these two ask for the type of nearly everything to find one.
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-unsafe-enum-comparison': 'off',
      'no-restricted-syntax': ['error', { selector: 'TSEnumDeclaration', message: 'A union of texts says the same.' }],
    },
  },
  {
    // Where there are components and hooks: compiling all else to look for them took a minute.
    files: ['{ui,app}/**/*.{ts,tsx}'],
    plugins: { '@next/next': next, 'react-hooks': hooks },
    rules: {
      ...next.configs.recommended.rules,
      ...next.configs['core-web-vitals'].rules,
      ...hooks.configs.recommended.rules,
    },
  },
  {
    files: ['{ui,app}/**/*.{ts,tsx}'],
    ignores: ['ui/kit/link.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        { paths: [{ name: 'next/link', message: 'ui/kit/link.tsx: it fetches nothing ahead.' }] },
      ],
    },
  },
  {
    files: ['**/*.test.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off', '@typescript-eslint/no-misused-spread': 'off' },
  },
  { files: ['**/*.{mjs,cjs,js}'], ...tseslint.configs.disableTypeChecked },
);
