import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'
import { noComputedFigure } from './lint/no-computed-figure.js'

const radix = { paths: [{ name: 'radix-ui', message: 'Use a part of src/ui.' }] }

/** Which folder may lean on which: what is below knows nothing of what is above it. */
const ORDER = ['api', 'quantity', 'ui', 'job', 'keys', 'stations', 'places']
const above = (folder) => ORDER.slice(ORDER.indexOf(folder) + 1)
const walls = ORDER.slice(0, -1).map((folder) => ({
  // The table of the stations' pages stands beside them.
  files: [folder === 'stations' ? 'src/stations/*/**' : `src/${folder}/**`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        ...(folder === 'ui' ? {} : radix),
        patterns: [
          {
            regex: `^(\\.\\./)+(?!places/table)(${above(folder).join('|')})/`,
            message: `src/${folder} knows nothing of ${above(folder).join(', ')}.`,
          },
          ...(folder === 'stations'
            ? [{ regex: '^\\.\\./[^.]', message: 'A station knows no other: share it in src/job.' }]
            : []),
        ],
      },
    ],
  },
}))

export default tseslint.config(
  { ignores: ['src/api/generated/**'] },
  ...tseslint.configs.strict,
  reactHooks.configs.flat['recommended-latest'] ?? reactHooks.configs['recommended-latest'],
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'error',
      'no-restricted-imports': ['error', radix],
    },
  },
  {
    files: ['src/**'],
    ignores: ['src/**/*.test.{ts,tsx}'],
    rules: { 'max-lines-per-function': ['error', { max: 149 }] },
  },
  {
    files: ['src/**'],
    // What moves with the hand or the clock is put into words there; what only places a line is drawn by the pen.
    ignores: ['src/quantity/**', 'src/ui/pen.ts', 'src/**/*.test.{ts,tsx}'],
    plugins: { vanadin: { rules: { 'no-computed-figure': noComputedFigure } } },
    rules: { 'vanadin/no-computed-figure': 'error' },
  },
  ...walls,
)
