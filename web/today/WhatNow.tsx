import { Link } from 'react-router'
import { summaryStage } from '../../core/crates/crateSummary'
import type { RaisedTank, TodayView } from '../../core/today/todayView'
import { nowMs } from '../api/clock'
import { formatSpan, plural } from '../ui/format'

/** The one thing to turn to, with its reason. */
export function WhatNow({ today }: { today: TodayView }) {
  const late = today.runs.find(({ isForgotten, isAlarm }) => isForgotten || isAlarm)
  if (late) return <>Now: <Link to={`/bench/runs/${late.id}`}>run {late.number}, {late.species}</Link>. {late.words}</>
  const poison = today.losses.find(({ isPoison }) => isPoison)
  if (poison) return <>Now: <Link to={`/room/${poison.tankCode}`}>{poison.tankCode}</Link>. A {poison.species} died there and poisons its water: out, large water change, carbon.</>
  const acts = today.raised.filter(({ level }) => level === 'act')
  // What may take a whole water goes before bags that wait; fish that only refuse do not.
  const grave = acts.find(({ act }) => act.some(({ proposal }) => proposal === 'ask a veterinarian'))
  if (grave) return <Acting tank={grave} />
  const crate = today.crates[0]
  const stage = crate && summaryStage(crate)
  if (crate && stage === 'opening') return <>Now: <Link to={`/crates/${crate.id}/unpack`}>unpack crate {crate.number}</Link>. {plural(crate.bagCount - crate.openedCount, 'bag')} still shut{crate.packedAtMs ? `, ${formatSpan(nowMs() - crate.packedAtMs)} since packing` : ''}.</>
  if (crate && stage === 'placing') return <>Now: <Link to={`/crates/${crate.id}/unpack`}>place crate {crate.number}</Link>. {crate.inBags} fish still stand in their bags.</>
  if (acts[0]) return <Acting tank={acts[0]} />
  if (crate?.expectedAtMs && crate.expectedAtMs < nowMs()) return <>Now: <Link to={`/crates/${crate.id}`}>crate {crate.number}</Link> was due {formatSpan(nowMs() - crate.expectedAtMs)} ago.</>
  if (today.unchecked.length > 0) return <>Now: <Link to="/rounds">walk the round</Link>. {plural(today.unchecked.length, 'tank was', 'tanks were')} not looked at yet{crate?.expectedAtMs ? `, and crate ${crate.number} comes in ${formatSpan(crate.expectedAtMs - nowMs())}` : ''}.</>
  if (crate) return <>Next: <Link to={`/crates/${crate.id}`}>crate {crate.number}</Link> from {crate.supplier}{crate.expectedAtMs ? `, in ${formatSpan(crate.expectedAtMs - nowMs())}` : ''}.</>
  return <>Nothing waits. Every stocked tank was looked at.</>
}

const Acting = ({ tank: { code, reasons } }: { tank: RaisedTank }) => <>Now: <Link to={`/room/${code}`}>{code}</Link>. {reasons[0]}: look again within an hour.</>
