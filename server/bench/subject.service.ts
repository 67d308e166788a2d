import type { BenchSubject } from '../../core/bench/benchView'
import { knownFigures, type KnownBag } from '../../core/bench/knownFigures'
import { firstSteps, triageBag } from '../../core/crates/triage'
import type { Limits } from '../../core/limits/houseLimits'
import { Problem } from '../http/problem'
import type { SubjectBag, SubjectStore } from './subject.store'

const hourMs = 3_600_000
/** Waters nearer than this are the same. */
const samePpt = 0.3
/** Fish that leave a tank are on the way for so long, usually. */
const visitHours = 0.5

const toKnownBag = ({ quantity, listed, isOpened, findings }: SubjectBag): KnownBag => ({
  fish: isOpened ? quantity : listed,
  ...{ skinTempC: findings?.skinTempC ?? null, waterTempC: findings?.waterTempC ?? null, salinityPpt: findings?.salinityPpt ?? null, ph: findings?.ph ?? null, ammoniaMgL: findings?.ammoniaMgL ?? null, hasBinder: findings?.hasBinder === true },
})

/** Gathers what the books know of fish and their tank, so that nothing is asked twice. */
export function createSubjectService(store: SubjectStore, limits: () => Limits) {
  const tankView = (id: string | null) => {
    const tank = id === null ? null : store.tank(id)
    if (id !== null && !tank) throw new Problem('not-found', 'There is no such tank')
    return tank
  }

  function ofLine(lineId: string, tankId: string | null, nowMs: number): BenchSubject {
    const line = store.line(lineId)
    if (!line) throw new Problem('not-found', 'There is no such line')
    const all = store.bags(lineId)
    // Shut bags are expected, opened ones are here: once some are open, they are what goes on the bench.
    const opened = all.filter(({ quantity }) => quantity > 0)
    const [bags, shut] = opened.length > 0 ? [opened, all.length - opened.length] : [all, 0]
    const tank = tankView(tankId ?? line.tankId)
    const hoursInBag = line.packedAtMs === null ? null : (nowMs - line.packedAtMs) / hourMs
    const isReady = tank !== null && tank.isAlone === 1 && tank.water !== 'fresh' && tank.fish === 0 && store.wasMadeReady(line.crateId, tank.id)
    const preparedPpt = isReady && line.shippingSalinityPpt !== null && Math.abs(line.shippingSalinityPpt - (tank?.salinityPpt ?? line.shippingSalinityPpt)) > samePpt ? line.shippingSalinityPpt : null
    const known = knownFigures({
      species: line,
      bags: bags.map(toKnownBag),
      ...{ hoursInBag, usualHours: line.transitHours, tank, preparedPpt, limits: limits() },
      shipping: { tempC: line.shippingTempC, salinityPpt: line.shippingSalinityPpt, ph: line.shippingPh, alkalinityMeqL: line.shippingAlkalinityMeqL, from: 'told' },
      hasSpareTank: tank !== null && tank.isAlone === 1 && tank.fish === 0,
    })
    return {
      ...{ title: `${bags.length} ${bags.length === 1 ? 'bag' : 'bags'} of ${line.species}${shut > 0 ? `, ${shut} more still shut` : ''}`, species: line.species, speciesId: line.speciesId, lineId, temperament: line.temperament },
      crate: { id: line.crateId, number: line.crateNumber },
      tank: tank && { id: tank.id, code: tank.code, netVolumeL: tank.netVolumeL },
      sources: opened.map(({ placeId, lotId, lotCode, species, from, quantity }) => ({ placeId, lotId, lotCode, species, from, quantity })),
      ...known,
      triage: worstTriage(bags, hoursInBag),
      agents: store.agents(),
    }
  }

  /** The first response that the worst of the bags asks for. */
  function worstTriage(bags: readonly SubjectBag[], hoursInBag: number | null): BenchSubject['triage'] {
    const all = bags.flatMap(({ findings }) => (findings ? [triageBag({ findings: findings as Parameters<typeof triageBag>[0]['findings'], hoursInBag }, limits())] : [])).filter((each) => each !== null)
    return all.sort((a, b) => firstSteps.indexOf(a.step) - firstSteps.indexOf(b.step))[0] ?? null
  }

  /** Fish that leave a tank, for another one of the room or for somebody else's. */
  function ofLot(lotId: string, fromTankId: string, tankId: string | null): BenchSubject {
    const lot = store.lotInTank(lotId, fromTankId)
    const from = tankView(fromTankId)
    if (!lot || !from) throw new Problem('not-found', 'No fish of this lot stand in this tank')
    const tank = tankView(tankId)
    const known = knownFigures({
      species: lot,
      bags: [{ fish: lot.quantity, skinTempC: null, waterTempC: null, salinityPpt: null, ph: null, ammoniaMgL: null, hasBinder: false }],
      ...{ hoursInBag: visitHours, usualHours: null, tank, preparedPpt: null, hasSpareTank: false, limits: limits() },
      shipping: { tempC: from.tempC, salinityPpt: from.salinityPpt, ph: from.ph, alkalinityMeqL: from.alkalinityMeqL, from: 'system' },
    })
    const { placeId, lotCode, species, quantity } = lot
    return {
      ...{ title: `${quantity} ${species} from ${lot.from}`, species, speciesId: lot.speciesId, crate: null, lineId: null, temperament: lot.temperament, triage: null },
      tank: tank && { id: tank.id, code: tank.code, netVolumeL: tank.netVolumeL },
      sources: [{ placeId, lotId, lotCode, species, from: lot.from, quantity }],
      ...{ ...known, words: { ...known.words, gas: 'air' } },
      agents: store.agents(),
    }
  }

  return {
    /** By `line`, or by `lot` and `from` (a tank); `tank` names where they are to go instead of where they are planned. */
    view(query: Record<string, unknown>, nowMs: number): BenchSubject {
      const word = (name: string): string | null => (typeof query[name] === 'string' && query[name] !== '' ? String(query[name]).slice(0, 64) : null)
      const [lineId, lotId, from] = [word('line'), word('lot'), word('from')]
      if (lineId !== null) return ofLine(lineId, word('tank'), nowMs)
      if (lotId !== null && from !== null) return ofLot(lotId, from, word('tank'))
      throw new Problem('not-found', 'Say which fish: a line of a crate, or a lot and the tank it stands in')
    },
  }
}
export type SubjectService = ReturnType<typeof createSubjectService>
