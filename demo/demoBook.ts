/** Lantern Quay Fishroom: an invented shop. All names, figures and fish stories in here are made up. */
export const demoPeople = {
  lead: { name: 'Imre', passphrase: 'lantern over the quay', pin: '1111' },
  keepers: [
    { name: 'Oona', pin: '2222' },
    { name: 'Teodor', pin: '3333' },
  ],
} as const

export const demoSystems = [
  { name: 'Fresh sale rack', water: 'fresh', sumpL: 420, rack: 'R1', tankCount: 8, perShelf: 4, tankKind: 'glass', netVolumeL: 58 },
  { name: 'Marine sale rack', water: 'marine', sumpL: 610, rack: 'M1', tankCount: 8, perShelf: 4, tankKind: 'glass', netVolumeL: 74 },
] as const

/** A line as the demo writes it: species, bags, fish per bag, tank. */
export type DemoLine = readonly [species: string, bags: number, perBag: number, tank: string]

export interface DemoCrate {
  supplier: string
  /** Days before the start of the demo; 0 is today. */
  daysAgo: number
  hoursUnderWay: number
  lines: readonly DemoLine[]
}

/** Crates of the past, all unpacked and placed. */
export const pastCrates: readonly DemoCrate[] = [
  {
    supplier: 'Hollow Reed Hatchery',
    daysAgo: 42,
    hoursUnderWay: 9,
    lines: [
      ['Harlequin rasbora', 4, 15, 'R1-01'],
      ['Cherry barb', 3, 10, 'R1-02'],
      ['Honey gourami', 3, 6, 'R1-03'],
      ['Kuhli loach', 2, 8, 'R1-04'],
      ['Dwarf rainbowfish', 3, 8, 'R1-06'],
    ],
  },
  {
    supplier: 'Pale Harbour Livestock',
    daysAgo: 36,
    hoursUnderWay: 26,
    lines: [
      ['Royal gramma', 5, 1, 'M1-01'],
      ['Firefish', 6, 1, 'M1-02'],
      ['Banggai cardinalfish', 3, 2, 'M1-03'],
      ['Tailspot blenny', 3, 1, 'M1-04'],
      ['Trochus snail', 2, 12, 'M1-05'],
    ],
  },
  {
    supplier: 'Hollow Reed Hatchery',
    daysAgo: 21,
    hoursUnderWay: 8,
    lines: [
      ['Harlequin rasbora', 2, 15, 'R1-05'],
      ['Cherry barb', 2, 10, 'R1-02'],
      ['Dwarf rainbowfish', 2, 8, 'R1-06'],
    ],
  },
  {
    supplier: 'Pale Harbour Livestock',
    daysAgo: 9,
    hoursUnderWay: 23,
    lines: [
      ['Yellow watchman goby', 4, 1, 'M1-06'],
      ['Cleaner shrimp', 6, 1, 'M1-05'],
      ['Banggai cardinalfish', 2, 3, 'M1-07'],
      ['Royal gramma', 2, 1, 'M1-01'],
    ],
  },
]

/** On the floor right now, half opened. */
export const openCrate: DemoCrate = {
  supplier: 'Hollow Reed Hatchery',
  daysAgo: 0,
  hoursUnderWay: 19.7,
  lines: [
    ['Harlequin rasbora', 6, 12, 'R1-05'],
    ['Cherry barb', 5, 8, 'R1-08'],
    ['Honey gourami', 4, 6, 'R1-03'],
    ['Kuhli loach', 4, 5, 'R1-04'],
    ['Dwarf rainbowfish', 3, 8, 'R1-07'],
  ],
}

/** Expected later today. */
export const dueCrate: DemoCrate = {
  supplier: 'Pale Harbour Livestock',
  daysAgo: 0,
  hoursUnderWay: 24,
  lines: [
    ['Firefish', 4, 1, 'M1-02'],
    ['Tailspot blenny', 3, 1, 'M1-04'],
    ['Yellow watchman goby', 2, 1, 'M1-06'],
    ['Captive-bred seahorse', 2, 1, 'M1-08'],
    ['Cleaner shrimp', 4, 1, 'M1-05'],
  ],
}
