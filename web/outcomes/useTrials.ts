import { outcomesApi } from '../../core/outcomes/outcomes.api'
import type { StartTrial } from '../../core/outcomes/outcomes.schema'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

const form = { refusals: 'form' } as const

/** Trials with their crates and looks. */
export function useTrials() {
  const { data, problem } = useRead(outcomesApi.readTrials, {})
  return { trials: data, problem }
}

/** What a lead does to trials. */
export function useTrialWrites() {
  const write = useWrite()
  return {
    start: (input: StartTrial) => write(outcomesApi.startTrial, { label: 'a trial begins', body: input }, form),
    takeLook: (trialId: string) => write(outcomesApi.takeTrialLook, { params: { trialId }, label: 'a look at a trial', body: {} }, form),
    goOn: (trialId: string, crateId: string, words: string) => write(outcomesApi.answerTrialPause, { params: { trialId }, label: 'a trial goes on', body: { crateId, words } }, form),
    end: (trialId: string, because: string) => write(outcomesApi.endTrial, { params: { trialId }, label: 'a trial ends', body: { because } }, form),
  }
}

/** A lead answers for an alarm. */
export function useAnswerAlarm() {
  const write = useWrite()
  return (stream: string, found: string, outbreak: string | null) => write(outcomesApi.answerAlarm, { label: 'an alarm answered', body: { stream, found, outbreak } }, form)
}

/** An outbreak that was none. */
export function useUndoOutbreak() {
  const write = useWrite()
  return (outbreakId: string) => write(outcomesApi.undoOutbreak, { params: { outbreakId }, label: 'an outbreak taken back', body: {} }, form)
}
