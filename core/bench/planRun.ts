import { limitsFor } from '../acclimation/figures'
import { gapPpt, isToSaltier, nominalOf, practiceOf, targetOf, type AcclimationQuestion } from '../acclimation/question'
import { floatMinutes, type Handling, type School, type SchoolStep } from '../acclimation/schools'
import { overflowSettings } from '../acclimation/tryMethod'
import type { Limits } from '../limits/houseLimits'
import { baseUnits, showFigure, type DisplayUnits, type Quantity } from '../units/units'
import { oxygenSaturationMgL } from '../water/oxygen'
import { saltToAddG } from '../water/salt'
import { spanWords } from '../time/spanWords'
import { flowWords } from './flowWords'
import { goOver, type RunStep, type WaterDeed } from './runPlan'

/** What a plan is made for, besides school and question. */
export interface RunScene {
  question: AcclimationQuestion
  limits: Limits
  /** Code of the tank, or who the fish go to. */
  to: string
  /** Net water of the tank; null when nobody knows. */
  tankL: number | null
  /** Whether all bags share one vessel, or go through it one after another. */
  isPooled: boolean
  dropsPerMl: number
  /** Whether the fish must stay under water in every step: cup instead of net. */
  isUnderWater?: boolean
  /** Whether the fish stand in their vessel already, as after a bath. */
  isInVessel?: boolean
  /** Units of the room, for what people read; base units while left out. */
  units?: DisplayUnits
}

const handlingWords: Record<Handling, string> = { bag: 'left still', bucket: 'without an air stone', siphon: 'splashing gently', air: 'with the air stone on' }

/** Water that one vessel starts with, L: of one bag, or of all that are poured together. */
export const startLitres = ({ question, isPooled }: Pick<RunScene, 'question' | 'isPooled'>): number => question.bag.waterL * (isPooled ? question.bags : 1)

/**
 * Writes a school out as the steps of a run: what to do, how long, how much water, where the fish are afterwards. A tank
 * that was made ready for the delivery is brought back to house salinity over days once the fish are in it.
 */
export function planRun(school: School, scene: RunScene): RunStep[] {
  const plan = new Plan(scene)
  if (school.steps.some(({ step }) => step === 'tankRamp')) plan.matchTank()
  for (const step of school.steps) plan.add(step, school)
  plan.bringBack()
  return plan.steps
}

class Plan {
  steps: RunStep[] = []
  private nowL: number
  private fish: RunStep['fish'] = 'bag'
  private readonly startL: number

  constructor(private readonly scene: RunScene) {
    this.startL = startLitres(scene)
    this.nowL = this.startL
    if (scene.isInVessel) this.fish = 'vessel'
  }

  private readonly show = (quantity: Quantity, base: number): string => showFigure(quantity, base, this.scene.units ?? baseUnits)

  private push(step: Partial<RunStep> & Pick<RunStep, 'title' | 'detail'>): void {
    this.steps.push({ minutes: null, water: [], endL: this.nowL, fish: this.fish, countsOut: false, toPpt: null, ...step })
  }

  add(step: SchoolStep, school: School, nth = ''): void {
    const { question } = this.scene
    switch (step.step) {
      case 'float': {
        const isSlowed = school.variant === 'slowed float'
        const minutes = floatMinutes(question.bag.waterL, nominalOf(question).tempC - targetOf(question).tempC, isSlowed)
        const how = isSlowed ? 'In a second bag or a towel, or afloat in a bucket of tank water: they warm or cool more slowly.' : 'Fix them so that none drifts or tips.'
        return this.push({ title: isSlowed ? 'Float the bags shut, slowed' : 'Float the bags shut', detail: `${minutes} min, until they are within a degree of the tank. ${how}`, minutes, water: [{ do: 'wait', handling: 'sealed', isNearRoom: false }] })
      }
      case 'open':
        return this.push({ title: 'Cut the bag', detail: `Leave the water still; ${step.minutes} min is all it needs.`, minutes: step.minutes, water: [{ do: 'wait', handling: 'bag', isNearRoom: false }] })
      case 'pour':
        this.fish = 'vessel'
        return this.push({ title: 'Pour into the vessel', detail: 'Low and gently, down the side. Lid on: fish jump.', water: [{ do: 'pour' }] })
      case 'repeat':
        return Array.from({ length: step.times }, (_, index) => index + 1).forEach((each) => this.addRound(step.steps, school, ` (${each} of ${step.times})`))
      case 'fill':
      case 'add':
      case 'dump':
      case 'wait':
        return this.addRound([step], school, nth)
      case 'overflow':
        return this.addOverflow(step)
      case 'tankRamp':
        return this.addRamp(step)
      case 'transfer':
        return this.addTransfer(school)
    }
  }

