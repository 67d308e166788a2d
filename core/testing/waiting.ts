import type { Pending } from '../commands/pending'

type Entry = Pick<Pending, 'command' | 'key' | 'input'> & Partial<Pending>

/** Writes that wait on a device, as a screen is shown them. */
export const waiting = (params: Pending['params'], entries: readonly Entry[]): Pending[] => entries.map((entry) => ({ staffId: 'me', isTouch: true, answeredAt: null, params, ...entry }))
