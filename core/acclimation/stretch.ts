import type { School, SchoolStep } from './schools'

/** Longest that a school is stretched to, min. */
const longestMin = 360
/** Shares of the limits that are planned with, so that a reading off by a little breaks nothing. */
const [share, fiveMinShare] = [0.9, 0.75]
/** Minutes that an exchange's work counts for beside its wait: few of them save hands. */
const workMin = 3

/** What an hour and five minutes may move the water by, ppt. */
export interface SaltPace {
  gapPpt: number
  perHourPpt: number
  perFiveMinPpt: number
}

/**
 * Stretches a drip or a step exchange so that no hour moves the salinity by more than it may: a drip in hours of its own
 * flow, rising as the vessel fills, an exchange in smaller shares at longer waits.
 * Source: docs/bench.md, hours between 6 and 8 ppt.
 * @returns null where it is neither, needs no stretching, or would take longer than six hours.
 */
export function stretched(school: School, pace: SaltPace): School | null {
  const steps = school.key === 'drip' || school.key === 'dripAir' ? stretchedDrip(school, pace) : school.key === 'step' ? stretchedExchange(school, pace) : null
  return steps && { ...school, steps, variant: 'stretched' }
}

/** In a filling vessel what is missing falls as its volume grows: each hour by as much as it may, the last one with the step into the tank. */
function stretchedDrip({ steps }: School, { gapPpt, perHourPpt }: SaltPace): SchoolStep[] | null {
  const fill = steps.find((step): step is Extract<SchoolStep, { step: 'fill' }> => step.step === 'fill')
  const most = share * perHourPpt
  if (!fill) return null
  const endPpt = gapPpt / fill.toTimes
  if (gapPpt <= most || endPpt > most) return null
  const left: number[] = [gapPpt]
  while ((left.at(-1) ?? 0) > most && left.length <= longestMin / 60) left.push(Math.max(Math.min(most, gapPpt), (left.at(-1) ?? 0) - most))
  left.push(endPpt)
  if ((left.length - 1) * 60 > longestMin) return null
  const hours = left.slice(1).map((after, index): SchoolStep => {
    const times = gapPpt / after - gapPpt / (left[index] ?? gapPpt)
    // Above 1 a fill is said by what the vessel then holds.
    return { ...fill, toTimes: times > 1 ? times + 1 : times, minutes: 60 }
  })
  return steps.flatMap((step) => (step === fill ? hours : [step]))
}

const shares = [0.5, 0.4, 0.33, 0.25, 0.2, 0.15, 0.1] as const
const waits = [5, 10, 15, 20, 30, 60] as const

/** The quickest exchange whose every hour, the step into the tank included, moves the water by no more than it may. */
function stretchedExchange({ steps }: School, pace: SaltPace): SchoolStep[] | null {
  if (pace.gapPpt <= share * pace.perHourPpt) return null
  const tried = shares.flatMap((part) => waits.flatMap((wait) => Array.from({ length: Math.floor(longestMin / wait) }, (_, index) => ({ part, wait, times: index + 1 }))))
  const best = tried.filter((each) => isGentle(each, pace)).sort((a, b) => a.times * (a.wait + workMin) - b.times * (b.wait + workMin) || a.times - b.times)[0]
  if (!best) return null
  return steps.map((step) => (step.step === 'repeat' ? { ...step, times: best.times, steps: step.steps.map((each): SchoolStep => (each.step === 'dump' ? { ...each, share: best.part } : each.step === 'add' ? { ...each, times: best.part } : each.step === 'wait' ? { ...each, minutes: best.wait } : each)) } : step))
}

function isGentle({ part, wait, times }: { part: number; wait: number; times: number }, { gapPpt, perHourPpt, perFiveMinPpt }: SaltPace): boolean {
  // What is missing before each exchange, and at last before the step into the tank, which leaves nothing.
  const left = [...Array.from({ length: times + 1 }, (_, nth) => gapPpt * (1 - part) ** nth), 0]
  const inside = (minutes: number): number => Math.floor(minutes / wait + 1e-9) + 1
  const most = (minutes: number): number => Math.max(...left.map((before, index) => before - (left[Math.min(left.length - 1, index + inside(minutes))] ?? 0)))
  return most(60) <= share * perHourPpt && most(5) <= fiveMinShare * perFiveMinPpt
}
