import { useState } from 'react'
import type { Verdict } from '../../core/acclimation/judge'
import { offeredSchools, type AcclimationQuestion } from '../../core/acclimation/question'
import { nameOfSchool, type School } from '../../core/acclimation/schools'
import type { BagFigures, BagWords } from '../../core/bench/bagFigures'
import type { BenchSubject } from '../../core/bench/benchView'
import { mayBePooled } from '../../core/bench/fishRules'
import type { Limits } from '../../core/limits/houseLimits'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useAirlines } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { RuleRefusal, ruleRefusalOf, type AgainstRule } from '../ui/RuleRefusal'
import { Problem } from '../ui/Notice'
import { plural } from '../ui/format'
import { useGoOn } from '../ui/useGoOn'
import { readNumber, useUnits } from '../ui/useUnits'
import { startBody, usualVessel } from './startBody'
import { useBenchWrites } from './useBench'

interface Props {
  subject: BenchSubject
  figures: BagFigures
  words: BagWords
  question: AcclimationQuestion
  school: School | null
  schools: readonly School[]
  verdict: Verdict | null
  sentence: string | null
  limits: Limits
  /** Whether this is the next thing to do; something else may come first. */
  isFirst: boolean
  onSchool: (key: string) => void
}

/** Begins the run: one touch with what is usual, or vessel, airline and light chosen first. */
export function StartRun({ subject, figures, words, question, school, schools, verdict, sentence, limits, isFirst, onSchool }: Props) {
  const goOn = useGoOn()
  const units = useUnits()
  const airlines = useAirlines()
  const { startRun } = useBenchWrites()
  const [isOpen, setOpen] = useState(false)
  const [vessel, setVessel] = useState('bucket')
  const [typedL, setTypedL] = useState('')
  const [airlineId, setAirline] = useState('')
  const [wantsPooled, setPooled] = useState(question.bags > 1)
  const canPool = question.bags > 1 && mayBePooled(subject.kinds)
  const isPooled = wantsPooled && canPool
  // As is advised: low until they have settled.
  const [isDark, setDark] = useState(true)
  const [toOutside, setToOutside] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [refused, setRefused] = useState<unknown>(null)
  const [isSending, setSending] = useState(false)
  const offered = offeredSchools(question, schools)
  const { usualL, usesVessel } = school ? usualVessel(school, question, limits, isPooled) : { usualL: 1, usesVessel: false }
  const vesselL = typedL.trim() === '' ? usualL : units.read('volume', typedL)
  const dropsPerMl = airlines.find(({ id }) => id === airlineId)?.dropsPerMl ?? 20
  const judged = verdict?.schools.find(({ key }) => key === school?.key)
  const isOutside = subject.tank === null && subject.lineIds.length === 0
  const cannot = subject.sources.length === 0 ? 'Open the bags in Unpack first.' : subject.tank === null && !isOutside ? 'Plan a tank first, above.' : isOutside && toOutside.trim() === '' ? 'Say to whom they go.' : school === null ? 'Choose a school.' : null
  const begin = async (against: AgainstRule | null = null): Promise<void> => {
    if (!school) return
    setSending(true)
    setErrors({})
    setProblem(null)
    setRefused(null)
    try {
      const { id } = await startRun({
        ...startBody(subject, figures, words),
        ...(against ?? {}),
        ...{ kind: 'acclimation', schoolKey: school.key, variant: school.variant === 'slowed float' ? school.variant : null, agentId: null, toOutside: isOutside ? toOutside : null, isPooled, vessel: usesVessel ? vessel : 'their own bags', vesselL, dropsPerMl, isDark, sentence },
        predicted: judged ? { worst: judged.worst, binds: judged.binds } : null,
      })
      goOn(`/bench/runs/${id}`)
    } catch (error) {
      if (ruleRefusalOf(error)) return (setSending(false), setRefused(error))
      const byField = errorsByField(error)
      setErrors(byField ?? {})
      if (byField) setOpen(true)
      setProblem(sentenceOf(error))
    }
    setSending(false)
  }
  return (
    <section className="start-run" aria-label="Begin the run">
      {isOutside && (
        <TextField label="To whom" hint="the customer or the other room; the fish leave our books when they are counted out" problem={errors.toOutside} maxLength={80} value={toOutside} onChange={setToOutside} />
      )}
      {(isOpen || verdict === null) && (
        <div className="desk-fields">
          <ChoiceField label="School" problem={errors.schoolKey} value={school?.key ?? ''} onChange={onSchool}>
            {school === null && <option value="">choose</option>}
            {offered.map((each) => (
              <option key={each.key} value={each.key}>
                {each.name}
              </option>
            ))}
          </ChoiceField>
          {usesVessel && (
            <>
              <TextField label="Vessel" problem={errors.vessel} maxLength={80} value={vessel} onChange={setVessel} />
              <TextField label="It holds" unit={units.label('volume')} hint={`${units.show('volume', usualL)} if left out`} problem={errors.vesselL ?? (typedL.trim() !== '' && !(readNumber(typedL) > 0) ? 'A volume above nothing' : null)} inputMode="decimal" value={typedL} onChange={setTypedL} />
              <ChoiceField label="Airline" hint="drops in a millilitre, as counted" problem={errors.dropsPerMl} value={airlineId} onChange={setAirline}>
                <option value="">nominal, 20 drops</option>
                {airlines.map((airline) => (
                  <option key={airline.id} value={airline.id}>
                    {airline.name}, {airline.dropsPerMl} drops
                  </option>
                ))}
              </ChoiceField>
            </>
          )}
        </div>
      )}
      <div className="entry-buttons">
        <Button look={isFirst ? 'act' : 'plain'} disabled={cannot !== null || isSending || !(vesselL > 0)} onClick={() => void begin()}>
          Start: {school ? nameOfSchool(school) : 'choose a school'}
        </Button>
        <Button aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          Vessel and school
        </Button>
        {usesVessel && canPool && (
          <Button aria-pressed={isPooled} onClick={() => setPooled(!isPooled)}>
            {isPooled ? `${plural(question.bags, 'bag')} in one vessel` : 'one bag at a time'}
          </Button>
        )}
        <Button aria-pressed={isDark} onClick={() => setDark(!isDark)}>
          lights {isDark ? 'low' : 'on'}
        </Button>
      </div>
      <RuleRefusal problem={refused} mayRescue onAgain={(against) => void begin(against)} />
      {cannot && <p className="aside-word">{cannot}</p>}
      <Problem>{problem}</Problem>
    </section>
  )
}
