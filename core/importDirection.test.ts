import { execFile } from 'node:child_process'
import { promisify } from 'node:util'
import { beforeAll, expect, test } from '@jest/globals'

type Case = readonly [file: string, text: string, rule: string | null]
const use = (what: string, from: string): string => `import { ${what} } from '${from}'\nexport const used = ${what}\n`

// Canaries: a linter that resolves nothing passes everything in silence.
const cases: Case[] = [
  ['core/crates/canary.ts', use('openDatabase', '../../server/db/open'), 'boundaries/dependencies'],
  ['core/crates/canary.ts', use('readFileSync', 'node:fs'), 'boundaries/dependencies'],
  ['core/crates/canary.ts', use('Router', 'express'), 'boundaries/dependencies'],
  ['core/crates/canary.ts', 'export const at = Date.now()\n', 'no-restricted-syntax'],
  ['web/crates/canary.ts', use('useRoom', '../room/useRoom'), 'boundaries/dependencies'],
  ['web/ui/canary.ts', use('useCrates', '../crates/useCrates'), 'boundaries/dependencies'],
  ['web/crates/canary.ts', use('newId', '../../server/newId'), 'boundaries/dependencies'],
  ['server/crates/canary.ts', use('formatSpan', '../../web/ui/format'), 'boundaries/dependencies'],
  ['e2e/canary.ts', use('signs', '../core/rounds/rounds.schema'), 'boundaries/dependencies'],
  ['web/crates/Canary.tsx', use('useRead', '../api/useRead'), 'no-restricted-imports'],
  ['web/crates/Canary.tsx', use('useWrite', '../api/useOutbox'), 'no-restricted-imports'],
  ['web/crates/Canary.tsx', use('mutate', 'swr'), 'no-restricted-imports'],
  ['web/crates/Canary.tsx', 'export const Own = () => <button type="button">press</button>\n', 'no-restricted-syntax'],
  ['web/crates/useCanary.ts', use('useRead', '../api/useRead'), null],
  ['web/ui/Canary.tsx', 'export const Own = () => <button type="button">press</button>\n', null],
  ['core/crates/canary.ts', use('object', 'yup'), null],
  ['web/crates/canary.ts', use('useCrates', './useCrates'), null],
  ['web/crates/canary.ts', use('formatSpan', '../ui/format'), null],
  ['server/crates/canary.ts', use('totalBags', '../../core/crates/crateView'), null],
]

// ESLint's configuration is an ES module, so it runs in a process of its own, once for all cases.
let objections: string[][]
beforeAll(async () => {
  const script = `import { ESLint } from 'eslint'
    const linter = new ESLint()
    const found = []
    for (const [filePath, text] of JSON.parse(process.argv[1])) found.push((await linter.lintText(text, { filePath }))[0].messages.map((message) => message.ruleId))
    console.log(JSON.stringify(found))`
  const { stdout } = await promisify(execFile)(process.execPath, ['--input-type=module', '-e', script, JSON.stringify(cases)])
  objections = JSON.parse(stdout) as string[][]
})

test.each(cases.map(([file, text, rule], index) => ({ name: `${file} ${rule ? 'may not' : 'may'}: ${text.split('\n')[0]}`, rule, index })))('$name', ({ rule, index }) => {
  if (rule) expect(objections[index]).toContain(rule)
  else expect(objections[index]).toEqual([])
})
