import type { TankSummary } from '../core/room/roomView'
import { Problem } from '../server/http/problem'
import type { Commander } from './commander'
import type { Furnished } from './furnish'

const dayMs = 86_400_000

interface Planning extends Furnished {
  commander: Commander
}

/** Moves that wait: one for caves, one behind it, and one whose day has come. */
export async function planAhead(scene: Planning, nowMs: number): Promise<void> {
  const { commander, people } = scene
  await commander.run('countThing', {}, { thing: 'caves', have: 2 }, people.lead, nowMs - 6 * dayMs)
  const stocked = commander.room(nowMs).tanks.filter(({ code, fish, mainSpecies }) => /^(R|H|G)/.test(code) && fish >= 4 && mainSpecies !== null)
  const [group, behind, ripe] = stocked.filter(({ hold }) => hold === null)
  const caves = await plan(scene, group, emptyFor(scene, group, nowMs), [{ is: 'thing', thing: 'caves', n: 4 }], 'whole', 'spawning group', nowMs - 6 * dayMs)
  if (caves && group) await plan(scene, behind, group, [{ is: 'done', planId: caves }, { is: 'empty', tankId: group.id }], 'share', null, nowMs - 5 * dayMs)
  await plan(scene, ripe, emptyFor(scene, ripe, nowMs), [{ is: 'date', on: commander.room(nowMs).on }], 'share', null, nowMs - 2 * dayMs)
}

/** An empty tank of the same system, that no plan has yet. */
const emptyFor = ({ commander }: Planning, from: TankSummary | undefined, nowMs: number): TankSummary | undefined => commander.room(nowMs).tanks.find((tank) => tank.fish === 0 && tank.bookings.length === 0 && tank.rack.charAt(0) === from?.rack.charAt(0))

async function plan({ commander, people }: Planning, from: TankSummary | undefined, to: TankSummary | undefined, facts: object[], takes: 'whole' | 'share', note: string | null, atMs: number): Promise<string | null> {
  if (!from || !to) return null
  const [kind] = commander.tank(from.code, atMs).stock
  if (!kind) return null
  const body = { fromTankId: from.id, toTankId: to.id, fish: [{ speciesId: kind.speciesId, strain: kind.strain, quantity: kind.quantity }], join: 'all', facts, takes, untilOn: null, note }
  const made = await commander.run<{ id: string }>('makePlan', {}, body, people.lead, atMs).catch((error: unknown) => {
    if (error instanceof Problem) return null
    throw error
  })
  return made?.id ?? null
}
