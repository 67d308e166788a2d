/** Where a fish was before it was traded. */
export const origins = ['wild', 'captive bred', 'pond raised', 'unknown'] as const
export type Origin = (typeof origins)[number]

/** How sure one is that a fish is what its line says. */
export const identities = ['sure', 'likely', 'doubtful'] as const
export type Identity = (typeof identities)[number]

/** Kinds of food, by how they are kept. */
export const foodKinds = ['live', 'frozen', 'gel', 'dry', 'fresh'] as const

/** How much a species bears; the limits of acclimation are scaled by it. */
export const toleranceLevels = ['hardy', 'normal', 'delicate', 'very delicate'] as const
export type Tolerance = (typeof toleranceLevels)[number]

/** What is there or is not, in a register where nobody may have said. */
export const yesOrNo = ['yes', 'no'] as const

/** Whether bacteria of a filter take up what fish give off: *young* is some weeks old. */
export const filterStates = ['none', 'young', 'running'] as const
export type FilterState = (typeof filterStates)[number]
