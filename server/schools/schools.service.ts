import { asc, eq } from 'drizzle-orm'
import { schools as tradeSchools } from '../../core/acclimation/schools'
import { situations, situationWords, type Situation } from '../../core/acclimation/question'
import type { ChooseDefault, DefaultView, EditSchool, HouseSchool, KeepSchool, RetireSchool } from '../../core/acclimation/schools.schema'
import { findNamed } from '../../core/words/nameKey'
import { changesBetween, type AuditStore } from '../audit/audit.store'
import type { Database } from '../db/open'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import { houseDefault, houseSchool } from './schools.table'

/** Schools of acclimation of the house's own: data, put together from steps. */
export function createSchoolsService({ orm }: Database, audit: AuditStore) {
  const note = ({ actor, key, nowMs }: CommandContext, action: string, name: string, before: object, after: object): void =>
    audit.insert({ atMs: nowMs, staffId: actor.id, action, subject: `school ${name}`, changes: changesBetween(before as Record<string, unknown>, after as Record<string, unknown>), commandKey: key })

  function requireSchool(id: string | undefined, version: number): HouseSchool {
    const school = orm.select().from(houseSchool).where(eq(houseSchool.id, id ?? '')).get()
    if (!school) throw new Problem('not-found', 'There is no such school of the house')
    if (school.version !== version) throw new Problem('stale', 'Somebody else changed this school meanwhile', { current: school })
    return school
  }
  function refuseTwin(name: string, id: string | null): void {
    const twin = findNamed(orm.select({ id: houseSchool.id, name: houseSchool.name }).from(houseSchool).all().filter((row) => row.id !== id), name)
    if (twin) throw fieldProblem('name', `${name} is in the list already`)
  }

  function defaults(): DefaultView[] {
    const rows = new Map(orm.select().from(houseDefault).all().map((row) => [row.situation, row]))
    return situations.map((situation) => ({ situation, schoolKey: rows.get(situation)?.schoolKey ?? null, version: rows.get(situation)?.version ?? 0 }))
  }

  return {
    /** Every school of the house, retired ones too. */
    list: (): { schools: HouseSchool[]; defaults: DefaultView[] } => ({ schools: orm.select().from(houseSchool).orderBy(asc(houseSchool.name)).all(), defaults: defaults() }),

    add(context: CommandContext, input: KeepSchool) {
      const kept = { ...input, name: input.name.trim() }
      refuseTwin(kept.name, null)
      const id = newId()
      orm.insert(houseSchool).values({ id, ...kept }).run()
      note(context, 'added', kept.name, {}, kept)
      return { id, version: 1 }
    },

    edit(context: CommandContext, { version, ...input }: EditSchool) {
      const { id, version: _, retiredAtMs: __, ...before } = requireSchool(context.params.schoolId, version)
      const kept = { ...input, name: input.name.trim() }
      refuseTwin(kept.name, id)
      orm.update(houseSchool).set({ ...kept, version: version + 1 }).where(eq(houseSchool.id, id)).run()
      note(context, 'edited', kept.name, before, kept)
      return { version: version + 1 }
    },

    /** Chooses which school comes first in a situation. */
    chooseDefault(context: CommandContext, { schoolKey, version }: ChooseDefault) {
      const now = defaults().find(({ situation }) => situation === context.params.situation)
      if (!now) throw new Problem('not-found', 'There is no such situation')
      if (now.version !== version) throw new Problem('stale', 'Somebody else chose meanwhile', { current: now })
      const isKnown = schoolKey === null || [...tradeSchools.map(({ key }) => key), ...orm.select({ id: houseSchool.id }).from(houseSchool).all().map(({ id }) => id)].includes(schoolKey)
      if (!isKnown) throw fieldProblem('schoolKey', 'There is no such school')
      const row = { schoolKey, version: version + 1 }
      orm.insert(houseDefault).values({ situation: now.situation, ...row }).onConflictDoUpdate({ target: houseDefault.situation, set: row }).run()
      note(context, 'chose the first', `for ${situationWords[now.situation as Situation]}`, { schoolKey: now.schoolKey }, { schoolKey })
      return { version: version + 1 }
    },

    retire(context: CommandContext, { isRetired, version }: RetireSchool) {
      const school = requireSchool(context.params.schoolId, version)
      orm.update(houseSchool).set({ retiredAtMs: isRetired ? context.nowMs : null, version: version + 1 }).where(eq(houseSchool.id, school.id)).run()
      note(context, isRetired ? 'retired' : 'brought back', school.name, {}, {})
      return { version: version + 1 }
    },
  }
}
export type SchoolsService = ReturnType<typeof createSchoolsService>
