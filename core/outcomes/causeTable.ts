/** What may lie behind losses, in the order in which equals stand. None names an agent or a dose. */
export const causes = {
  journey: 'the journey',
  opening: 'opening and acclimation',
  gills: 'the gills (chemical or parasites: the record cannot tell which)',
  spreading: 'something that spreads in this water',
  contact: 'something brought in by a contact or a move',
  fighting: 'fighting',
  escape: 'jumping or the pump intake',
  water: 'the water or the gear of this system',
  lot: 'this lot itself, weak when it came',
  starving: 'not eating',
} as const
export type Cause = keyof typeof causes

/** Ratios by which a cause grows likelier: when the answer is yes, and when it is no. */
export type Ratios = readonly [yes: number, no: number]
export interface EvidenceRow {
  /** Evidence of one group says much the same: only the strongest of it counts for a cause. */
  group: string
  /** Where to look for the answer. */
  look: string
  ratios: Readonly<Partial<Record<Cause, Ratios>>>
}

/** What speaks for and against each cause; all of it house guidance. */
export const evidenceTable = {
  deadInBag: { group: 'arrival', look: 'the counts of the other bags of this crate', ratios: { journey: [4, 0.5], lot: [2, 1] } },
  longTransit: { group: 'arrival', look: 'when the crate was packed', ratios: { journey: [4, 0.5], opening: [2, 1] } },
  weakOnArrival: { group: 'arrival', look: 'the four looks of these bags', ratios: { journey: [2, 0.5], lot: [4, 0.5] } },
  early: { group: 'onset', look: 'the days of the deaths', ratios: { journey: [4, 0.25], opening: [4, 0.25], gills: [0.25, 2], spreading: [0.5, 1], starving: [0.25, 2] } },
  late: { group: 'onset', look: 'the days of the deaths', ratios: { gills: [4, 0.25], spreading: [2, 1], journey: [0.25, 1], opening: [0.5, 1] } },
  stepOverLimit: { group: 'run', look: 'the run of these bags: steps of temperature, salinity and pH', ratios: { opening: [4, 0.5], gills: [2, 1] } },
  ammoniaOverLimit: { group: 'run', look: 'ammonia and pH of a shut bag of the next crate', ratios: { gills: [4, 0.5], opening: [2, 1] } },
  gasping: { group: 'breath', look: 'breathing, at the surface and at the outflow', ratios: { gills: [4, 0.25], water: [2, 0.5], spreading: [2, 1] } },
  stillEating: { group: 'appetite', look: 'whether they eat', ratios: { gills: [2, 0.5], starving: [0.125, 2], spreading: [0.5, 1] } },
  notEating: { group: 'appetite', look: 'whether they eat', ratios: { starving: [8, 0.25], gills: [0.5, 1] } },
  spots: { group: 'skin', look: 'skin and fins by torch, for spots or film', ratios: { spreading: [8, 0.5], gills: [0.25, 2], fighting: [0.5, 1] } },
  wounds: { group: 'wounds', look: 'wounds, fins, who chases whom after the lights go out', ratios: { fighting: [8, 0.25], spreading: [0.5, 1] } },
  otherLotsHere: { group: 'spread', look: 'the other lots of this tank', ratios: { spreading: [4, 0.5], water: [4, 0.5], lot: [0.25, 4], fighting: [0.5, 1], journey: [0.25, 1] } },
  otherTanksHere: { group: 'spread', look: 'the other tanks on this water', ratios: { spreading: [4, 0.5], water: [4, 0.5], lot: [0.25, 2], fighting: [0.25, 2] } },
  sameCrateElsewhere: { group: 'kin', look: 'fish of the same crate in other waters', ratios: { journey: [4, 0.5], lot: [4, 0.5], opening: [2, 1], water: [0.25, 2], spreading: [0.5, 1], fighting: [0.25, 1] } },
  allAtOnce: { group: 'tempo', look: 'when each death was found', ratios: { water: [8, 0.5], spreading: [0.5, 1], lot: [0.125, 1], gills: [0.125, 1] } },
  readingOff: { group: 'water', look: 'ammonia, nitrite, temperature, salinity and oxygen of this water, now', ratios: { water: [8, 0.25] } },
  noBody: { group: 'body', look: 'the floor, the overflow, the pump and the filter', ratios: { escape: [8, 0.25] } },
  newcomers: { group: 'contact', look: 'what came into this water or was shared with it in the two weeks before', ratios: { contact: [8, 0.25], spreading: [2, 0.5], fighting: [2, 1] } },
  movedLately: { group: 'contact', look: 'the moves of the three days before', ratios: { contact: [2, 1], fighting: [2, 1] } },
  thin: { group: 'body condition', look: 'bellies and backs, and the faeces', ratios: { starving: [4, 0.5], lot: [2, 1] } },
} as const satisfies Record<string, EvidenceRow>
export type Evidence = keyof typeof evidenceTable
export const evidenceNames = Object.keys(evidenceTable) as Evidence[]
