/** Lantern Quay Fishroom: an invented shop with a small hatchery. All names, figures and fish stories in here are made up. */
export const demoPeople = {
  lead: { name: 'Imre', passphrase: 'lantern over the quay', pin: '1111' },
  keepers: [
    { name: 'Oona', pin: '2222' },
    { name: 'Teodor', pin: '3333' },
  ],
} as const

/** Nine bodies of water. */
export const demoSystems = [
  { name: 'Fresh sale rack, hard', water: 'fresh', sharing: 'one water', sumpL: 420, rack: 'R1', tankCount: 12, perShelf: 4, tankKind: 'glass', netVolumeL: 58 },
  { name: 'Fresh sale rack, mixed', water: 'fresh', sharing: 'one water', sumpL: 380, rack: 'R2', tankCount: 10, perShelf: 5, tankKind: 'glass', netVolumeL: 52 },
  { name: 'Soft-water rack', water: 'fresh', sharing: 'one water', sumpL: 240, rack: 'S1', tankCount: 6, perShelf: 3, tankKind: 'glass', netVolumeL: 45 },
  { name: 'Marine sale rack', water: 'marine', sharing: 'one water', sumpL: 610, rack: 'M1', tankCount: 10, perShelf: 5, tankKind: 'glass', netVolumeL: 74 },
  { name: 'Marine quarantine', water: 'marine', sharing: 'each its own', sumpL: null, rack: 'Q1', tankCount: 6, perShelf: 3, tankKind: 'glass', netVolumeL: 40 },
  { name: 'Brackish rack', water: 'brackish', sharing: 'one water', sumpL: 260, rack: 'B1', tankCount: 6, perShelf: 3, tankKind: 'glass', netVolumeL: 60 },
  { name: 'Hospital corner', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'H1', tankCount: 2, perShelf: 2, tankKind: 'tub', netVolumeL: 110 },
  { name: 'Hatchery grow-outs', water: 'fresh', sharing: 'one water', sumpL: 300, rack: 'G1', tankCount: 9, perShelf: 3, tankKind: 'glass', netVolumeL: 96 },
  { name: 'Harbour café, customer tank', water: 'marine', sharing: 'one water', sumpL: 60, rack: 'C1', tankCount: 1, perShelf: 1, tankKind: 'glass', netVolumeL: 340 },
] as const

/** The water each system is kept at. */
export const demoWaters: Record<string, { tempC: number; salinityPpt: number; ph: number; alkalinityMeqL: number }> = {
  'Fresh sale rack, hard': { tempC: 25, salinityPpt: 0.3, ph: 7.7, alkalinityMeqL: 3.2 },
  'Fresh sale rack, mixed': { tempC: 25, salinityPpt: 0.3, ph: 7.6, alkalinityMeqL: 2.6 },
  'Soft-water rack': { tempC: 26, salinityPpt: 0.1, ph: 6.8, alkalinityMeqL: 1 },
  'Marine sale rack': { tempC: 25, salinityPpt: 34, ph: 8.2, alkalinityMeqL: 2.7 },
  'Marine quarantine': { tempC: 25, salinityPpt: 34, ph: 8.1, alkalinityMeqL: 2.6 },
  'Brackish rack': { tempC: 25, salinityPpt: 10, ph: 8, alkalinityMeqL: 2.6 },
  'Hospital corner': { tempC: 25, salinityPpt: 0.3, ph: 7.6, alkalinityMeqL: 2.8 },
  'Hatchery grow-outs': { tempC: 25, salinityPpt: 0.3, ph: 7.5, alkalinityMeqL: 2.4 },
  'Harbour café, customer tank': { tempC: 25, salinityPpt: 34, ph: 8.1, alkalinityMeqL: 2.9 },
}
/** Tanks that are there for something else than sale, by the first letters of their code. */
export const demoPurposes: readonly (readonly [prefix: string, purpose: string])[] = [
  ['Q1', 'quarantine'],
  ['H1', 'hospital'],
  ['G1', 'grow-out'],
  ['D1', 'display'],
  ['C1', 'customer'],
]

/** Two displays that are plumbed into the racks beside them: code, system, position, litres. */
export const demoDisplays = [
  ['D1-01', 'Fresh sale rack, hard', 1, 420],
  ['D1-02', 'Marine sale rack', 2, 510],
] as const

