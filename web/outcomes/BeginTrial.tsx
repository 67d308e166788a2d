import { useState } from 'react'
import type { TrialsView } from '../../core/outcomes/outcomeViews'
import { samplesNeeded } from '../../core/outcomes/trialLook'
import { plural } from '../../core/words/plural'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { ChoiceField, TextField, Tick } from '../ui/Field'
import { Problem } from '../ui/Notice'
import { useTrialWrites } from './useTrials'

/** A trial as a lead plans it: which two, of whom, for which difference; what it takes is said before it begins. */
export function BeginTrial({ view: { proposal, schools, suppliers, icc } }: { view: TrialsView }) {
  const { start } = useTrialWrites()
  const [draft, setDraft] = useState({ schoolA: proposal?.schools[0] ?? schools[0] ?? '', schoolB: proposal?.schools[1] ?? schools[1] ?? '', day: '7', looks: '3', lossPercentA: '10', lossPercentB: '20', note: '' })
  const [chosen, setChosen] = useState<readonly string[]>(suppliers.map(({ name }) => name))
  const [problem, setProblem] = useState<unknown>(null)
  const errors = errorsByField(problem) ?? {}
  const set = (name: keyof typeof draft) => (value: string): void => setDraft({ ...draft, [name]: value })
  const field = (name: 'day' | 'looks' | 'lossPercentA' | 'lossPercentB', label: string, unit?: string) => <TextField label={label} unit={unit} inputMode="numeric" value={draft[name]} onChange={set(name)} problem={errors[name] ?? null} />
  const school = (name: 'schoolA' | 'schoolB', label: string) => (
    <ChoiceField label={label} value={draft[name]} onChange={set(name)} problem={errors[name] ?? null}>
      {schools.map((each) => (
        <option key={each}>{each}</option>
      ))}
    </ChoiceField>
  )
  const begin = (): void =>
    void start({ schoolA: draft.schoolA, schoolB: draft.schoolB, suppliers: [...chosen], day: Number(draft.day), looks: Number(draft.looks), lossPercentA: Number(draft.lossPercentA), lossPercentB: Number(draft.lossPercentB), note: draft.note || null }).then(() => setProblem(null), setProblem)
  return (
    <section className="row-section">
      <h2>Begin a trial</h2>
      {proposal && <p>{proposal.words}</p>}
      <div className="outcome-filter-fields">
        {school('schoolA', 'One school')}
        {school('schoolB', 'The other')}
        {field('lossPercentA', 'Lost now', 'in 100')}
        {field('lossPercentB', 'A loss that would matter', 'in 100')}
        {field('day', 'Followed to day')}
        {field('looks', 'Looks on the way')}
        <TextField label="Note" isOptional value={draft.note} onChange={set('note')} />
      </div>
      <div className="trial-suppliers" role="group" aria-label="Whose crates">
        {suppliers.map(({ name }) => (
          <Tick key={name} label={name} isOn={chosen.includes(name)} onChange={(isOn) => setChosen(isOn ? [...chosen, name] : chosen.filter((each) => each !== name))} />
        ))}
      </div>
      <Problem>{errors.suppliers ?? null}</Problem>
      <p>{sizeWords(draft, suppliers.filter(({ name }) => chosen.includes(name)), icc)}</p>
      <Button look="act" size="hand" onClick={begin}>
        begin, and draw the schedule
      </Button>
      <Problem>{problem !== null && Object.keys(errors).length === 0 ? sentenceOf(problem) : null}</Problem>
      <p className="aside-word">The schedule is drawn once and nobody sees more than the next crate. A crate for which either school breaks a house limit never takes part; heavy losses in three days pause it. The bench offers the school; a lead may overrule, and the crate counts as it was given.</p>
    </section>
  )
}

/** What it takes, before it begins. */
function sizeWords({ lossPercentA, lossPercentB, looks }: Record<'lossPercentA' | 'lossPercentB' | 'looks', string>, suppliers: TrialsView['suppliers'], icc: number): string {
  const perWeek = suppliers.reduce((sum, { cratesPerWeek }) => sum + cratesPerWeek, 0)
  const [a, b] = [Number(lossPercentA) / 100, Number(lossPercentB) / 100]
  if (perWeek === 0 || !(a > 0 && b > 0 && a < 1 && b < 1)) return 'Say whose crates, and which losses.'
  const fishPerCrate = suppliers.reduce((sum, each) => sum + each.fishPerCrate * each.cratesPerWeek, 0) / perWeek
  const { cratesPerSchool, weeks, fishAlone } = samplesNeeded({ lossA: a, lossB: b, fishPerCrate, icc, looks: Number(looks) || 1, cratesPerWeek: perWeek })
  if (cratesPerSchool === null || weeks === null) return 'Equal losses need no trial: say which difference would matter.'
  return `It takes ${plural(cratesPerSchool, 'crate')} of each school, about ${plural(weeks, 'week')} at ${perWeek.toFixed(1)} crates a week; ${fishAlone} fish a side if fish were independent, which they are not.${weeks > 104 ? ' More than two years: not begun.' : ''}`
}
