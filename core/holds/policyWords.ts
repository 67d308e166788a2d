import { plural } from '../words/plural'
import { gateWords } from './holdWords'
import { gateName, type HoldPolicy, type Phase } from './policy'

const gatesOf = (names: readonly string[]): string => names.map(gateWords).join(', ')

function phaseWords({ id, days, counts, gates = [] }: Phase): string {
  const counted = counts === 'looked' ? ' looked at' : counts === 'atLevel' ? ' at level' : ''
  const asked = gatesOf(gates.map(gateName))
  return `${id}${days > 0 ? ` ${plural(days, 'day')}${counted}` : ''}${asked === '' ? '' : ` (${asked})`}`
}

/**
 * A policy in a few short sentences: its phases, and what begins them again.
 * @example policyWords(shopHold) // 'watch 14 days. A sign: watch again, its water. Fish added: watch again, its tank. Treatment: watch again.'
 */
export function policyWords({ phases, onSign, onAddition, onTreatment, release }: HoldPolicy): string {
  if (phases.length === 0) return 'No hold: ready at once, a recorded risk.'
  const again = [
    ...(onSign ? [`A sign: ${onSign.back} again, ${onSign.reach === 'lot' ? 'that lot' : `its ${onSign.reach}`}`] : []),
    ...(onAddition ? [`Fish added${onAddition.from === 'held' ? ' that are held' : ''}: ${onAddition.back} again, its ${onAddition.by}`] : []),
    ...(onTreatment ? [`Treatment: ${onTreatment.back} again`] : []),
    ...(release.length > 0 ? [`Release asks for ${gatesOf(release.map(gateName))}`] : []),
  ]
  return [phases.map(phaseWords).join(', then '), ...again].map((sentence) => `${sentence}.`).join(' ')
}