export const demoZones = ['Fresh side', 'Salt side', 'Quarantine', 'Hatchery'] as const
/** System by zone; what is not named has none. */
export const zoneOfSystem: Record<string, (typeof demoZones)[number]> = {
  'Fresh sale rack, hard': 'Fresh side',
  'Fresh sale rack, mixed': 'Fresh side',
  'Soft-water rack': 'Fresh side',
  'Marine sale rack': 'Salt side',
  'Brackish rack': 'Salt side',
  'Marine quarantine': 'Quarantine',
  'Hospital corner': 'Quarantine',
  'Hatchery grow-outs': 'Hatchery',
}
export const demoToolSets = [
  ['Green nets', 'Fresh side', 'green tape on the handle', 20, 'medium'],
  ['Blue nets', 'Salt side', 'blue tape on the handle', 25, 'coarse'],
  ['Red nets', 'Quarantine', 'red tape, own bucket', 15, 'medium'],
  ['White nets', 'Hatchery', 'white tape, fine mesh', 15, 'fine'],
] as const
/** What fish stand in for a while: name, kind, litres, air stone. */
export const demoVessels = [
  ['Bucket 1', 'bucket', 20, 'yes'],
  ['Bucket 2', 'bucket', 20, 'yes'],
  ['Bucket 3', 'bucket', 12, 'no'],
  ['Box 1', 'box', 3, null],
  ['Box 2', 'box', 3, null],
] as const
/** Front to back, height of the water, and decor, by the beginning of a tank's code. */
export const demoShapes = [
  ['D1', 55, 60, 'heavy'],
  ['C1', 60, 60, 'heavy'],
  ['H1', 50, 35, 'bare'],
  ['Q1', 35, 32, 'bare'],
  ['G1', 45, 40, 'bare'],
  ['', 40, 36, 'some'],
] as const
/** Invented figures for the demo; a real room enters those of its own product's label. */
export const demoAgents = [
  { name: 'Methylene blue', agent: 'methylene blue', strengthMgPerMl: 10, bathMgL: 2, bathMinutes: 20, substance: 'methylene blue', cautions: 'stains skin and silicone; never with invertebrates, never into a running filter; invented figures, enter those of your own label' },
  { name: 'Hydrogen peroxide', agent: 'hydrogen peroxide', strengthMgPerMl: 30, dipMgL: 75, dipMinutes: 5, cautions: 'eye protection; burns skin when concentrated; only fish that arrive strong; never with formalin, not for invertebrates; invented figures, enter those of your own label' },
  // The species book refers to these; figures are for whoever has the product and its label.
  { name: 'Copper, ionic', substance: 'copper', agent: 'copper (ionic)', strengthMgPerMl: 10, strengthBasis: 'as copper', targetMgL: 0.18, targetBasis: 'as copper', loMgL: 0.15, hiMgL: 0.2, cautions: 'invented figures, enter those of your own label; kills invertebrates; measured daily with a kit for ionic copper; never beside a binder' },
  { name: 'Copper, chelated', substance: 'copper', agent: 'copper (chelated)', cautions: 'kills invertebrates; other doses and another kit than ionic copper; never beside a binder' },
  { name: 'Formalin', substance: 'formalin', agent: 'formalin', cautions: 'toxic, suspected carcinogen: gloves, eye protection, open air; takes oxygen, aerate; never with hydrogen peroxide' },
  { name: 'Malachite green', substance: 'malachite green', cautions: 'stains, harmful to unborn children: gloves; hard on small tetras and scaleless fish; not for food fish' },
  { name: 'Praziquantel', substance: 'praziquantel', agent: 'praziquantel', activePercent: 50, strengthBasis: 'as active ingredient', targetMgL: 2, targetBasis: 'as active ingredient', cautions: 'invented figures, enter those of your own label; clouds the water, aerate; worms living in rock die of it' },
  { name: 'Chloroquine', substance: 'chloroquine', agent: 'chloroquine phosphate', cautions: 'prescription-only in many places; dark tank; kills algae and invertebrates' },
  { name: 'Salt, plain', substance: 'salt', agent: 'salt', cautions: 'without iodine or anti-caking agents; soft-water fish and plants bear little' },
  { name: 'Metronidazole', agent: 'metronidazole', cautions: 'prescription-only in many places; by feed or in the water, a veterinarian decides' },
] as const
export const demoFoods: readonly (readonly [name: string, kind: string, thawMinutes: number | null, servesAs: string[], note?: string])[] = [
  ['Copepods', 'live', null, ['copepods']],
  ['Brine shrimp, newly hatched', 'live', null, ['newly hatched brine shrimp']],
  ['Mosquito larvae, black', 'frozen', 40, ['mosquito larvae']],
  ['Mosquito larvae, red', 'frozen', 40, ['mosquito larvae'], 'can cause allergy: gloves, no dust of dried ones'],
  ['Mysis', 'frozen', 60, ['mysis']],
  ['Gel food, green', 'gel', 20, ['gel food']],
  ['Fine granules', 'dry', null, ['fine granules']],
  ['Granules', 'dry', null, ['granules']],
  ['Sinking tablets', 'dry', null, ['sinking tablets']],
  ['Grazing sheet', 'dry', null, ['grazing sheet']],
  ['Spinach, blanched', 'fresh', null, ['spinach']],
  ['Worms', 'live', null, ['worms']],
  ['Insects', 'live', null, ['insects']],
  ['Mussel', 'frozen', 90, ['chopped mussel', 'mussel on the shell']],
  ['Snails, small', 'live', null, ['snails']],
  ['Shrimp, live', 'live', null, ['live shrimp']],
] as const

