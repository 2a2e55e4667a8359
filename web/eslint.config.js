import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['src/api/generated/**'] },
  ...tseslint.configs.strict,
  reactHooks.configs.flat['recommended-latest'] ?? reactHooks.configs['recommended-latest'],
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'error',
      'no-restricted-imports': ['error', { paths: [{ name: 'radix-ui', message: 'Use a part of src/ui.' }] }],
    },
  },
  { files: ['src/ui/**'], rules: { 'no-restricted-imports': 'off' } },
)
