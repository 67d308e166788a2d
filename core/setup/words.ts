/** Where a fish was before it was traded. */
export const origins = ['wild', 'captive bred', 'pond raised', 'unknown'] as const
export type Origin = (typeof origins)[number]

/** How sure one is that a fish is what its line says. */
export const identities = ['sure', 'likely', 'doubtful'] as const
export type Identity = (typeof identities)[number]

/** Kinds of food, by how they are kept. */
export const foodKinds = ['live', 'frozen', 'gel', 'dry', 'fresh'] as const

/** Kinds of animal, as far as it matters for who may live together. */
export const animals = ['fish', 'shrimp', 'crab', 'snail', 'other invertebrate'] as const

export const temperaments = ['peaceful', 'peaceful in groups', 'fin nipper', 'territorial', 'fights its own kind', 'hunts small fish'] as const

/** How much a species bears; the limits of acclimation are scaled by it. */
export const toleranceLevels = ['hardy', 'normal', 'delicate', 'very delicate'] as const
export type Tolerance = (typeof toleranceLevels)[number]

/** What a species is known to take badly. */
export const sensitivities = ['copper', 'salt', 'formalin', 'medicine dyes', 'low oxygen', 'low pH', 'high nitrate', 'air', 'strong flow', 'bright light', 'netting'] as const
