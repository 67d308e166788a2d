import type { Ate } from '../../core/rounds/rounds.schema'

/** The feeding response as it is said on screen. */
export const ateWords: Record<Ate, string> = { all: 'all ate', most: 'most ate', some: 'some ate', none: 'none ate', 'not fed': 'not fed' }
