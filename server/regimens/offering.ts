import { shippedAgents } from '../../core/dosing/agents'
import type { DoseReason } from '../../core/dosing/doseCheck'
import { overrideWords, reasonWords, type WaterContent } from '../../core/dosing/doseReasons'
import { limitOf, type LadderStand } from '../../core/regimens/offerDose'
import { cautionFor, removalOf } from '../../core/regimens/regimenWords'
import type { LevelView, OfferView, ProductView, ReasonView } from '../../core/regimens/regimenView'
import type { RegimensStore } from './regimens.store'
import { labelOf, type TreatableWater, type Treating } from './treating'

type Row = NonNullable<ReturnType<RegimensStore['product']>>
/** A product that something can be dosed with. */
export type Product = Row & { agent: string }
export const isProduct = (row: Row): row is Product => row.agent !== null && row.agent in shippedAgents && shippedAgents[row.agent]?.isNoDose !== true

/** What its label still lacks before a number can be worked out, in a few words each. */
function missingOf({ strengthMgPerMl, activePercent, strengthBasis, targetMgL, targetBasis }: Row): string[] {
  const found: [boolean, string][] = [
    [strengthMgPerMl === null && activePercent === null, 'strength'],
    [targetMgL === null, 'target'],
    [strengthBasis === null || targetBasis === null, 'what strength and target count'],
    [strengthBasis !== null && targetBasis !== null && strengthBasis !== targetBasis, 'strength and target that count the same'],
  ]
  return found.flatMap(([isSo, words]) => (isSo ? [words] : []))
}

export function productView(row: Product): ProductView {
  return {
    ...{ id: row.id, name: row.name, agent: row.agent, kit: shippedAgents[row.agent]?.kit ?? null },
    unit: row.strengthMgPerMl !== null ? 'mL' : row.activePercent !== null ? 'g' : null,
    ...{ targetMgL: row.targetMgL, hiMgL: limitOf(row.agent, labelOf(row)), missing: missingOf(row) },
  }
}

/** What probably stands in a water, by how it is set up: ticked beforehand, for somebody to say. */
export function likelyContents({ tanks }: TreatableWater, filter: string | null): WaterContent[] {
  return [...(tanks.some(({ decor }) => decor === 'heavy' || decor === 'some') ? (['rockOrSand'] as const) : []), ...(filter === 'young' || filter === 'running' ? (['livingFilter'] as const) : [])]
}

interface Offered {
  treating: Treating
  store: Pick<RegimensStore, 'contents' | 'sump'>
  waterName: (waterId: string, nowMs: number) => string
}

/** Reasons as they are told. */
export const toldReasons = (agent: string, reasons: readonly DoseReason[]): ReasonView[] => reasons.flatMap(({ code, answer }) => (answer === 'A' ? [] : [{ code, answer, words: reasonWords(agent, { code }) }]))

/** What a screen says of a dose: how much, or why not, and who may go on. */
export function createOffering({ treating, store, waterName }: Offered) {
  return function offerView(product: Product, tank: { tankId: string; code: string; systemId: string }, stand: LadderStand | null, nowMs: number, leadOverrides = false): OfferView & { step: ReturnType<Treating['offer']>['step'] } {
    const water = treating.water(tank.tankId, nowMs)
    const { check, level, kitRead, towardsMgL, step, isContentsAsked } = treating.offer(water, product, { stand, nowMs, leadOverrides })
    const shown: LevelView | null = level && { mgL: level.c, lo: level.lo, hi: level.hi, ageH: level.ageH, basis: level.basis, isJump: level.isJump, kitRead }
    const said = store.contents(water.id)
    return {
      ...{ product: productView(product), tankId: tank.tankId, tankCode: tank.code, waterName: waterName(water.id, nowMs), volumeL: water.volumeL },
      ...{ answer: check.answer, override: check.override, reasons: toldReasons(product.agent, check.reasons) },
      ...{ amount: check.productMl ?? check.productG, doseMg: check.doseMg, riseMgL: check.rise, towardsMgL, isCut: check.isCut, level: shown },
      ...{ contents: isContentsAsked ? null : (water.contents ?? []), likely: said?.contents.filter((each) => each !== 'binder') ?? likelyContents(water, store.sump(tank.systemId).filter), binderUntilMs: said?.binderUntilMs ?? null },
      ...{ caution: cautionFor(product.agent), removal: removalOf(product.agent), overrideWords: overrideWords[check.override], step },
    }
  }
}
export type Offering = ReturnType<typeof createOffering>
