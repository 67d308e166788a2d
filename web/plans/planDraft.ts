import { useEffect, useState } from 'react'
import { useSearchParams } from 'react-router'
import { offeredFacts, type OfferedFact, type PlanFactInput } from '../../core/plans/plans.schema'
import type { ReadingKind } from '../../core/room/glass.schema'
import { readDesk } from '../ui/FigureField'
import { readingInput } from '../ui/readingInput'
import type { Units } from '../ui/useUnits'
import { withParam } from '../ui/withParam'

/** One thing a plan is to wait for, as it is typed. */
export interface FactDraft {
  is: OfferedFact
  on?: string
  tankId?: string
  cm?: string
  isEstimateEnough?: boolean
  crateId?: string
  thing?: string
  n?: string
  reading?: ReadingKind | undefined
  min?: string
  max?: string
  planId?: string
}

const figure = (typed: string | undefined): number | null => (typed === undefined || typed.trim() === '' ? null : Number(typed.replace(',', '.')))

/** What was typed, as it is sent; what is no number is refused beside its field. */
export const toFact =
  (units: Units) =>
  ({ is, on, tankId, cm, isEstimateEnough, crateId, thing, n, reading, min, max, planId }: FactDraft): PlanFactInput => {
    const bound = (typed: string | undefined): number | null => readDesk(readingInput(reading, ''), typed ?? '', units) ?? null
    return { is, on: on ?? null, tankId: tankId ?? null, cm: figure(cm), by: isEstimateEnough ? 'estimated' : null, crateId: crateId ?? null, thing: thing ?? null, n: figure(n), reading: reading ?? null, min: bound(min), max: bound(max), planId: planId ?? null }
  }

function factsIn(search: URLSearchParams): FactDraft[] {
  try {
    const read = JSON.parse(search.get('facts') ?? '[]') as unknown
    return Array.isArray(read) ? (read as FactDraft[]).filter((each) => offeredFacts.includes(each.is)) : []
  } catch {
    return []
  }
}

/** What was said so far of what a plan waits for; it stands in the address, and survives a reload. */
export function usePlanDraft() {
  const [search, setSearch] = useSearchParams()
  const [facts, setFacts] = useState<FactDraft[]>(() => factsIn(search))
  const [join, setJoin] = useState<'all' | 'any'>(() => (search.get('join') === 'any' ? 'any' : 'all'))
  const [takes, setTakes] = useState<'whole' | 'share'>(() => (search.get('takes') === 'whole' ? 'whole' : 'share'))
  const said = JSON.stringify(facts)
  useEffect(() => {
    const next = Object.entries({ facts: said, join, takes }).reduce((address, [name, value]) => withParam(address, name, value), search)
    if (next.toString() !== search.toString()) setSearch(next, { replace: true })
  }, [said, join, takes, search, setSearch])
  /** Says where they go. */
  const goTo = (tankId: string): void => setSearch((before) => withParam(before, 'to', tankId), { replace: true })
  return { search, goTo, facts, setFacts, join, setJoin, takes, setTakes }
}
