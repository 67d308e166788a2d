import { crateSteps, measuredDispersion, settingFor, speciesRule, supplierRule, waterRule, waterSteps, type AlarmLot, type StreamRule } from '../../core/outcomes/alarmStreams'
import type { AnswerAlarm } from '../../core/outcomes/outcomes.schema'
import { isRinging, lossAlarmState, type AlarmStep, type LossAlarm } from '../../core/outcomes/lossAlarmState'
import type { AlarmsView, AlarmView, HintsView } from '../../core/outcomes/outcomeViews'
import { usualLosses } from '../../core/outcomes/usualLosses'
import { requireFreshPin, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { LossBooks, LossBooksService } from './lossBooks'
import type { OutcomesStore } from './outcomes.store'

interface Collaborators {
  books: LossBooksService
  store: OutcomesStore
  hintsOf: (waterId: string, nowMs: number) => HintsView
}
type Kind = AlarmView['kind']

/** A stream with its steps and how it stands. */
export interface Stream {
  stream: string
  kind: Kind
  name: string
  steps: AlarmStep[]
  alarm: LossAlarm
}

/** Alarms on losses: waters day by day, suppliers and species crate by crate. */
export function createAlarmsService({ books, store, hintsOf }: Collaborators) {
  let known: { of: LossBooks; answered: string; streams: Stream[] } | null = null

  function streams(nowMs: number): Stream[] {
    const [read, answers] = [books.at(nowMs), store.answers()]
    const answered = JSON.stringify(answers)
    if (known?.of !== read || known.answered !== answered) known = { of: read, answered, streams: walk(read, answers) }
    return known.streams
  }

  function walk(read: LossBooks, answers: ReturnType<OutcomesStore['answers']>): Stream[] {
    const lots = [...read.risks.values()].map((risk): AlarmLot => ({ ...risk, species: read.rows.get(risk.lot)?.species ?? '', supplier: read.rows.get(risk.lot)?.supplier ?? null }))
    const usual = usualLosses(lots, read.today, read.rules)
    const waterOf = (place: string): string | null => {
      const tank = read.tanks.get(place)
      return tank && !tank.isUnwatched ? tank.waterId : null
    }
    const waters = waterSteps({ movements: read.movements, lots: read.risks, speciesOf: (lot) => read.rows.get(lot)?.species ?? '', waterOf, today: read.today, usual })
    const names = new Map([...read.tanks.values()].map(({ waterId, system, code, tankId }) => [waterId, waterId === tankId ? `${system}, ${code}` : system]))
    const answered = new Map<string, string[]>()
    for (const { stream, on } of answers) answered.set(stream, [...(answered.get(stream) ?? []), on])
    const of = (kind: Kind, steps: Map<string, AlarmStep[]>, rule: StreamRule, perYear: (own: readonly AlarmStep[]) => number, nameOf = (id: string) => id): Stream[] =>
      [...steps].map(([id, own]): Stream => {
        const [stream, name] = [`${kind}:${id}`, nameOf(id)]
        const expected = own.reduce((sum, step) => sum + step.expected, 0) / Math.max(1, own.length)
        // A stream that lost nothing needs no setting: it is quiet by any.
        const setting = own.some(({ dead }) => dead > 0) ? settingFor(rule, { perYear: perYear(own), streams: steps.size, expected }) : { threshold: 15, suddenTail: 0 }
        return { stream, kind, name, steps: own, alarm: lossAlarmState({ name, steps: own, acknowledged: answered.get(stream) ?? [], dispersion: rule.dispersion, ratio: rule.ratio, threshold: setting.threshold, suddenTail: setting.suddenTail, limits: read.rules }) }
      })
    const crates = (own: readonly AlarmStep[]): number => own.length * 2
    return [
      ...of('water', waters, waterRule(read.rules), () => 365, (id) => names.get(id) ?? id),
      ...of('supplier', crateSteps(lots, ({ supplier }) => supplier, read.today, usual), supplierRule(read.rules), crates),
      ...of('species', crateSteps(lots, ({ species, supplier }) => (supplier === null ? null : species), read.today, usual), speciesRule(read.rules), crates),
    ]
  }

  function shown({ stream, kind, name, alarm }: Stream, nowMs: number): AlarmView {
    const id = stream.slice(kind.length + 1)
    const { state, sentence, raisedOn, since, dead, expected } = alarm
    const to = kind === 'water' ? `/outcomes?by=water` : kind === 'supplier' ? `/outcomes?by=supplier` : `/outcomes?by=species&species=${encodeURIComponent(id)}`
    return { stream, kind, name, state, sentence, raisedOn, since, dead, expected, to, lookNext: isRinging(alarm) && kind === 'water' ? hintsOf(id, nowMs).lookNext : [] }
  }

  return {
    streams,
    /** Dispersion of the losses of waters as it was measured; null without steps. */
    measured: (nowMs: number): number | null => measuredDispersion(streams(nowMs).filter(({ kind }) => kind === 'water').flatMap(({ steps }) => steps)),
    view(nowMs: number): AlarmsView {
      const told = streams(nowMs).filter(({ alarm: { state } }) => state !== 'quiet').sort((one, other) => Number(isRinging(other.alarm)) - Number(isRinging(one.alarm)) || other.alarm.score - one.alarm.score)
      const waters = new Map([...books.at(nowMs).tanks.values()].map(({ waterId, system }) => [waterId, system]))
      return { alarms: told.map((stream) => shown(stream, nowMs)), answered: store.answers().slice(-20).reverse(), outbreaks: store.outbreaks().map(({ id, name, waterId, from, to }) => ({ id, name, from, to, water: waters.get(waterId) ?? 'a water that is gone' })) }
    },
    /** A lead says what was found; the alarm begins again at half its threshold. */
    answer(context: CommandContext, { stream, found, outbreak }: AnswerAlarm) {
      requireFreshPin(context.actor)
      const own = streams(context.nowMs).find((each) => each.stream === stream)
      if (!own || !isRinging(own.alarm)) throw new Problem('conflict', 'This alarm does not ring any more')
      if (outbreak !== null && own.kind !== 'water') throw fieldProblem('outbreak', 'Only deaths of one water are an outbreak')
      const on = books.at(context.nowMs).today
      const by = { staffId: context.actor.id, commandKey: context.key, recordedAtMs: context.nowMs }
      store.insertAnswer({ id: newId(), stream, on, found, ...by })
      if (outbreak !== null) store.insertOutbreak({ id: newId(), waterId: stream.slice('water:'.length), name: outbreak, fromOn: own.alarm.since ?? on, toOn: on, ...by })
      return {}
    },
    undoOutbreak({ actor, params, nowMs }: CommandContext) {
      requireFreshPin(actor)
      if (!store.undoOutbreak(params.outbreakId ?? '', { undoneById: actor.id, undoneAtMs: nowMs })) throw new Problem('not-found', 'There is no such outbreak')
      return {}
    },
  }
}
export type AlarmsService = ReturnType<typeof createAlarmsService>