  /** Deeds and the wait after them are one thing to do, with one timer. */
  private addRound(steps: readonly SchoolStep[], school: School, nth: string): void {
    const water: WaterDeed[] = []
    let [words, minutes]: [string[], number | null] = [[], null]
    const close = (): void => {
      if (water.length === 0) return
      this.push({ title: `${words[0] ?? 'Wait'}${nth}`, detail: [...words.slice(1), minutes && !water.some((deed) => deed.do === 'fill') ? `${minutes} min` : ''].filter(Boolean).join('; '), minutes, water: water.splice(0), fish: this.fish, endL: this.nowL })
      ;[words, minutes] = [[], null]
    }
    for (const step of steps) {
      if (step.step === 'dump') {
        water.push({ do: 'dump', share: step.share })
        words.push(`Take ${this.show('volume', this.nowL * step.share)} out`)
        this.nowL *= 1 - step.share
      } else if (step.step === 'add') {
        water.push({ do: 'add', litres: step.times * this.startL })
        words.push(`${words.length ? 'add' : 'Add'} ${this.show('volume', step.times * this.startL)} of tank water`)
        this.nowL += step.times * this.startL
      } else if (step.step === 'fill') {
        if (minutes !== null) close()
        const more = (step.toTimes > 1 ? step.toTimes - 1 : step.toTimes) * this.startL
        this.nowL += more
        minutes = step.minutes
        water.push({ do: 'fill', litres: more, handling: step.handling, isNearRoom: true })
        const rate = flowWords((1000 * more) / step.minutes, this.scene.dropsPerMl)
        words.push(step.handling === 'siphon' ? 'Siphon tank water in' : 'Drip tank water in', `${this.show('volume', more)} in ${spanWords(step.minutes)}, to ${this.show('volume', this.nowL)} in the vessel; ${rate}, ${handlingWords[step.handling]}`)
        close()
      } else if (step.step === 'wait') {
        if (minutes !== null) close()
        minutes = step.minutes + (step.perBag ?? 0) * this.scene.question.bags
        if (minutes <= 0) {
          minutes = null
          continue
        }
        water.push({ do: 'wait', handling: step.handling, isNearRoom: step.nearRoom })
        words.push(words.length ? 'then wait' : 'Wait')
      } else {
        close()
        this.add(step, school, nth)
      }
    }
    close()
  }

  private addOverflow({ restMinutes, gramsPerL, leastL }: Extract<SchoolStep, { step: 'overflow' }>): void {
    const { question, limits, dropsPerMl } = this.scene
    const target = targetOf(question)
    const biomassG = question.bag.fish * question.bag.massG * question.bags
    const volumeL = Math.max(leastL, biomassG / gramsPerL)
    const { perHour } = limitsFor(limits, question.tolerance, oxygenSaturationMgL(target.salinityPpt, target.tempC))
    this.into(volumeL, this.scene.isUnderWater ? 'By cup into made-up water' : 'Net into made-up water', 'air on, lid on, outlet at the rim, the drip far from it', 'vessel')
    const wait: WaterDeed = { do: 'wait', handling: 'air', isNearRoom: false }
    this.push({ title: 'Let them rest', detail: 'An hour before anything changes.', minutes: restMinutes, water: [wait] })
    const settings = overflowSettings(question, volumeL, gapPpt(question), perHour)
    const isUp = isToSaltier(question)
    settings.forEach(({ hours, flowLPerH, leftPpt }, index) => {
      const toPpt = target.salinityPpt + (isUp ? -leftPpt : leftPpt)
      const rate = flowWords((1000 * flowLPerH) / 60, dropsPerMl)
      const title = practiceOf(question).valveSettings === 0 ? `Overflow, hour ${index + 1} of ${settings.length}` : `Overflow, setting ${index + 1} of ${settings.length}: ${spanWords(60 * hours)}`
      this.push({ title, detail: `${this.show('volume', flowLPerH)} an hour, ${rate}; it should then read near ${this.show('salinity', toPpt)}`, minutes: 60 * hours, water: [{ do: 'overflow', litres: hours * flowLPerH, handling: 'air', isNearRoom: false }], toPpt })
    })
  }

