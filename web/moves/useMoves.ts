import { introductionsApi } from '../../core/moves/introductions.api'
import type { RecordIntroduction } from '../../core/moves/introductions.schema'
import { movesApi } from '../../core/moves/moves.api'
import type { MovedFish, MoveTogether, StandKind } from '../../core/moves/moves.schema'
import type { LossCause } from '../../core/ledger/movement'
import { nowMs } from '../api/clock'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** A place as an address names it: `tank:ID`, `vessel:ID`. */
export const standWord = ({ kind, id }: { kind: StandKind; id: string }): string => `${kind}:${id}`

/** Reads `tank:ID` or `vessel:ID` out of an address; null for anything else. */
export function readStand(word: string | null): { kind: StandKind; id: string } | null {
  const [kind = '', id = ''] = (word ?? '').split(':')
  return (kind === 'tank' || kind === 'vessel') && id !== '' ? { kind, id } : null
}

const asQuery = (fish: readonly MovedFish[]): string => JSON.stringify(fish.map(({ speciesId, strain, lotIds = [], quantity }) => ({ speciesId, strain, lotIds, quantity })))

interface Wanted {
  from: string
  to: string | null
  fish: readonly MovedFish[]
  toolSetId: string | null
  waterGoesAlong: boolean
  planId: string | null
}

/** What speaks against a move, as soon as somebody has said how many go where; null until then. */
export function useMoveCheck({ from, to, fish, toolSetId, waterGoesAlong, planId }: Wanted) {
  const isAsked = to !== null && fish.length > 0
  const { data } = useRead(movesApi.readMoveCheck, isAsked ? { query: { from, to, fish: asQuery(fish), ...(toolSetId ? { tools: toolSetId } : {}), ...(waterGoesAlong ? { water: '1' } : {}), ...(planId ? { plan: planId } : {}) } } : null, { keepsPrevious: true })
  return isAsked ? (data ?? null) : null
}

/** Where fish may go, the best first. */
export function useMoveChoices(from: string | null, fish: readonly MovedFish[], planId: string | null = null) {
  const isAsked = from !== null && fish.length > 0
  const { data } = useRead(movesApi.readMoveChoices, isAsked ? { query: { from, fish: asQuery(fish), ...(planId ? { plan: planId } : {}) } } : null, { keepsPrevious: true })
  return isAsked ? (data?.places ?? null) : null
}

/** With what fish of a tank are caught. */
export function useCatch(tankId: string | null, fish: readonly MovedFish[], isChosen: boolean) {
  const isAsked = tankId !== null && fish.length > 0
  const { data } = useRead(movesApi.readCatch, isAsked ? { params: { tankId }, query: { fish: asQuery(fish), ...(isChosen ? { chosen: '1' } : {}) } } : null, { keepsPrevious: true })
  return isAsked ? (data?.cards ?? []) : []
}

/** How newcomers would come in. */
export function useIntroductionPlan(asked: { from: string; to: string; fish: readonly MovedFish[]; hasMirror: boolean; hasDivider: boolean; dominants: readonly string[] } | null) {
  const { data, problem } = useRead(
    introductionsApi.readIntroductionPlan,
    asked ? { query: { from: asked.from, to: asked.to, fish: asQuery(asked.fish), ...(asked.hasMirror ? { mirror: '1' } : {}), ...(asked.hasDivider ? { divider: '1' } : {}), ...(asked.dominants.length > 0 ? { dominants: asked.dominants.join(',') } : {}) } } : null,
    { keepsPrevious: true },
  )
  return { planned: data, problem }
}

export function useIntroduction(introductionId: string) {
  const { data, problem } = useRead(introductionsApi.readIntroduction, { params: { introductionId } }, { everyMs: 15_000 })
  return { introduction: data, problem }
}

const form = { refusals: 'form' } as const

/** Writes of moves; all wait for the server's word, because the screen says beside the field what does not fit. */
export function useMoveWrites() {
  const write = useWrite()
  return {
    move: (body: Omit<MoveTogether, 'happenedAtMs'>) => write(movesApi.moveTogether, { label: `move of ${body.fish.reduce((sum, { quantity }) => sum + quantity, 0)}`, body: { ...body, happenedAtMs: nowMs() } }, form),
    lift: (tankId: string) => write(movesApi.recordLift, { params: { tankId }, label: 'a lift', body: { happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    undoLift: (liftId: string) => write(movesApi.undoLift, { params: { liftId }, label: 'a lift taken back', body: { happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    loseInVessel: (vesselId: string, { speciesId, strain }: { speciesId: string; strain: string | null }, quantity: number, cause: LossCause) => write(movesApi.loseInVessel, { params: { vesselId }, label: `loss of ${quantity}`, body: { speciesId, strain, quantity, cause, note: null, happenedAtMs: nowMs() } }, form),
    beginIntroduction: (body: { tankId: string; fromTankId: string; fish: MovedFish[]; hasMirror: boolean; hasDivider: boolean; dominants: string[] }) => write(introductionsApi.beginIntroduction, { label: 'introduction', body: { ...body, happenedAtMs: nowMs() } }, form),
    /** What happened in an introduction. */
    happened: (introductionId: string, kind: RecordIntroduction['kind'], more: Partial<Omit<RecordIntroduction, 'kind' | 'happenedAtMs'>>) =>
      write(introductionsApi.recordIntroduction, { params: { introductionId }, label: kind, body: { kind, stepIndex: null, who: null, level: null, vesselId: null, toTankId: null, note: null, ...more, happenedAtMs: nowMs() } }, form),
    undoIntroduction: (introductionId: string) => write(introductionsApi.undoIntroduction, { params: { introductionId }, label: 'taking back', body: { happenedAtMs: nowMs() } }, form),
    endIntroduction: (introductionId: string) => write(introductionsApi.endIntroduction, { params: { introductionId }, label: 'introduction closed', body: { happenedAtMs: nowMs() } }, form),
  }
}
