/** Closed lists of the species book: what an entry may say, in the words of the trade. */

/** Kinds of animal, as far as it matters for who may live together and for what they bear. */
export const animals = ['fish', 'amphibian', 'shrimp', 'crab', 'crayfish', 'snail', 'clam', 'anemone or coral', 'starfish, urchin or cucumber', 'other invertebrate'] as const

export const temperaments = ['peaceful', 'peaceful in groups', 'fin nipper', 'territorial', 'fights its own kind', 'hunts small fish'] as const

/** What of its surroundings a species takes badly; agents stand in columns of their own. */
export const sensitivities = ['low oxygen', 'low pH', 'high nitrate', 'air', 'strong flow', 'bright light', 'netting'] as const

/** How a species gets from one water into another. *As it grows*: young in fresh water, over weeks towards the sea, never quickly back. */
export const crossings = ['none', 'known', 'with losses', 'as it grows'] as const
export const hardnesses = ['soft', 'any', 'hard'] as const

/** What it hunts, bites or grazes beyond what its mouth swallows whole. */
export const prey = ['fry', 'small fish', 'shrimp', 'crabs', 'snails', 'small snails', 'clams', 'worms', 'starfish and urchins', 'anemones', 'corals', 'fins', 'plants'] as const

/** How many of one kind bear each other. */
export const ownKinds = ['group', 'pair', 'one male', 'males fight', 'one only', 'any number'] as const
/** How it is with others: *quiet* goes short beside *bold* and *bully*. */
export const companies = ['quiet', 'easy', 'bold', 'bully'] as const
export const habits = ['grazer', 'picker', 'hunter', 'sifter', 'filter feeder', 'scavenger', 'cleaner', 'slow eater', 'shy', 'bottom', 'surface', 'night', 'air breather'] as const
export const mouths = ['tiny', 'small', 'medium', 'large'] as const

/** Kinds of food that newcomers take first; a food of the room is found by the kinds it serves as. */
export const firstFoodKinds = [
  ...['copepods', 'rotifers', 'newly hatched brine shrimp', 'water fleas', 'green brine shrimp', 'mosquito larvae', 'mysis', 'chopped mussel', 'mussel on the shell', 'gel food', 'spinach'],
  ...['grazing sheet', 'fine granules', 'granules', 'worms', 'insects', 'sinking tablets', 'snails', 'live shrimp', 'grown-over surfaces'],
] as const
export const hungers = ['a day or two', 'a week', 'weeks'] as const

export const agentGroups = ['invertebrate', 'scaleless', 'dragonet', 'seahorse or pipefish', 'scorpionfish', 'wrasse', 'anthias', 'puffer or boxfish', 'shark or ray', 'soft-water fish', 'other'] as const
/** Whether an agent may be used: *with care* is measured, in steps, for fish that eat and are watched. */
export const agentWords = ['usual', 'with care', 'forbidden'] as const
export type AgentWord = (typeof agentWords)[number]

/** What can be in a water, by the column of the book that says whether a species bears it. */
export const agentColumns = { copper: 'copper', formalin: 'formalin', malachiteGreen: 'malachite green', methyleneBlue: 'methylene blue', salt: 'salt', praziquantel: 'praziquantel', chloroquine: 'chloroquine' } as const
export type AgentColumn = keyof typeof agentColumns
/** Agents that a water may hold. Acriflavine is told as malachite green: the same fish bear both badly. */
export const agentsInWater = Object.values(agentColumns)

/** How it hurts whoever handles it. */
export const hurts = ['venomous', 'toxin', 'stings', 'bites', 'pinches', 'sharp', 'locks in nets'] as const
export type Hurt = (typeof hurts)[number]
/** What it poisons when frightened or dying. */
export const poisons = ['no', 'its bag', 'the tank', 'when it dies'] as const
export const catchTools = ['net', 'soft net', 'cup', 'bag under water', 'by hand'] as const
export const finKinds = ['normal', 'long'] as const
export const escapes = ['no', 'jumps', 'climbs out', 'gaps'] as const
export const needs = ['land', 'sand', 'caves', 'wood', 'shells', 'strong flow', 'hitching post', 'dim light', 'strong light', 'grown-over surfaces', 'mature tank'] as const
export const broods = ['lays eggs', 'mouthbrooder', 'live-bearer', 'brood pouch', 'carries eggs', 'spawns freely', 'buds or divides'] as const
/** Reminders to look for papers, never legal advice. */
export const laws = ['CITES', 'threatened in the wild', 'restricted in places', 'health papers'] as const
