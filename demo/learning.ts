import { isRinging } from '../core/outcomes/lossAlarmState'
import type { AlarmsView } from '../core/outcomes/outcomeViews'
import { lookAgain } from './acclimating'
import type { Commander } from './commander'
import type { Furnished } from './furnish'

interface Scene extends Furnished {
  commander: Commander
}

/** The day on which the lead began to try two schools against each other. */
const trialBegan = 48
/** Days on which the lead sat down with the alarms. */
const everyDays = 6
const foundWords = ['asked the supplier; the next crate comes by day', 'a heater that stood too low, set right', 'nothing in water or gear; counted as bad luck of one crate'] as const
/** What a lead does at the end of a day: looks again at fish of the bench, answers for alarms, and begins a trial once nobody can tell. */
export async function learn(scene: Scene, daysAgo: number, atMs: number): Promise<void> {
  const { commander, people: { lead } } = scene
  await lookAgain(scene, atMs)
  if (daysAgo === trialBegan) {
    const body = { schoolA: 'Net-over', schoolB: 'Slow drip, still', suppliers: ['Hollow Reed Hatchery'], day: 7, looks: 3, lossPercentA: 4, lossPercentB: 14, note: 'half of the room swears by the drip' }
    await commander.run('startTrial', {}, body, lead, atMs)
  }
  if (daysAgo % everyDays !== 2) return
  const { alarms } = commander.ask<AlarmsView>('/api/outcomes/alarms', {}, atMs)
  const ringing = alarms.filter(isRinging)
  for (const [index, { stream }] of ringing.entries()) await commander.run('answerAlarm', {}, { stream, found: foundWords[(daysAgo + index) % foundWords.length], outbreak: null }, lead, atMs)
}
