import { useState } from 'react'
import { rulesAgainst } from '../../core/tankChoice/explainChoice'
import type { Prepared } from '../../core/tankChoice/prepareChoice'
import type { Choice, ChoiceView } from '../../core/tankChoice/tankChoice'
import { ApiProblem, errorsByField, sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button, ButtonLink } from '../ui/Button'
import { TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Notice, Problem } from '../ui/Notice'
import { useGoOn } from '../ui/useGoOn'
import { useCrateEdits } from './useCrates'

/** Keeps the plan. A rule that is broken asks a lead for a reason. */
export function SavePlan({ crateId, view, prepared, choice }: { crateId: string; view: ChoiceView; prepared: Prepared; choice: Choice }) {
  const { recorder } = useSession()
  const { chooseTanks } = useCrateEdits(crateId)
  const goOn = useGoOn()
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const { tanks, lines } = prepared.input
  const changed = view.now.flatMap(({ tankId, version }, line) => {
    const wanted = choice[line] === null || choice[line] === undefined ? null : (tanks[choice[line]]?.id ?? null)
    return wanted === tankId ? [] : [{ lineId: lines[line]?.id ?? '', tankId: wanted, version, override: reason.trim() || null }]
  })
  const broken = choice.some((tank, line) => tank !== null && changed.some(({ lineId }) => lineId === lines[line]?.id) && rulesAgainst(prepared, choice, line, tank).length > 0)
  const kept = view.now.filter(({ override }) => override !== null)
  const save = async (): Promise<void> => {
    setProblem(null)
    await chooseTanks({ choices: changed }).then(
      () => goOn(`/crates/${crateId}`),
      (error: unknown) => setProblem(error instanceof ApiProblem && error.code === 'stale' ? `${sentenceOf(error)}. Reload this page to plan with what stands now.` : (Object.values(errorsByField(error) ?? {})[0] ?? sentenceOf(error))),
    )
  }
  return (
    <section className="save-plan" aria-label="Keep the plan">
      {kept.map(({ override }, index) => (
        <Notice key={index}>
          Planned against a rule: {override}
        </Notice>
      ))}
      {broken &&
        (recorder.role === 'lead' ? (
          <TextField label="why all the same" size="hand" maxLength={500} placeholder="a hard rule is broken; the reason is kept" value={reason} onChange={setReason} />
        ) : (
          <Notice level="watch">This plan breaks a hard rule. Only a lead may plan it so.</Notice>
        ))}
      <Problem>{problem}</Problem>
      <div className="thumb-bar page-action">
        {changed.length > 0 ? (
          <Button look="act" size="hand" onClick={() => void save()}>
            <strong>Keep this plan</strong>
            <small>{plural(changed.length, 'line')} changed</small>
          </Button>
        ) : (
          <ButtonLink size="hand" to={`/crates/${crateId}`}>
            Back to the crate
          </ButtonLink>
        )}
      </div>
    </section>
  )
}
