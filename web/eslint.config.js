import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript'
import imports from 'eslint-plugin-import-x'
import access from 'eslint-plugin-jsx-a11y-x'
import hooks from 'eslint-plugin-react-hooks'
import { readdirSync } from 'node:fs'
import tseslint from 'typescript-eslint'

const FEATURES = readdirSync(new URL('./src/features', import.meta.url))

export default tseslint.config(
  { ignores: ['dist', 'node_modules', 'src/api/schema.d.ts', '*.config.*', 'faults.mjs'] },
  ...tseslint.configs.strictTypeChecked,
  access.configs.strict,
  {
    files: ['src/**/*.{ts,tsx}'],
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    plugins: { 'react-hooks': hooks, 'import-x': imports },
    settings: { 'import-x/resolver-next': [createTypeScriptImportResolver()] },
    rules: {
      ...hooks.configs.recommended.rules,
      'import-x/no-cycle': 'error',
      // A dialog that was opened, and a field that took the place of a button, are where one wants to be.
      'jsx-a11y-x/no-autofocus': ['error', { ignoreNonDOM: true }],
      // A screen knows what all screens share, and no other screen.
      'import-x/no-restricted-paths': [
        'error',
        {
          zones: [
            ...FEATURES.map((feature) => ({
              target: `./src/features/${feature}`,
              from: './src/features',
              except: [`./${feature}`],
            })),
            { target: './src/common', from: './src/features' },
            { target: './src/theme', from: ['./src/features', './src/common'] },
            { target: './src/figure', from: ['./src/features', './src/common', './src/theme'] },
            { target: './src/api', from: ['./src/features', './src/common', './src/app'] },
          ],
        },
      ],
    },
  },
)
