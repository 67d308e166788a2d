import { markedUnits, showSet } from '../units/units'
import type { IntroductionReason, IntroductionStep } from './introductionPlan'
import type { IntroductionEventKind, IntroductionState, LookLevel } from './introductionState'

/** One reason of a plan as one sentence. */
export function introductionReasonWords(reason: IntroductionReason): string {
  if (reason.code === 'eats') return `${reason.eater} swallows ${reason.eaten}: do not.`
  const words: Record<Exclude<IntroductionReason['code'], 'eats'>, string> = {
    guessed: 'Who rules is guessed by size: say so where you know better.',
    'no-box': 'No box is free for a bully: have one ready.',
    'shared-water': 'The water is shared with other tanks: no big change.',
    'weight-unknown': 'The weight of a dominant is not known, so no bucket can be reckoned.',
    'too-many-to-catch': 'More dominants than can be caught in a day.',
    'vessels-short': 'No bucket bears them long enough.',
    'no-divider': 'No divider is at hand.',
    'nobody-dominant': 'Nobody there rules.',
    'too-small-to-matter': 'The newcomers are too small to be fought.',
  }
  return words[reason.code]
}

/** A step as it is told at the tank; `vessels` are names of those that are filled, figures stand in it marked (`wordFigures`). */
export function introductionStepWords({ code, litres, minutes }: IntroductionStep, names: { dominants: string; subdominants: string; newcomers: string; vessels: string }): string {
  const volume = litres === undefined ? '' : showSet('volume', litres, markedUnits)
  const words: Record<IntroductionStep['code'], string> = {
    'fill-vessels': `Fill ${names.vessels || 'the buckets'} with tank water, ${volume}, air in`,
    'dominants-out': `${names.dominants} out, lid on`,
    'subdominants-out': `${names.subdominants} out, lid on`,
    change: `Change ${volume} of water`,
    rearrange: 'Rearrange the decor: no place is anybody’s',
    'divider-in': 'Divider in',
    'newcomers-in': `${names.newcomers} in`,
    'subdominants-back': `${names.subdominants} back`,
    'dominants-back': `${names.dominants} back`,
    'divider-out': 'Divider out',
    'lights-off': `Lights off for ${Math.round(minutes / 60)} h`,
    'mirror-on': `Mirror on the glass for ${Math.round(minutes / 60)} h`,
    look: 'Look',
  }
  return words[code]
}

/** What happened, in a few words. */
export function introductionEventWords({ kind, who, level }: { kind: IntroductionEventKind; who?: string | null; level?: LookLevel | null }): string {
  const words: Record<IntroductionEventKind, string> = {
    in: `${who ?? 'Newcomers'} in`,
    back: `${who ?? 'Fish'} back`,
    box: `${who ?? 'A bully'} into a box`,
    'divider out': 'Divider out',
    look: level === 'quiet' ? 'Looked: quiet' : level === 'hurt' ? 'Looked: hurt' : 'Looked: chased',
    dead: `${who ?? 'A newcomer'} dead`,
    'taken out': 'Newcomers taken out',
  }
  return words[kind]
}

/** What is to be done next, in a few words; null where nothing is. */
export function proposalWords(proposes: IntroductionState['proposes']): string | null {
  return proposes === null ? null : { box: 'Box the bully', return: 'Its days in the box are over: back, and look', look: 'Look', 'take out': 'Take the newcomers out' }[proposes]
}