/** Figures of foods that serve as none of those that are shipped with them; the packs of a real room say their own. */
export const demoFoodFigures: Record<string, { pieceG: number; dryPercent: number; proteinPercent: number; mouths: string[] }> = {
  'Sinking tablets': { pieceG: 0.5, dryPercent: 92, proteinPercent: 45, mouths: ['small', 'medium', 'large'] },
  Worms: { pieceG: 5, dryPercent: 20, proteinPercent: 55, mouths: ['small', 'medium', 'large'] },
  Insects: { pieceG: 5, dryPercent: 25, proteinPercent: 60, mouths: ['small', 'medium', 'large'] },
  'Snails, small': { pieceG: 5, dryPercent: 15, proteinPercent: 50, mouths: ['medium', 'large'] },
  'Shrimp, live': { pieceG: 5, dryPercent: 20, proteinPercent: 65, mouths: ['small', 'medium', 'large'] },
}
export const demoFeeds = [
  { name: 'morning feed', hour: 10, minute: 0, dayPercent: 60 },
  { name: 'evening feed', hour: 17, minute: 30, dayPercent: 40 },
] as const
/** Whether a filter runs; all others do. */
export const demoFilters: Record<string, 'none' | 'young'> = { 'Marine quarantine': 'young', 'Hospital corner': 'none' }

export type Water = 'fresh' | 'brackish' | 'marine'
/** What a supplier sends: species, bags from, bags to, fish per bag, tanks it goes to. */
export type Assortment = readonly [species: string, fromBags: number, toBags: number, perBag: number, ...tanks: string[]]

export interface DemoSupplier {
  name: string
  shippingTempC: number
  shippingSalinityPpt: number | null
  shippingPh: number
  transitHours: number
  source: readonly [name: string, origin: string]
  /** Origin written on the lines; null when the supplier does not say. */
  origin: string | null
  /** Days between crates. */
  everyDays: number
  /** One bag in so many has a death. */
  oneDeadIn: number
  /** Hours within which it takes claims, and what it wants to see. */
  claimWindowHours: number
  claimRules: string
  /** Who brings the crates. */
  carrier: string
  assortment: readonly Assortment[]
}

