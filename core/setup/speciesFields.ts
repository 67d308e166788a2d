import { waters } from '../room/room.schema'
import { agentGroups, agentWords, animals, broods, catchTools, companies, crossings, escapes, finKinds, firstFoodKinds, habits, hardnesses, hungers, hurts, laws, mouths, needs, ownKinds, poisons, prey, sensitivities, temperaments } from '../species/speciesWords'
import { choiceField, choicesField, name, note, range, share, days, type FieldGroup, type RegisterField } from './fieldKinds'
import { toleranceLevels } from './words'

const text = (field: string, label: string, max: number, hint?: string): RegisterField => ({ name: field, label, kind: 'text', max, ...(hint ? { hint } : {}) })
const cm = (field: string, label: string, min: number, max: number, hint?: string): RegisterField => ({ name: field, label, kind: 'measure', min, max, unit: 'cm', ...(hint ? { hint } : {}) })

const agentHint = 'with care: measured, in steps, while it eats and is watched'
const agent = (field: string, label: string): RegisterField => choiceField(field, label, agentWords)

/** An entry of the species book, in the groups in which a person reads it, each with what it is used for. */
export const speciesGroups: readonly FieldGroup[] = [
  {
    title: 'Fish',
    about: 'Finds it on packing lists by any of its names; sizes decide who fits whose mouth, the weight how full a bag and a tank are.',
    fields: [
      name,
      { ...text('scientificName', 'scientific name', 80), isInTable: true },
      text('otherNames', 'other names', 300, 'separated by commas; lists are matched by them too'),
      text('lookAlikes', 'look-alikes', 300, 'what it is mistaken for; separated by commas'),
      text('strains', 'strains', 200, 'separated by commas'),
      choiceField('animal', 'animal', animals),
      cm('adultCm', 'adult size', 0.2, 200),
      cm('tradedCm', 'size when traded', 0.2, 200, 'newcomers whose size nobody noted count as this long'),
      { name: 'usualMassG', label: 'usual weight when traded', kind: 'measure', min: 0.01, max: 5000, unit: 'g' },
      choiceField('fins', 'fins', finKinds, 'long ones are kept from fin nippers and from nets'),
      choiceField('breeds', 'breeds', broods),
      text('basis', 'known from', 200, 'kind of source'),
      note,
    ],
  },
  {
    title: 'Water',
    about: 'Decides which tanks and which ways of acclimating are offered.',
    fields: [
      choicesField('waters', 'waters', waters, 'every water it lives in'),
      { ...choiceField('water', 'usually traded in', waters), formerLabel: 'water', isInTable: true },
      choiceField('crossing', 'crossing', crossings, 'from one water into another; as it grows: over weeks towards the sea, never quickly back'),
      choiceField('hardness', 'hardness', hardnesses, 'of fresh water'),
      ...range('tempC', 'temperature', 0, 45, { quantity: 'temperature' }),
      ...range('ph', 'pH', 3, 10.5),
      ...range('salinityPpt', 'salinity', 0, 42, { quantity: 'salinity' }),
      { ...choiceField('tolerance', 'tolerance', toleranceLevels, 'scales the limits of acclimation'), isInTable: true },
      { name: 'minTankL', label: 'tank of at least', kind: 'measure', min: 0, max: 100_000, quantity: 'volume', hint: 'while it is held here, at the size it is traded' },
      choicesField('needs', 'needs', needs),
      choiceField('escapes', 'escapes', escapes, 'lid and drain; "not found" means the floor first'),
    ],
  },
  {
    title: 'Company',
    about: 'Decides who may share a tank: forbidden, warned of, or noted.',
    fields: [
      { name: 'groupMin', label: 'kept at least', kind: 'whole', min: 1, max: 100, unit: 'fish' },
      choiceField('ownKind', 'own kind', ownKinds, 'also inside one line'),
      { ...choiceField('temperament', 'temperament', temperaments), isInTable: true },
      choiceField('company', 'company', companies, 'quiet ones go short beside bold ones and bullies'),
      cm('swallowsCm', 'swallows animals up to', 0, 100, 'how long, when it is adult'),
      choicesField('eats', 'eats', prey, 'beyond what it swallows whole'),
      choicesField('habits', 'habits', habits, 'what is habit is no sign of illness'),
      share('shareSeenPercent', 'usual share seen', 'of a settled group, at one look'),
    ],
  },
  {
    title: 'Feeding',
    about: 'Decides what is got ready before it comes, and from when it counts as not eating.',
    fields: [
      choiceField('mouth', 'mouth', mouths, 'grain of food, at the size it is traded'),
      choicesField('firstFoodKinds', 'first food kinds', firstFoodKinds, 'those that are on hand are offered first'),
      text('firstFoods', 'first foods', 200, 'in your own words'),
      days('firstMealDays', 'usual days to first meal', 'after arrival'),
      choiceField('bearsHunger', 'bears hunger', hungers, 'whatever the first meal says, it is not left longer'),
    ],
  },
  {
    title: 'Handling',
    about: 'Warnings for people and for fish, where they are unpacked, caught and moved.',
    fields: [
      { name: 'sensitivities', label: 'sensitive to', kind: 'choices', options: sensitivities, hint: 'air: never lifted out of the water', moved: { words: ['copper', 'salt', 'formalin', 'medicine dyes'], remedy: 'agents have columns of their own now; put "forbidden" there' } },
      choiceField('catchWith', 'catch with', catchTools),
      choicesField('hurts', 'hurts', hurts, 'whoever handles it; local medical advice decides'),
      choiceField('poisons', 'poisons', poisons, 'when frightened or dying: own bag, own water, no bag water along'),
    ],
  },
  {
    title: 'Medicines',
    about: 'Refuses or warns where an agent is in the water. No prescription: label, veterinarian and local law decide.',
    fields: [
      choicesField('agentGroups', 'agent group', agentGroups),
      { ...agent('copper', 'copper'), hint: agentHint },
      agent('formalin', 'formalin'),
      agent('malachiteGreen', 'malachite green, acriflavine'),
      agent('methyleneBlue', 'methylene blue'),
      agent('salt', 'salt'),
      agent('praziquantel', 'praziquantel'),
      agent('chloroquine', 'chloroquine'),
      agent('lowSalinity', 'low salinity'),
    ],
  },
  { title: 'Law', about: 'A reminder to ask for papers with the crate and at the sale, as of 2025; never legal advice.', fields: [choicesField('law', 'law', laws)] },
]