  /** What bag water is reckoned at, and a word to read it where nobody did: made-up water has to be like it. */
  private bagSalinity(): { salinityPpt: number; unread: string } {
    const { question } = this.scene
    const salinityPpt = Math.max(0.05, nominalOf(question).salinityPpt)
    return { salinityPpt, unread: question.measured.salinityPpt === undefined ? ` Read the bag first: nobody did, and this water has to be like it.` : '' }
  }

  /** No fish goes into a tank that is to stand at the salinity of the bag before it was read that it does. */
  matchTank(): void {
    const { salinityPpt, unread } = this.bagSalinity()
    this.push({ title: `Bring ${this.scene.to} to ${this.show('salinity', salinityPpt)}`, detail: `To what the bag reads, before any fish go in; read both with the same instrument and note the tank here.${unread}`, gate: { salinityPpt, withinPpt: gateWithinPpt } })
  }

  private into(volumeL: number, title: string, how: string, fish: RunStep['fish'], countsOut = false): void {
    const { salinityPpt, unread } = this.bagSalinity()
    this.nowL = volumeL
    this.fish = fish
    const { tempC } = targetOf(this.scene.question)
    this.push({ title, detail: `${fish === 'tank' ? '' : `${this.show('volume', volumeL)}, `}at ${this.show('salinity', salinityPpt)} and ${this.show('temperature', tempC)}; ${how}. Bag water to waste.${fish === 'tank' ? '' : unread}`, water: [{ do: 'into', litres: volumeL, salinityPpt }], countsOut })
  }

  /** The tank stands at the bag's salinity and is changed around them over days. */
  private addRamp({ restMinutes, pptPerDay }: Extract<SchoolStep, { step: 'tankRamp' }>): void {
    const { question, to } = this.scene
    this.into(1e4, goOver(this.scene.isUnderWater, to), 'the tank stands at the salinity of the bag; count them in', 'tank', true)
    this.push({ title: 'Let them settle', detail: 'An hour, dim, nothing changed.', minutes: restMinutes })
    this.addDays(nominalOf(question).salinityPpt, targetOf(question).salinityPpt, pptPerDay)
  }

  private addDays(fromPpt: number, toPpt: number, pptPerDay: number): void {
    const days = Math.max(1, Math.ceil(Math.abs(toPpt - fromPpt) / pptPerDay - 1e-9))
    const { tankL, to, question } = this.scene
    for (let day = 1; day <= days; day += 1) {
      const [before, after] = [fromPpt + ((toPpt - fromPpt) * (day - 1)) / days, fromPpt + ((toPpt - fromPpt) * day) / days]
      const salt = tankL !== null && after > before ? `, about ${Math.round(saltToAddG(tankL, before, after, question.tank.tempC) / 5) * 5} g of salt, dissolved first` : ''
      this.push({ title: `${to}: day ${day} of ${days}, to ${this.show('salinity', after)}`, detail: `By small top-ups spread over the day${salt}. Read it before and after.`, minutes: 1440, toPpt: after })
    }
  }

  private addTransfer(school: School): void {
    if (this.steps.some(({ countsOut }) => countsOut)) return
    const isLoad = school.key === 'matched'
    this.fish = 'tank'
    const { isUnderWater, to } = this.scene
    const byCup = 'In a cup or bag under water, never lifted into air; as little bag water with them as can be. Count them.'
    const detail = isLoad ? `Let them swim out; ${this.show('volume', this.nowL)} of mixed bag water goes in with them and is put in the books of the tank.` : isUnderWater ? byCup : 'Through the net, the bag water to waste. Count them.'
    this.push({ title: isLoad ? `Let them out into ${to}` : goOver(isUnderWater, to), detail, water: [{ do: 'transfer' }], countsOut: true })
  }

  /** House salinity again, after a delivery for which the tank was made to match. */
  bringBack(): void {
    const { prepared, tank } = this.scene.question
    if (!prepared || Math.abs(prepared.salinityPpt - tank.salinityPpt) <= backWithinPpt) return
    this.addDays(prepared.salinityPpt, tank.salinityPpt, this.scene.limits.salinityPerDay)
  }
}
const backWithinPpt = 0.3
const gateWithinPpt = 1
