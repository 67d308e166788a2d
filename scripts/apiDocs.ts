import { readFileSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import type { ObjectSchema, SchemaObjectDescription } from 'yup'
import { schoolsApi } from '../core/acclimation/schools.api'
import { auditApi } from '../core/audit/audit.api'
import { benchApi } from '../core/bench/bench.api'
import { choresApi } from '../core/chores/chores.api'
import { handoverApi } from '../core/handover/handover.api'
import { kitchenApi } from '../core/kitchen/kitchen.api'
import type { AnyDeclared, Api } from '../core/commands/declare'
import { eventsApi } from '../core/commands/events.api'
import { contactsApi } from '../core/contacts/contacts.api'
import { cratesApi, deliveryApi, evidenceApi, mailboxApi } from '../core/crates/crates.api'
import { calendarApi } from '../core/due/calendar.api'
import { dueApi } from '../core/due/due.api'
import { findApi } from '../core/find/find.api'
import { keepingApi } from '../core/keeping/keeping.api'
import { ledgerApi } from '../core/ledger/ledger.api'
import { salesApi } from '../core/sales/sales.api'
import { stocktakeApi } from '../core/stocktake/stocktake.api'
import { limitsApi } from '../core/limits/limits.api'
import { introductionsApi } from '../core/moves/introductions.api'
import { glassApi } from '../core/room/glass.api'
import { probesApi } from '../core/probes/probes.api'
import { holdsApi } from '../core/holds/holds.api'
import { regimensApi } from '../core/regimens/regimens.api'
import { outcomesApi } from '../core/outcomes/outcomes.api'
import { plansApi } from '../core/plans/plans.api'
import { movesApi } from '../core/moves/moves.api'
import { placingApi } from '../core/placing/placing.api'
import { roomApi } from '../core/room/room.api'
import { roundsApi } from '../core/rounds/rounds.api'
import { registerNames } from '../core/setup/registers'
import { bookApi, registerApi } from '../core/setup/setup.api'
import { doorApi } from '../core/staff/door.api'
import { staffApi } from '../core/staff/staff.api'
import { todayApi } from '../core/today/today.api'

// docs/api.md, the part between its two marks: every route as it is declared. `npm run docs` writes it, and a test holds
// that it was.

const of = (register: string): Api => Object.fromEntries(Object.entries(registerApi(register as 'zones')).map(([does, declared]) => [does, { ...declared, path: declared.path.replace(register, ':register') }])) as Api

/** What is declared, in the order in which somebody would look for it, and the file that its words stand in. */
const parts: [title: string, file: string, ...apis: Api[]][] = [
  ['Opening a device', 'core/staff/door.api.ts', doorApi],
  ['People, devices, the room', 'core/staff/staff.api.ts', staffApi],
  ['Changes', 'core/commands/events.api.ts', eventsApi],
  ['Today', 'core/today/today.api.ts', todayApi],
  ['What is due', 'core/due/due.api.ts', dueApi],
  ['What is due, in a calendar', 'core/due/calendar.api.ts', calendarApi],
  ['Crates', 'core/crates/crates.api.ts', cratesApi, deliveryApi, evidenceApi, mailboxApi],
  ['Bench', 'core/bench/bench.api.ts', benchApi],
  ['Room', 'core/room/room.api.ts', roomApi],
  ['Fish', 'core/ledger/ledger.api.ts', ledgerApi],
  ['Stocktake', 'core/stocktake/stocktake.api.ts', stocktakeApi],
  ['Sales', 'core/sales/sales.api.ts', salesApi],
  ['Moves, catching, buckets and boxes', 'core/moves/moves.api.ts', movesApi],
  ['Introductions', 'core/moves/introductions.api.ts', introductionsApi],
  ['Tanks', 'core/room/glass.api.ts', glassApi],
  ['Holds', 'core/holds/holds.api.ts', holdsApi],
  ['Regimens', 'core/regimens/regimens.api.ts', regimensApi],
  ['Outcomes', 'core/outcomes/outcomes.api.ts', outcomesApi],
  ['Plans', 'core/plans/plans.api.ts', plansApi],
  ['Contacts', 'core/contacts/contacts.api.ts', contactsApi],
  ['Rescues', 'core/placing/placing.api.ts', placingApi],
  ['Rounds', 'core/rounds/rounds.api.ts', roundsApi],
  ['Work at tanks', 'core/chores/chores.api.ts', choresApi],
  ['Probes in tanks', 'core/probes/probes.api.ts', probesApi],
  ['Handover', 'core/handover/handover.api.ts', handoverApi],
  ['Feed kitchen', 'core/kitchen/kitchen.api.ts', kitchenApi],
  ['Lists that a lead keeps (zones, toolSets, systems, tanks, vessels, suppliers, sources, species, foods, agents)', 'core/setup/setup.api.ts', of('zones'), bookApi],
  ['House limits', 'core/limits/limits.api.ts', limitsApi],
  ['Schools', 'core/acclimation/schools.api.ts', schoolsApi],
  ['Finding', 'core/find/find.api.ts', findApi],
  ['Audit', 'core/audit/audit.api.ts', auditApi],
  ['Keeping copies', 'core/keeping/keeping.api.ts', keepingApi],
]
const [begin, end] = ['<!-- routes: made of the declarations by npm run docs -->', '<!-- end of routes -->']
const root = resolve(import.meta.dirname, '..')

/** What is said above a declaration, by its name. */
const wordsIn = (file: string): Map<string, string> => new Map([...readFileSync(join(root, file), 'utf8').matchAll(/\/\*\* (.+?) \*\/\n +(\w+): (?:command|read|plain)\(/g)].map(([, words = '', name = '']) => [name, words]))

function fieldsOf(schema: unknown): string[] {
  const { fields = {} } = (schema as ObjectSchema<object>).describe() as SchemaObjectDescription
  return Object.entries(fields).map(([name, field]) => ('optional' in field && field.optional ? `${name}?` : name))
}

/** Whatever is asked of it by name is that name: what a command touches is written with the names of its address. */
const named = new Proxy({}, { get: (_, name) => `:${String(name)}` }) as never

function row(declared: AnyDeclared, words = ''): string {
  const query = declared.kind === 'read' && declared.query ? fieldsOf(declared.query).map((name) => `${name.replace('?', '')}=`) : []
  const body = declared.kind === 'command' ? fieldsOf(declared.schema).join(', ') : ''
  const touches = declared.kind === 'command' ? declared.touches(named, named).join(', ').replaceAll('::', ':') : ''
  return `| ${declared.method.toUpperCase()} | \`${declared.path}${query.length > 0 ? `?${query.join('&')}` : ''}\` | ${declared.access === 'public' ? 'anybody' : declared.access} | ${[body, words].filter(Boolean).join('. ')} | ${touches} |`
}

/** Every declared route, each list by its own name. */
export const declaredRoutes = (): string[] => [...parts.flatMap(([title, , ...apis]) => (title.startsWith('Lists') ? [bookApi] : apis)), ...registerNames.map(registerApi)].flatMap((api) => Object.values(api).map(({ method, path }: AnyDeclared) => `${method} ${path}`))

/** The routes as a table for each part. */
export function routesTable(): string {
  return parts.map(([title, file, ...apis]) => {
    const words = wordsIn(file)
    const rows = apis.flatMap((api) => Object.entries(api).map(([name, declared]) => row(declared, words.get(name))))
    return [`### ${title}`, '', '| | address | who | body; what | touches |', '| --- | --- | --- | --- | --- |', ...rows].join('\n')
  }).join('\n\n')
}

/** The whole document with its routes made anew. */
export function withRoutes(text: string): string {
  const [before, rest = ''] = text.split(begin)
  return `${before}${begin}\n\n${routesTable()}\n\n${end}${rest.split(end)[1] ?? ''}`
}

export const apiFile = join(root, 'docs/api.md')
if (process.argv[1] === import.meta.filename) writeFileSync(apiFile, withRoutes(readFileSync(apiFile, 'utf8')))
