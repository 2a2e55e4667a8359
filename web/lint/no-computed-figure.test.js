import { RuleTester } from 'eslint'
import tseslint from 'typescript-eslint'
import { describe, it } from 'vitest'
import { noComputedFigure } from './no-computed-figure.js'

RuleTester.describe = describe
RuleTester.it = it

const tester = new RuleTester({
  languageOptions: { parser: tseslint.parser, parserOptions: { ecmaFeatures: { jsx: true } } },
})
const computed = [{ messageId: 'computed' }]
const rounded = [{ messageId: 'rounded' }]

tester.run('no-computed-figure', noComputedFigure, {
  valid: [
    { name: 'words of the core', code: 'const it = <b>{line.amount_words}</b>' },
    { name: 'a number of the core', code: 'const it = <b>{`${way.of_100} of 100`}</b>' },
    { name: 'a place of a drawing', code: 'const it = <circle cx={x * scale} d={`M${x * 2} ${y / 3}`} />' },
    { name: 'a place by a name', code: 'const far = x * 2\nconst it = <path d={`M${far}`} />' },
    {
      name: 'a place by a function',
      code: 'const at = (p) => p * 100\nconst it = <i style={{ left: at(p) }} />',
    },
    {
      name: 'what stands on the page is counted',
      code: 'const it = <b>{all.length - shown.length} more</b>',
    },
    { name: 'which of them it is', code: 'const it = <b>{at + 1}</b>' },
    { name: 'the least of some', code: 'const it = <b>{Math.min(done, planned)}</b>' },
    { name: 'what only decides', code: 'const it = <b>{x * 2 > 3 ? "hot" : "cold"}</b>' },
  ],
  invalid: [
    { name: 'a share', code: 'const it = <b>{odds * 100} of 100</b>', errors: computed },
    { name: 'rounded', code: 'const it = <b>{Math.round(odds)}</b>', errors: computed },
    { name: 'what is left', code: 'const it = <b>{planned - laid}</b>', errors: computed },
    { name: 'in a template', code: 'const it = <b>{`${odds * 100} of 100`}</b>', errors: computed },
    { name: 'in a choice', code: 'const it = <b>{known ? odds * 100 : ""}</b>', errors: computed },
    { name: 'where it is known', code: 'const it = <b>{known && odds * 100}</b>', errors: computed },
    { name: 'by a name', code: 'const all = one * 2\nconst it = <b>{all}</b>', errors: computed },
    {
      name: 'by a function',
      code: 'const share = (of) => of * 100\nconst it = <b>{share(odds)}</b>',
      errors: computed,
    },
    {
      name: 'by a function with a body',
      code: 'function share(of) { return String(of * 100) }\nconst it = <b>{share(odds)}</b>',
      errors: computed,
    },
    {
      name: 'in what is heard',
      code: 'const it = <b aria-label={`${odds * 100} of 100`} />',
      errors: computed,
    },
    {
      name: 'in what stands in a field',
      code: 'const it = <Box placeholder={minutes / 60} />',
      errors: computed,
    },
    { name: 'decimals', code: 'const money = (amount) => amount.toFixed(2)', errors: rounded },
    { name: 'of a place', code: 'const it = `${n.toLocaleString()} kg`', errors: rounded },
    { name: 'a day', code: 'const day = new Intl.DateTimeFormat("en")', errors: rounded },
    {
      name: 'put into words for another file',
      code: 'export const said = (minutes) => `${Math.floor(minutes / 60)} h`',
      errors: computed,
    },
  ],
})