export const demoSuppliers: readonly DemoSupplier[] = [
  {
    ...{ claimWindowHours: 24, claimRules: 'count and a picture of the dead in the shut bag', carrier: 'own van' },
    ...{ name: 'Hollow Reed Hatchery', shippingTempC: 24, shippingSalinityPpt: null, shippingPh: 7.4, transitHours: 9, source: ['Hollow Reed ponds', 'pond raised'], origin: 'pond raised', everyDays: 9, oneDeadIn: 16 },
    assortment: [
      ['Harlequin rasbora', 3, 5, 15, 'R1-01', 'R1-05', 'D1-01'],
      ['Cherry barb', 2, 4, 10, 'R1-02', 'R1-10'],
      ['Honey gourami', 2, 4, 6, 'R1-03'],
      ['Rosy barb', 2, 3, 8, 'R1-04'],
      ['Kuhli loach', 2, 3, 8, 'S1-05'],
      ['Dwarf rainbowfish', 2, 3, 8, 'R1-06', 'R1-07'],
      ['Bronze corydoras', 2, 3, 8, 'R1-08'],
      ['Zebra danio', 2, 3, 12, 'R1-09'],
      ['Platy', 2, 4, 10, 'R2-01', 'R2-02'],
      ['Guppy', 2, 4, 10, 'R2-03'],
      ['Pearl gourami', 1, 2, 4, 'R2-04'],
      ['Bristlenose catfish', 1, 2, 5, 'R2-05'],
      ['Cardinal tetra', 2, 4, 20, 'S1-01'],
      ['Ember tetra', 2, 3, 15, 'S1-02'],
      ['Sparkling gourami', 1, 2, 8, 'S1-03'],
      ['Otocinclus', 1, 2, 8, 'S1-04'],
      ['Amano shrimp', 1, 2, 10, 'R2-06', 'D1-01'],
      ['Sailfin molly', 2, 3, 6, 'R2-07'],
    ],
  },
  {
    ...{ claimWindowHours: 12, claimRules: 'picture within twelve hours, reading of the bag water', carrier: 'night parcel' },
    ...{ name: 'Brackwater Nurseries', shippingTempC: 25, shippingSalinityPpt: 9, shippingPh: 7.9, transitHours: 14, source: ['Brackwater raceways', 'captive bred'], origin: 'captive bred', everyDays: 24, oneDeadIn: 11 },
    assortment: [
      ['Knight goby', 2, 3, 3, 'B1-01'],
      ['Silver mono', 2, 3, 3, 'B1-02', 'B1-03'],
      ['Figure-eight puffer', 1, 1, 1, 'B1-04'],
      ['Bumblebee goby', 1, 2, 6, 'B1-05'],
      ['Sailfin molly', 2, 3, 6, 'B1-06'],
    ],
  },
  {
    ...{ claimWindowHours: 4, claimRules: 'picture of every dead fish in its unopened bag', carrier: 'air freight, collected' },
    ...{ name: 'Pale Harbour Livestock', shippingTempC: 24, shippingSalinityPpt: 31, shippingPh: 8, transitHours: 26, source: ['Pale Harbour divers', 'wild'], origin: 'wild', everyDays: 13, oneDeadIn: 7 },
    assortment: [
      ['Royal gramma', 1, 1, 1, 'Q1-01'],
      ['Firefish', 1, 1, 1, 'Q1-02'],
      ['Banggai cardinalfish', 1, 3, 2, 'Q1-03'],
      ['Tailspot blenny', 1, 1, 1, 'Q1-04'],
      ['Yellow watchman goby', 1, 1, 1, 'Q1-05'],
      ['Captive-bred seahorse', 1, 2, 1, 'Q1-06'],
      ['Cleaner shrimp', 3, 5, 1, 'M1-08'],
      ['Trochus snail', 1, 2, 12, 'M1-09'],
      ['Peppermint shrimp', 2, 3, 2, 'M1-10'],
    ],
  },
]

/** Fish that come otherwise than most of their supplier’s. */
export const demoOrigins: Record<string, string> = { 'Kuhli loach': 'wild', Otocinclus: 'wild', 'Silver mono': 'wild', 'Knight goby': 'wild', 'Figure-eight puffer': 'wild', 'Captive-bred seahorse': 'captive bred' }
/** Fish of which one stands in a tank: the next is ordered when both its tanks are empty. */
export const demoSingles = ['Royal gramma', 'Firefish', 'Tailspot blenny', 'Yellow watchman goby', 'Figure-eight puffer']

/** Where marine fish go once their two weeks in quarantine are served. */
export const afterQuarantine: Record<string, string> = { 'Q1-01': 'M1-01', 'Q1-02': 'M1-02', 'Q1-03': 'M1-03', 'Q1-04': 'M1-04', 'Q1-05': 'M1-05', 'Q1-06': 'M1-06' }

/** Fish that stood here before the books began. */
export const demoOldStock = [
  ['Common clownfish', 2, 'C1-01'],
  ['Blue-green chromis', 9, 'D1-02'],
  ['Yellow tang', 1, 'D1-02'],
  ['Common clownfish', 2, 'M1-07'],
  ['Angelfish (fresh water)', 6, 'R2-08'],
  ['Electric yellow cichlid', 11, 'R2-09'],
] as const
/** Broods of the hatchery: species, fish, tank, days ago, from where. */
export const demoBroods = [
  ['Cherry barb', 34, 'G1-01', 96, 'R1-02'],
  ['Dwarf rainbowfish', 22, 'G1-02', 74, 'R1-06'],
  ['Bristlenose catfish', 41, 'G1-03', 60, 'R2-05'],
  ['Cherry barb', 28, 'G1-04', 31, 'R1-10'],
  ['Guppy', 37, 'G1-05', 17, 'R2-03'],
] as const

/** On the floor right now, half opened: species, bags, fish per bag, tank. */
export const openLines = [
  ['Harlequin rasbora', 6, 12, 'R1-05'],
  ['Cherry barb', 5, 8, 'R1-10'],
  ['Honey gourami', 4, 6, 'R1-03'],
  ['Kuhli loach', 4, 5, 'S1-05'],
  ['Dwarf rainbowfish', 3, 8, 'R1-07'],
] as const
/** Expected later today. */
export const dueLines = [
  ['Tailspot blenny', 1, 1, 'Q1-04'],
  ['Captive-bred seahorse', 2, 1, 'Q1-06'],
  ['Cleaner shrimp', 4, 1, 'M1-08'],
  ['Trochus snail', 1, 12, 'M1-09'],
  ['Peppermint shrimp', 2, 2, 'M1-10'],
] as const
