import type { IntroductionView } from '../core/moves/introductionView'
import type { StaffView } from '../core/staff/staff.schema'
import { Problem } from '../server/http/problem'
import type { Commander } from './commander'
import type { Furnished } from './furnish'

const minuteMs = 60_000
const hourMs = 60 * minuteMs

interface Moving extends Furnished {
  commander: Commander
}

/** What moving about left behind: newcomers on their second day in the display, a bully in a box, red nets where they do not belong. */
export async function moveAbout(scene: Moving, nowMs: number): Promise<void> {
  await introduce(scene, nowMs - 25 * hourMs, nowMs)
  await boxBully(scene, nowMs - 19 * hourMs)
  await useWrongNets(scene, nowMs - 20 * hourMs)
}

const dayLead = ({ people }: Moving): StaffView => people.lead

/** Fish of the marine sale rack for the display, where the tang rules. */
async function introduce(scene: Moving, atMs: number, nowMs: number): Promise<void> {
  const { commander, tanks } = scene
  const display = 'D1-02'
  for (const from of ['M1-01', 'M1-05', 'M1-04', 'M1-02', 'M1-03', 'M1-08']) {
    const [kind] = commander.tank(from, atMs).stock
    if (!kind) continue
    const body = { tankId: tanks.get(display) ?? '', fromTankId: tanks.get(from) ?? '', fish: [{ speciesId: kind.speciesId, strain: kind.strain, quantity: 1 }], hasMirror: true, hasDivider: true, dominants: rulersOf(commander, display, atMs), happenedAtMs: atMs }
    const begun = await commander.run<{ id: string }>('beginIntroduction', {}, body, dayLead(scene), atMs).catch((error: unknown) => {
      if (error instanceof Problem) return null
      throw error
    })
    if (begun) return goThrough(scene, begun.id, nowMs)
  }
}

const rulersOf = (commander: Commander, code: string, atMs: number): string[] => commander.tank(code, atMs).stock.filter(({ species }) => species === 'Yellow tang').map(({ speciesId }) => speciesId)

/** Its steps a little late, as they are done; then a look in the evening and one in the morning. */
async function goThrough({ commander, people }: Moving, introductionId: string, nowMs: number): Promise<void> {
  const view = (): IntroductionView => commander.introduction(introductionId, nowMs)
  const happened = (kind: string, atMs: number, more: object = {}) =>
    commander.run('recordIntroduction', { introductionId }, { ...{ kind, stepIndex: null, who: null, level: null, vesselId: null, toTankId: null, note: null, override: 'it was bred for the display' }, happenedAtMs: atMs, ...more }, people.lead, atMs)
  const kinds: Partial<Record<string, string>> = { 'newcomers-in': 'in', 'dominants-back': 'back', 'subdominants-back': 'back', 'divider-out': 'divider out' }
  for (const { index, code, minutes } of view().steps) {
    const dueAtMs = (view().steps.find((step) => step.index === index)?.dueAtMs ?? 0) + Math.min(minutes, 10) * minuteMs
    if (dueAtMs > nowMs - 19.1 * hourMs) break
    await happened(kinds[code] ?? 'step', dueAtMs, { stepIndex: index, who: code === 'dominants-back' ? 'Yellow tang' : null })
  }
  await happened('look', nowMs - 19 * hourMs, { level: 'chased', who: 'Yellow tang' })
  await happened('look', nowMs - 15 * hourMs, { level: 'quiet' })
}

/** One of a group chased the others: it sits in a box in its own tank. */
async function boxBully({ commander, people, tanks }: Moving, atMs: number): Promise<void> {
  const box = commander.rows('vessels', atMs).find(({ values }) => values.name === 'Box 1')
  const bold = ['Electric yellow cichlid', 'Honey gourami', 'Angelfish (fresh water)']
  const [code] = bold.flatMap((species) => commander.room(atMs).tanks.filter(({ mainSpecies, fish }) => mainSpecies === species && fish >= 4)).map((tank) => tank.code)
  const [bully] = code ? commander.tank(code, atMs).stock : []
  if (!box || !code || !bully) return
  const { speciesId, strain } = bully
  const move = { from: { kind: 'tank', id: tanks.get(code) ?? '' }, to: { kind: 'vessel', id: box.id }, fish: [{ speciesId, strain, quantity: 1, chosen: [{ sex: 'male', mark: 'darkest of them' }] }], toolSetId: null, waterGoesAlong: false, note: 'chases all others' }
  await commander.run('moveTogether', {}, { ...move, happenedAtMs: atMs }, people.lead, atMs)
  await commander.run('recordFight', { tankId: tanks.get(code) ?? '' }, { speciesAId: speciesId, speciesBId: speciesId, harm: 'hurt', happenedAtMs: atMs }, people.lead, atMs)
}

/** The nets of the quarantine in a tank of the sale rack: somebody saw it, and said so. */
async function useWrongNets({ commander, people, tanks }: Moving, atMs: number): Promise<void> {
  const red = commander.rows('toolSets', atMs).find(({ values }) => values.name === 'Red nets')
  if (!red) return
  const uses = [
    ['Q1-02', atMs - 30 * minuteMs, false],
    ['M1-08', atMs, true],
  ] as const
  for (const [code, happenedAtMs, isBreach] of uses) await commander.run('useTools', { toolSetId: red.id }, { tankId: tanks.get(code) ?? '', isBreach, note: isBreach ? 'taken by mistake, lights off' : null, happenedAtMs }, people.keepers[0] ?? people.lead, happenedAtMs)
}
