import { Matrix, solve } from 'ml-matrix'

/**
 * Alarm on losses: a cumulative sum with one step per fish, in time order (Page 1954; Reynolds & Stoumbos 1999), in whole
 * numbers. Deaths that come in clusters, such as a lost bag, ring it more often than the table says.
 */

/** Points a death weighs, for a usual and a raised share of deaths. */
export function deathWeight(usual: number, raised: number): number {
  const perLiving = -Math.log((1 - raised) / (1 - usual))
  const perDeath = Math.log((raised * (1 - usual)) / (usual * (1 - raised)))
  return Math.round(perDeath / perLiving)
}

/** The score after one more fish: a living one takes a point off, never below 0; a dead one adds its weight less one. */
export const nextScore = (score: number, isDead: boolean, weight: number): number => (isDead ? score + weight - 1 : Math.max(0, score - 1))

/** Score at the end, without starting over after an alarm. */
export const scoreOf = (outcomes: readonly boolean[], weight: number): number => outcomes.reduce((score, isDead) => nextScore(score, isDead, weight), 0)

/**
 * Fish until the alarm on average, when so large a share dies: exact, by solving the chain of scores 0 to `alarmAt` − 1.
 * @param alarmAt - whole number of points, 1 and up.
 */
export function fishUntilAlarm(share: number, weight: number, alarmAt: number): number {
  const system = Matrix.eye(alarmAt)
  for (let score = 0; score < alarmAt; score += 1) {
    const alive = nextScore(score, false, weight)
    system.set(score, alive, system.get(score, alive) - (1 - share))
    const dead = nextScore(score, true, weight)
    if (dead < alarmAt) system.set(score, dead, system.get(score, dead) - share)
  }
  return solve(system, Matrix.columnVector(Array.from({ length: alarmAt }, () => 1))).get(0, 0)
}
