import { useState } from 'react'
import { gateWords } from '../../core/holds/holdWords'
import type { PolicyView } from '../../core/holds/holdsView'
import { phaseKinds, type PhaseKind } from '../../core/holds/policy'
import { draftOf, phaseTicks, policyIdFor, policyOfDraft, releaseTicks, type PhaseDraft, type PolicyDraft, type TickedGate } from '../../core/holds/policyDraft'
import { readPolicy } from '../../core/holds/readPolicy.schema'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { ChoiceField, TextField, Tick } from '../ui/Field'
import { Problem } from '../ui/Notice'
import { useHoldPolicyWrites } from './useSetup'

interface Props {
  of: PolicyView
  isCopy: boolean
  taken: ReadonlySet<string>
  onDone: () => void
}
const kindWords: Readonly<Record<PhaseKind, string>> = { condition: 'feed up', observe: 'observe', treat: 'treat', stepDown: 'step down', watch: 'watch' }

/** A policy of the house: its phases, what begins them again, what release asks for. */
export function PolicyForm({ of, isCopy, taken, onDone }: Props) {
  const { save } = useHoldPolicyWrites()
  const [draft, setDraft] = useState<PolicyDraft>(() => ({ ...draftOf(of.policy), name: isCopy ? '' : of.policy.name }))
  const [problem, setProblem] = useState<string | null>(null)
  const set = (more: Partial<PolicyDraft>): void => setDraft({ ...draft, ...more })
  const setPhase = (index: number, more: Partial<PhaseDraft>): void => set({ phases: draft.phases.map((phase, at) => (at === index ? { ...phase, ...more } : phase)) })
  const submit = (): void => {
    const id = isCopy ? policyIdFor(draft.name, taken) : of.policy.id
    const read = readPolicy(policyOfDraft(draft, id))
    if (!read.ok) return setProblem(`${read.problems.join('. ')}.`)
    void save(id, read.policy, isCopy ? 0 : of.version).then(onDone, (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <section className="entry-form policy-form" aria-label={isCopy ? `A copy of ${of.policy.name}` : of.policy.name}>
      <div className="field-row">
        <TextField label="Name of the policy" maxLength={60} value={draft.name} onChange={(name) => set({ name })} />
        <ChoiceField label="Days count from" value={draft.start} onChange={(start) => set({ start: start === 'opened' ? 'opened' : 'placed' })}>
          <option value="placed">the tank</option>
          <option value="opened">the opening of the bag</option>
        </ChoiceField>
      </div>
      <ol className="own-steps">
        {draft.phases.map((phase, index) => (
          <li key={index}>
            <div className="field-row">
              <TextField label="Phase" maxLength={40} value={phase.id} onChange={(id) => setPhase(index, { id })} />
              <ChoiceField label="What it is for" value={phase.kind} onChange={(kind) => setPhase(index, { kind: phaseKinds.find((each) => each === kind) ?? 'watch' })}>
                {phaseKinds.map((kind) => (
                  <option key={kind} value={kind}>
                    {kindWords[kind]}
                  </option>
                ))}
              </ChoiceField>
              <TextField label="At least" unit="days" inputMode="numeric" value={phase.days} onChange={(days) => setPhase(index, { days })} />
              <TextField label="Better" unit="days" isOptional inputMode="numeric" value={phase.wishDays} onChange={(wishDays) => setPhase(index, { wishDays })} />
            </div>
            <Ticks label={`${phase.id} asks for`} offered={phaseTicks} ticked={phase.ticks} onChange={(ticks) => setPhase(index, { ticks })} />
            {draft.phases.length > 1 && (
              <Button look="quiet" onClick={() => set({ phases: draft.phases.filter((_, at) => at !== index) })}>
                not this phase
              </Button>
            )}
          </li>
        ))}
      </ol>
      <Button onClick={() => set({ phases: [...draft.phases, { id: `phase ${draft.phases.length + 1}`, kind: 'watch', days: '7', wishDays: '', ticks: [], kept: { gates: [] } }] })}>one more phase</Button>
      <div className="field-row">
        <Back label="A sign begins again" value={draft.signBack} phases={draft.phases} onChange={(signBack) => set({ signBack })} />
        <ChoiceField label="of fish in" value={draft.signReach} onChange={(reach) => set({ signReach: reach === 'lot' || reach === 'tank' ? reach : 'water' })}>
          <option value="lot">that lot</option>
          <option value="tank">its tank</option>
          <option value="water">its water</option>
        </ChoiceField>
        <Back label="Fish added begin again" value={draft.addBack} phases={draft.phases} onChange={(addBack) => set({ addBack })} />
        <ChoiceField label="in" value={draft.addBy} onChange={(by) => set({ addBy: by === 'tank' ? 'tank' : 'water' })}>
          <option value="tank">the same tank</option>
          <option value="water">the same water</option>
        </ChoiceField>
        <Back label="Treatment begins again" value={draft.treatBack} phases={draft.phases} onChange={(treatBack) => set({ treatBack })} />
      </div>
      <Ticks label="Release asks for" offered={releaseTicks} ticked={draft.release} onChange={(release) => set({ release })} />
      <div className="entry-buttons">
        <Button look="act" onClick={submit}>
          {isCopy ? 'make this policy' : 'change it for everybody in it'}
        </Button>
        <Button onClick={onDone}>leave it</Button>
      </div>
      <Problem>{problem}</Problem>
    </section>
  )
}

const Back = ({ label, value, phases, onChange }: { label: string; value: string; phases: readonly PhaseDraft[]; onChange: (back: string) => void }) => (
  <ChoiceField label={label} value={value} onChange={onChange}>
    <option value="">nothing</option>
    {phases.map(({ id }, index) => (
      <option key={index} value={id}>
        {id}
      </option>
    ))}
  </ChoiceField>
)

const Ticks = ({ label, offered, ticked, onChange }: { label: string; offered: readonly TickedGate[]; ticked: readonly TickedGate[]; onChange: (ticks: TickedGate[]) => void }) => (
  <fieldset className="policy-ticks">
    <legend>{label}</legend>
    {offered.map((gate) => (
      <Tick key={gate} label={gateWords(gate)} isOn={ticked.includes(gate)} onChange={(isOn) => onChange(isOn ? [...ticked, gate] : ticked.filter((each) => each !== gate))} />
    ))}
  </fieldset>
)
