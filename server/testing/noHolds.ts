import type { HoldsService } from '../holds/holds.service'

/** A room in which nobody is held, for tests of what goes by no clock. */
export const noHolds: Pick<HoldsService, 'daysAt' | 'dayOf' | 'agentsAt'> = { daysAt: () => () => null, agentsAt: () => () => [], dayOf: () => null }
