import type { BrokenRule } from '../../core/tankChoice/company'

export const rulesWords = (broken: readonly BrokenRule[]): string => broken.map(({ why }) => why).join('; ')
export const points = (value: number): string => String(Math.round(value * 10) / 10)
