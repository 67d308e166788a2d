import type { Water } from '../room/room.schema'
import type { RegisterValue } from '../setup/registers'
import type { animals, sensitivities, temperaments, Tolerance } from '../setup/words'

/** One species as it begins: general knowledge in our own words, to be corrected by what the room sees. */
export interface BookEntry {
  [field: string]: RegisterValue
  name: string
  scientificName: string
  water: Water
}

type Animal = (typeof animals)[number]

type Row = [
  ...[name: string, scientificName: string, strains: string | null, water: Water, adultCm: number, usualMassG: number],
  ...[tempCMin: number, tempCMax: number, phMin: number, phMax: number, salinityPptMin: number, salinityPptMax: number],
  ...[groupMin: number, temperament: (typeof temperaments)[number], tolerance: Tolerance, sensitive: (typeof sensitivities)[number][]],
  ...[shareSeenPercent: number, firstMealDays: number, firstFoods: string, basis: keyof typeof bases],
]

/** Kinds of source an entry rests on. */
const bases = {
  K: 'keepers’ handbooks',
  KF: 'keepers’ handbooks; field guides',
  KB: 'keepers’ handbooks; breeders’ reports',
  B: 'breeders’ reports',
} as const

/**
 * Usual ranges of the trade, no recommendations: water is where a species is commonly kept, the weight that of a fish
 * as it is traded. Whoever knows better for their own strain changes it in Setup.
 */
const rows: Row[] = [
  ['Harlequin rasbora', 'Trigonostigma heteromorpha', null, 'fresh', 4.5, 0.5, 23, 27, 5.5, 7.5, 0, 1, 8, 'peaceful in groups', 'normal', [], 90, 1, 'fine dry, small frozen', 'K'],
  ['Chili rasbora', 'Boraras brigittae', null, 'fresh', 2, 0.1, 24, 28, 4.5, 7, 0, 0.5, 10, 'peaceful in groups', 'delicate', ['copper', 'salt', 'formalin'], 60, 2, 'tiny live foods', 'KB'],
  ['Galaxy rasbora', 'Danio margaritatus', null, 'fresh', 2.5, 0.2, 21, 26, 6.5, 7.5, 0, 0.5, 8, 'peaceful in groups', 'delicate', ['copper'], 50, 2, 'tiny live foods, fine frozen', 'KB'],
  ['Zebra danio', 'Danio rerio', 'long-finned, golden', 'fresh', 5, 0.6, 20, 26, 6.5, 8, 0, 2, 6, 'peaceful in groups', 'hardy', [], 95, 0, 'anything fine', 'KF'],
  ['Pearl danio', 'Danio albolineatus', null, 'fresh', 6, 1, 22, 26, 6.5, 7.5, 0, 1, 6, 'peaceful in groups', 'hardy', [], 95, 0, 'fine dry, frozen', 'K'],
  ['White cloud minnow', 'Tanichthys albonubes', 'golden, long-finned', 'fresh', 4, 0.5, 16, 23, 6, 8, 0, 1, 8, 'peaceful in groups', 'hardy', ['low oxygen'], 90, 0, 'fine dry, small frozen', 'KF'],
  ['Cherry barb', 'Puntius titteya', 'albino', 'fresh', 5, 1.5, 22, 27, 6, 7.5, 0, 1, 6, 'peaceful in groups', 'normal', [], 85, 1, 'dry, frozen, live', 'KF'],
  ['Tiger barb', 'Puntigrus tetrazona', 'green, albino', 'fresh', 7, 2.5, 22, 27, 6, 7.5, 0, 1, 8, 'fin nipper', 'hardy', [], 95, 0, 'dry, frozen', 'K'],
  ['Black ruby barb', 'Pethia nigrofasciata', null, 'fresh', 6, 2, 21, 26, 6, 7.5, 0, 1, 6, 'peaceful in groups', 'normal', [], 85, 1, 'dry, frozen', 'K'],
  ['Neon tetra', 'Paracheirodon innesi', null, 'fresh', 3.5, 0.3, 21, 26, 5, 7.2, 0, 0.5, 10, 'peaceful in groups', 'delicate', ['copper', 'salt'], 90, 1, 'fine dry, small frozen', 'KF'],
  ['Cardinal tetra', 'Paracheirodon axelrodi', null, 'fresh', 4.5, 0.4, 24, 29, 4.5, 7, 0, 0.5, 10, 'peaceful in groups', 'delicate', ['copper', 'salt', 'formalin'], 90, 2, 'small live and frozen', 'KF'],
  ['Ember tetra', 'Hyphessobrycon amandae', null, 'fresh', 2, 0.1, 23, 28, 5, 7, 0, 0.5, 10, 'peaceful in groups', 'delicate', ['copper', 'salt'], 85, 1, 'tiny live foods', 'KB'],
  ['Rummy-nose tetra', 'Petitella rhodostoma', null, 'fresh', 5, 0.8, 24, 28, 5, 7, 0, 0.5, 8, 'peaceful in groups', 'delicate', ['copper', 'salt', 'low oxygen'], 95, 2, 'fine dry, frozen', 'K'],
  ['Black phantom tetra', 'Hyphessobrycon megalopterus', null, 'fresh', 4.5, 0.9, 22, 28, 5.5, 7.5, 0, 0.5, 6, 'peaceful in groups', 'normal', ['copper'], 90, 1, 'dry, frozen', 'K'],
  ['Congo tetra', 'Phenacogrammus interruptus', null, 'fresh', 8, 4, 23, 27, 6, 7.5, 0, 1, 6, 'peaceful in groups', 'normal', ['low oxygen'], 95, 1, 'dry, frozen', 'K'],
  ['Marbled hatchetfish', 'Carnegiella strigata', null, 'fresh', 4, 0.6, 24, 28, 5, 7, 0, 0.5, 8, 'peaceful in groups', 'very delicate', ['copper', 'salt', 'netting'], 90, 3, 'floating live foods', 'KB'],
  ['Honey gourami', 'Trichogaster chuna', 'golden', 'fresh', 5, 1.5, 22, 28, 6, 7.5, 0, 1, 2, 'peaceful', 'normal', [], 75, 1, 'fine dry, small frozen', 'K'],
  ['Sparkling gourami', 'Trichopsis pumila', null, 'fresh', 4, 0.5, 24, 28, 5.5, 7.5, 0, 1, 4, 'peaceful', 'normal', ['copper'], 50, 2, 'small live foods', 'KB'],
  ['Pearl gourami', 'Trichopodus leerii', null, 'fresh', 11, 6, 24, 28, 5.5, 7.5, 0, 1, 2, 'peaceful', 'normal', [], 85, 1, 'dry, frozen', 'K'],
  ['Siamese fighter', 'Betta splendens', 'many fin forms', 'fresh', 6, 2, 24, 29, 6, 7.5, 0, 1, 1, 'fights its own kind', 'normal', ['strong flow'], 95, 1, 'live, frozen, pellets', 'KB'],
  ['Kuhli loach', 'Pangio kuhlii', null, 'fresh', 9, 1.5, 23, 28, 5, 7, 0, 0.5, 6, 'peaceful in groups', 'delicate', ['copper', 'salt', 'formalin', 'medicine dyes'], 25, 3, 'sinking live foods at night', 'KB'],
  ['Clown loach', 'Chromobotia macracanthus', null, 'fresh', 25, 6, 25, 30, 5.5, 7.5, 0, 0.5, 6, 'peaceful in groups', 'delicate', ['copper', 'salt', 'formalin', 'medicine dyes'], 50, 3, 'sinking frozen, snails', 'K'],
  ['Dwarf chain loach', 'Ambastaia sidthimunki', null, 'fresh', 5.5, 1, 24, 28, 6, 7.5, 0, 0.5, 8, 'peaceful in groups', 'delicate', ['copper', 'salt', 'formalin'], 60, 2, 'sinking frozen', 'K'],
  ['Hillstream loach', 'Sewellia lineolata', null, 'fresh', 6, 2, 20, 25, 6.5, 7.8, 0, 0.5, 4, 'territorial', 'delicate', ['copper', 'low oxygen', 'salt'], 50, 3, 'grown-over stones, greens', 'KB'],
  ['Bronze corydoras', 'Osteogaster aenea', 'albino', 'fresh', 6, 3, 22, 27, 6, 7.8, 0, 0.5, 6, 'peaceful in groups', 'normal', ['salt', 'copper'], 80, 1, 'sinking dry, worms', 'KF'],
  ['Panda corydoras', 'Hoplisoma panda', null, 'fresh', 4.5, 1.5, 20, 25, 6, 7.4, 0, 0.5, 6, 'peaceful in groups', 'delicate', ['salt', 'copper', 'low oxygen'], 75, 2, 'sinking frozen, worms', 'K'],
  ['Pygmy corydoras', 'Hoplisoma pygmaeum', null, 'fresh', 2.5, 0.4, 22, 26, 6, 7.4, 0, 0.5, 10, 'peaceful in groups', 'delicate', ['salt', 'copper'], 70, 2, 'fine live foods', 'KB'],
  ['Bristlenose catfish', 'Ancistrus cirrhosus', 'albino, long-finned', 'fresh', 13, 8, 22, 27, 6, 8, 0, 1, 1, 'territorial', 'hardy', ['copper', 'salt'], 30, 1, 'greens, wood', 'KB'],
  ['Otocinclus', 'Otocinclus vittatus', null, 'fresh', 4, 0.4, 22, 26, 6, 7.5, 0, 0.5, 6, 'peaceful in groups', 'very delicate', ['copper', 'salt', 'formalin', 'low oxygen'], 40, 4, 'algae films, blanched greens', 'KB'],
  ['Zebra pleco', 'Hypancistrus zebra', null, 'fresh', 9, 5, 26, 30, 6, 7.5, 0, 0.5, 1, 'territorial', 'delicate', ['copper', 'low oxygen'], 10, 5, 'meaty foods at night', 'B'],
  ['Glass catfish', 'Kryptopterus vitreolus', null, 'fresh', 6.5, 1, 23, 27, 6, 7.2, 0, 0.5, 8, 'peaceful in groups', 'very delicate', ['copper', 'salt', 'medicine dyes'], 90, 3, 'small live foods', 'K'],
  ['Ram cichlid', 'Mikrogeophagus ramirezi', 'golden, blue', 'fresh', 5, 2.5, 26, 30, 5, 7, 0, 0.5, 2, 'territorial', 'delicate', ['copper', 'high nitrate'], 80, 3, 'small frozen and live', 'KB'],
  ['Cockatoo dwarf cichlid', 'Apistogramma cacatuoides', 'double red, orange', 'fresh', 7, 3, 24, 28, 5.5, 7.5, 0, 0.5, 2, 'territorial', 'delicate', ['copper', 'high nitrate'], 70, 2, 'frozen, live', 'KB'],
  ['Angelfish (fresh water)', 'Pterophyllum scalare', 'marble, veil, koi', 'fresh', 15, 8, 24, 30, 5.8, 7.5, 0, 1, 2, 'hunts small fish', 'normal', [], 95, 2, 'dry, frozen', 'KB'],
  ['Discus', 'Symphysodon aequifasciatus', 'many colour forms', 'fresh', 15, 20, 27, 31, 5, 7, 0, 0.5, 5, 'peaceful in groups', 'very delicate', ['copper', 'netting', 'high nitrate'], 95, 5, 'frozen, soft granules', 'KB'],
  ['Electric yellow cichlid', 'Labidochromis caeruleus', null, 'fresh', 9, 8, 24, 27, 7.5, 8.8, 0, 2, 5, 'territorial', 'hardy', ['low pH'], 90, 1, 'dry, greens', 'K'],
  ['Princess cichlid', 'Neolamprologus brichardi', null, 'fresh', 9, 5, 24, 27, 7.8, 9, 0, 2, 2, 'territorial', 'hardy', ['low pH'], 85, 1, 'dry, frozen', 'K'],
  ['Dwarf rainbowfish', 'Melanotaenia praecox', null, 'fresh', 6, 2, 23, 27, 6.5, 7.8, 0, 2, 8, 'peaceful in groups', 'normal', [], 95, 1, 'dry, frozen', 'K'],
  ['Threadfin rainbowfish', 'Iriatherina werneri', null, 'fresh', 4, 0.5, 24, 29, 5.5, 7.5, 0, 1, 8, 'peaceful in groups', 'delicate', ['netting'], 90, 2, 'tiny live foods', 'KB'],
  ['Forktail blue-eye', 'Pseudomugil furcatus', null, 'fresh', 5.5, 0.8, 24, 28, 6.5, 8, 0, 2, 8, 'peaceful in groups', 'normal', [], 95, 1, 'fine dry, small live', 'KB'],
  ['Guppy', 'Poecilia reticulata', 'many strains', 'fresh', 4.5, 0.8, 22, 28, 7, 8.4, 0, 10, 5, 'peaceful', 'normal', ['low pH'], 98, 0, 'fine dry', 'KB'],
  ['Platy', 'Xiphophorus maculatus', 'many strains', 'fresh', 6, 1.8, 20, 26, 7, 8.3, 0, 5, 5, 'peaceful', 'hardy', ['low pH'], 98, 0, 'dry, greens', 'KB'],
  ['Sailfin molly', 'Poecilia velifera', 'silver, gold', 'fresh', 13, 6, 25, 28, 7.5, 8.5, 0, 35, 3, 'peaceful', 'normal', ['low pH'], 98, 0, 'dry, greens', 'KB'],
  ['Endler livebearer', 'Poecilia wingei', 'many strains', 'fresh', 3.5, 0.3, 23, 28, 7, 8.5, 0, 5, 6, 'peaceful', 'hardy', ['low pH'], 98, 0, 'fine dry', 'KB'],
  ['Fancy goldfish', 'Carassius auratus', 'oranda, ryukin, ranchu', 'fresh', 20, 20, 16, 24, 7, 8.4, 0, 3, 2, 'peaceful', 'normal', ['low oxygen'], 98, 0, 'sinking pellets, greens', 'KB'],
  ['Amano shrimp', 'Caridina multidentata', null, 'fresh', 5, 0.8, 18, 27, 6.5, 7.8, 0, 1, 5, 'peaceful', 'delicate', ['copper', 'formalin', 'medicine dyes'], 50, 1, 'algae, any leftovers', 'KB'],
  ['Red cherry shrimp', 'Neocaridina davidi', 'many colours', 'fresh', 3, 0.2, 18, 27, 6.5, 8, 0, 1, 10, 'peaceful', 'delicate', ['copper', 'formalin', 'medicine dyes'], 60, 0, 'biofilm, fine dry', 'KB'],
  ['Nerite snail', 'Neritina natalensis', 'zebra, tiger', 'fresh', 3, 2, 22, 28, 7, 8.5, 0, 5, 1, 'peaceful', 'normal', ['copper', 'low pH'], 70, 0, 'algae', 'KB'],
  ['Knight goby', 'Stigmatogobius sadanundio', null, 'brackish', 9, 4, 23, 28, 7, 8.4, 1, 15, 4, 'territorial', 'normal', ['low pH'], 70, 2, 'live, frozen', 'K'],
  ['Bumblebee goby', 'Brachygobius doriae', null, 'brackish', 3, 0.3, 24, 29, 7, 8.4, 1, 10, 6, 'territorial', 'delicate', ['low pH'], 50, 4, 'live foods', 'KB'],
  ['Silver mono', 'Monodactylus argenteus', null, 'brackish', 20, 6, 24, 28, 7.5, 8.4, 5, 35, 6, 'peaceful in groups', 'hardy', ['low oxygen'], 98, 1, 'dry, frozen, greens', 'KF'],
  ['Spotted scat', 'Scatophagus argus', null, 'brackish', 28, 8, 24, 28, 7.5, 8.4, 3, 35, 4, 'peaceful in groups', 'hardy', ['low oxygen'], 98, 0, 'anything, greens', 'KF'],
  ['Figure-eight puffer', 'Dichotomyctere ocellatus', null, 'brackish', 7, 5, 24, 28, 7.5, 8.4, 4, 12, 1, 'fin nipper', 'delicate', ['copper', 'formalin'], 90, 2, 'snails, frozen', 'K'],
  ['Indian glassfish', 'Parambassis ranga', null, 'brackish', 6, 1.5, 22, 28, 7, 8.4, 0, 8, 6, 'peaceful in groups', 'delicate', ['copper', 'netting'], 95, 3, 'small live foods', 'K'],
  ['Common clownfish', 'Amphiprion ocellaris', 'black, broken-bar', 'marine', 8, 5, 24, 28, 8, 8.4, 26, 36, 2, 'territorial', 'hardy', [], 98, 1, 'frozen, pellets', 'KB'],
  ['Royal gramma', 'Gramma loreto', null, 'marine', 8, 4, 23, 27, 8, 8.4, 30, 36, 1, 'territorial', 'normal', [], 60, 2, 'small frozen', 'K'],
  ['Banggai cardinalfish', 'Pterapogon kauderni', null, 'marine', 8, 3, 24, 28, 8, 8.4, 30, 36, 2, 'fights its own kind', 'normal', ['netting'], 95, 2, 'copepods, small frozen', 'KB'],
  ['Firefish', 'Nemateleotris magnifica', null, 'marine', 8, 2.5, 23, 28, 8, 8.4, 30, 36, 1, 'fights its own kind', 'delicate', ['copper', 'netting'], 50, 3, 'copepods, small frozen', 'K'],
  ['Yellow watchman goby', 'Cryptocentrus cinctus', null, 'marine', 10, 5, 23, 28, 8, 8.4, 30, 36, 1, 'fights its own kind', 'normal', ['copper'], 40, 3, 'sinking frozen', 'K'],
  ['Neon goby', 'Elacatinus oceanops', null, 'marine', 5, 0.8, 23, 28, 8, 8.4, 30, 36, 1, 'peaceful', 'hardy', [], 70, 1, 'small frozen', 'KB'],
  ['Tailspot blenny', 'Ecsenius stigmatura', null, 'marine', 6, 2, 24, 28, 8, 8.4, 30, 36, 1, 'fights its own kind', 'normal', ['copper'], 60, 3, 'algae, fine frozen', 'K'],
  ['Lawnmower blenny', 'Salarias fasciatus', null, 'marine', 13, 10, 24, 28, 8, 8.4, 30, 36, 1, 'territorial', 'normal', ['copper'], 70, 5, 'algae, grazing sheet', 'K'],
  ['Blue-green chromis', 'Chromis viridis', null, 'marine', 8, 3, 24, 28, 8, 8.4, 30, 36, 6, 'peaceful in groups', 'delicate', ['low oxygen'], 98, 2, 'copepods, small frozen', 'K'],
  ['Yellow tang', 'Zebrasoma flavescens', null, 'marine', 18, 15, 24, 28, 8, 8.4, 30, 36, 1, 'fights its own kind', 'delicate', ['copper', 'low oxygen'], 95, 3, 'grazing sheet, frozen', 'KB'],
  ['Orchid dottyback', 'Pseudochromis fridmani', null, 'marine', 7, 3, 23, 28, 8, 8.4, 30, 36, 1, 'territorial', 'hardy', [], 60, 1, 'small frozen', 'KB'],
  ['Mandarin dragonet', 'Synchiropus splendidus', null, 'marine', 7, 4, 24, 28, 8, 8.4, 30, 36, 1, 'fights its own kind', 'very delicate', ['copper', 'formalin'], 50, 7, 'live copepods', 'KB'],
  ['Captive-bred seahorse', 'Hippocampus kuda', null, 'marine', 14, 6, 22, 26, 8, 8.4, 28, 36, 2, 'peaceful', 'very delicate', ['copper', 'formalin', 'strong flow'], 95, 2, 'mysis, live shrimp', 'KB'],
  ['Cleaner shrimp', 'Lysmata amboinensis', null, 'marine', 6, 4, 23, 28, 8, 8.4, 32, 36, 2, 'peaceful', 'delicate', ['copper', 'formalin', 'medicine dyes'], 80, 1, 'any frozen', 'KB'],
  ['Peppermint shrimp', 'Lysmata boggessi', null, 'marine', 5, 2, 22, 28, 8, 8.4, 32, 36, 3, 'peaceful', 'delicate', ['copper', 'formalin', 'medicine dyes'], 25, 1, 'any frozen', 'KB'],
  ['Trochus snail', 'Trochus sp.', null, 'marine', 5, 10, 22, 28, 8, 8.4, 30, 36, 1, 'peaceful', 'delicate', ['copper', 'formalin'], 80, 0, 'algae', 'KB'],
  ['Rosy barb', 'Pethia conchonius', 'long-finned, neon', 'fresh', 9, 4, 18, 25, 6, 7.8, 0, 2, 6, 'peaceful in groups', 'hardy', [], 95, 0, 'dry, greens', 'KF'],
  ['Five-banded barb', 'Desmopuntius pentazona', null, 'fresh', 5, 1.2, 23, 28, 5, 7, 0, 0.5, 8, 'peaceful in groups', 'delicate', ['copper', 'salt'], 75, 2, 'small frozen', 'K'],
  ['Denison barb', 'Sahyadria denisonii', null, 'fresh', 14, 10, 20, 26, 6.5, 7.8, 0, 1, 6, 'peaceful in groups', 'normal', ['low oxygen'], 95, 1, 'dry, frozen', 'K'],
  ['Celestial pearl danio', 'Danio erythromicron', null, 'fresh', 2.5, 0.2, 21, 25, 7, 8, 0, 0.5, 8, 'peaceful in groups', 'delicate', ['copper'], 40, 2, 'tiny live foods', 'KB'],
  ['Giant danio', 'Devario aequipinnatus', null, 'fresh', 10, 6, 22, 26, 6, 7.8, 0, 1, 6, 'peaceful in groups', 'hardy', [], 98, 0, 'anything floating', 'KF'],
  ['Scissortail rasbora', 'Rasbora trilineata', null, 'fresh', 10, 4, 23, 27, 6, 7.5, 0, 1, 8, 'peaceful in groups', 'normal', [], 95, 1, 'dry, frozen', 'K'],
  ['Glowlight tetra', 'Hemigrammus erythrozonus', null, 'fresh', 4, 0.5, 23, 28, 5.5, 7.5, 0, 0.5, 8, 'peaceful in groups', 'normal', ['copper'], 90, 1, 'fine dry, frozen', 'K'],
  ['Lemon tetra', 'Hyphessobrycon pulchripinnis', 'albino', 'fresh', 4, 0.8, 23, 27, 5.5, 7.5, 0, 1, 8, 'peaceful in groups', 'normal', ['copper'], 90, 1, 'dry, frozen', 'K'],
  ['Serpae tetra', 'Hyphessobrycon eques', null, 'fresh', 4, 1, 22, 27, 5.5, 7.5, 0, 1, 8, 'fin nipper', 'hardy', ['copper'], 95, 0, 'dry, frozen', 'K'],
  ['Black skirt tetra', 'Gymnocorymbus ternetzi', 'long-finned, white', 'fresh', 6, 3, 20, 27, 6, 7.5, 0, 1, 6, 'fin nipper', 'hardy', ['copper'], 95, 0, 'dry, frozen', 'K'],
  ['Penguin tetra', 'Thayeria boehlkei', null, 'fresh', 6, 1.5, 22, 28, 6, 7.5, 0, 1, 8, 'peaceful in groups', 'normal', ['copper'], 95, 1, 'dry, frozen', 'K'],
  ['Emperor tetra', 'Nematobrycon palmeri', null, 'fresh', 5, 1.5, 23, 27, 5.5, 7.5, 0, 0.5, 6, 'peaceful in groups', 'normal', ['copper'], 85, 1, 'dry, frozen', 'K'],
  ['Golden pencilfish', 'Nannostomus beckfordi', null, 'fresh', 5, 0.8, 24, 28, 5, 7.2, 0, 0.5, 8, 'peaceful in groups', 'delicate', ['copper', 'salt'], 80, 2, 'small live foods', 'KB'],
  ['Silver hatchetfish', 'Gasteropelecus sternicla', null, 'fresh', 6, 1.5, 23, 27, 5.5, 7, 0, 0.5, 8, 'peaceful in groups', 'very delicate', ['copper', 'salt', 'netting'], 90, 3, 'floating live foods', 'K'],
  ['Dwarf gourami', 'Trichogaster lalius', 'blue, red', 'fresh', 7, 4, 24, 28, 6, 7.5, 0, 1, 2, 'territorial', 'delicate', [], 85, 1, 'dry, frozen', 'K'],
  ['Three-spot gourami', 'Trichopodus trichopterus', 'gold, marbled', 'fresh', 13, 12, 23, 28, 6, 8, 0, 2, 1, 'territorial', 'hardy', [], 95, 0, 'dry, frozen', 'K'],
  ['Chocolate gourami', 'Sphaerichthys osphromenoides', null, 'fresh', 6, 2, 25, 29, 4, 6.5, 0, 0.3, 6, 'peaceful in groups', 'very delicate', ['copper', 'salt', 'formalin'], 70, 4, 'small live foods', 'KB'],
  ['Paradise fish', 'Macropodus opercularis', 'albino', 'fresh', 9, 7, 16, 26, 6, 8, 0, 2, 1, 'fights its own kind', 'hardy', [], 95, 0, 'dry, live', 'KF'],
  ['Yoyo loach', 'Botia almorhae', null, 'fresh', 14, 10, 23, 28, 6, 7.5, 0, 0.5, 5, 'peaceful in groups', 'delicate', ['copper', 'salt', 'medicine dyes'], 60, 2, 'sinking frozen, snails', 'K'],
  ['Weather loach', 'Misgurnus anguillicaudatus', 'golden', 'fresh', 18, 15, 12, 24, 6, 8, 0, 1, 3, 'peaceful in groups', 'hardy', ['copper', 'salt'], 50, 1, 'sinking foods', 'KF'],
  ['Siamese algae eater', 'Crossocheilus oblongus', null, 'fresh', 14, 10, 23, 27, 6, 7.8, 0, 1, 4, 'peaceful in groups', 'normal', ['low oxygen'], 90, 1, 'algae, dry', 'K'],
  ['Peppered corydoras', 'Hoplisoma paleatum', 'albino, long-finned', 'fresh', 6, 3, 18, 24, 6, 7.8, 0, 0.5, 6, 'peaceful in groups', 'hardy', ['salt', 'copper'], 85, 1, 'sinking dry, worms', 'KF'],
  ["Sterba's corydoras", 'Hoplisoma sterbai', null, 'fresh', 6, 3, 24, 29, 6, 7.5, 0, 0.5, 6, 'peaceful in groups', 'normal', ['salt', 'copper'], 80, 1, 'sinking dry, worms', 'KB'],
  ['Clown pleco', 'Panaqolus maccus', null, 'fresh', 9, 6, 24, 29, 6, 7.5, 0, 0.5, 1, 'territorial', 'normal', ['copper', 'salt'], 15, 2, 'wood, greens', 'KB'],
  ['Whiptail catfish', 'Rineloricaria parva', 'red', 'fresh', 12, 5, 22, 27, 6, 7.5, 0, 0.5, 2, 'peaceful', 'normal', ['copper', 'salt'], 50, 2, 'greens, sinking foods', 'KB'],
  ['Pictus catfish', 'Pimelodus pictus', null, 'fresh', 12, 9, 23, 27, 6, 7.5, 0, 0.5, 3, 'hunts small fish', 'normal', ['copper', 'salt', 'netting'], 60, 1, 'sinking frozen', 'K'],
  ['Upside-down catfish', 'Synodontis nigriventris', null, 'fresh', 9, 7, 23, 27, 6, 7.5, 0, 0.5, 4, 'peaceful in groups', 'normal', ['copper', 'salt'], 40, 2, 'dry, frozen at dusk', 'K'],
  ['Kribensis', 'Pelvicachromis pulcher', 'albino', 'fresh', 9, 6, 23, 27, 5.5, 7.5, 0, 1, 2, 'territorial', 'hardy', [], 85, 1, 'dry, frozen', 'KB'],
  ['Keyhole cichlid', 'Cleithracara maronii', null, 'fresh', 11, 12, 23, 27, 6, 7.5, 0, 0.5, 2, 'peaceful', 'normal', ['high nitrate'], 75, 2, 'frozen, dry', 'K'],
  ['Convict cichlid', 'Amatitlania nigrofasciata', 'white', 'fresh', 12, 18, 22, 28, 6.5, 8.2, 0, 2, 1, 'territorial', 'hardy', [], 95, 0, 'anything', 'KF'],
  ['Firemouth cichlid', 'Thorichthys meeki', null, 'fresh', 14, 20, 23, 28, 6.5, 8, 0, 2, 2, 'territorial', 'hardy', [], 90, 1, 'dry, frozen', 'K'],
  ['Oscar', 'Astronotus ocellatus', 'red, albino', 'fresh', 30, 40, 23, 28, 6, 7.8, 0, 1, 1, 'hunts small fish', 'hardy', ['high nitrate'], 98, 1, 'pellets, shrimp', 'K'],
  ['Peacock cichlid', 'Aulonocara stuartgranti', 'many colours', 'fresh', 12, 12, 24, 27, 7.5, 8.6, 0, 2, 4, 'territorial', 'hardy', ['low pH'], 95, 1, 'dry, frozen', 'KB'],
  ['Shell-dwelling cichlid', 'Neolamprologus multifasciatus', null, 'fresh', 4, 1.2, 24, 27, 7.8, 9, 0, 2, 4, 'territorial', 'hardy', ['low pH'], 70, 1, 'fine frozen, dry', 'KB'],
  ['Boesemani rainbowfish', 'Melanotaenia boesemani', null, 'fresh', 11, 9, 24, 28, 7, 8, 0, 2, 6, 'peaceful in groups', 'normal', [], 98, 1, 'dry, greens', 'K'],
  ['Celebes rainbowfish', 'Marosatherina ladigesi', null, 'fresh', 7, 2, 23, 28, 7, 8, 0, 3, 8, 'peaceful in groups', 'delicate', ['netting'], 95, 2, 'fine live and frozen', 'K'],
  ['Swordtail', 'Xiphophorus hellerii', 'many strains', 'fresh', 10, 5, 22, 28, 7, 8.3, 0, 5, 4, 'peaceful', 'hardy', ['low pH'], 98, 0, 'dry, greens', 'KB'],
  ['Lampeye killifish', 'Poropanchax normani', null, 'fresh', 3.5, 0.3, 22, 26, 6.5, 7.5, 0, 1, 10, 'peaceful in groups', 'delicate', ['copper'], 90, 1, 'fine live foods', 'KB'],
  ['Lyretail killifish', 'Aphyosemion australe', 'gold', 'fresh', 6, 1.5, 20, 25, 5.5, 7, 0, 0.5, 2, 'peaceful', 'delicate', ['copper'], 70, 2, 'live, frozen', 'B'],
  ['African butterfly fish', 'Pantodon buchholzi', null, 'fresh', 12, 12, 24, 28, 6, 7.2, 0, 0.5, 1, 'hunts small fish', 'delicate', ['netting', 'strong flow'], 90, 3, 'floating insects', 'K'],
  ['Elephantnose fish', 'Gnathonemus petersii', null, 'fresh', 22, 25, 24, 28, 6, 7.5, 0, 0.5, 1, 'fights its own kind', 'very delicate', ['copper', 'salt', 'medicine dyes'], 50, 4, 'worms, small frozen', 'K'],
  ['Crystal red shrimp', 'Caridina cantonensis', 'red, black, blue', 'fresh', 2.5, 0.2, 20, 25, 5.5, 6.8, 0, 0.5, 10, 'peaceful', 'very delicate', ['copper', 'formalin', 'medicine dyes', 'salt'], 60, 1, 'biofilm, fine dry', 'B'],
  ['Vampire shrimp', 'Atya gabonensis', null, 'fresh', 12, 15, 23, 28, 6.5, 7.8, 0, 3, 1, 'peaceful', 'delicate', ['copper', 'formalin', 'medicine dyes'], 30, 3, 'fine floating foods', 'K'],
  ['Mystery snail', 'Pomacea diffusa', 'yellow, blue', 'fresh', 5, 15, 20, 28, 7, 8.2, 0, 2, 1, 'peaceful', 'normal', ['copper', 'low pH'], 90, 0, 'greens, dry', 'KB'],
  ['Assassin snail', 'Clea helena', null, 'fresh', 2.5, 2, 22, 28, 6.8, 8, 0, 2, 2, 'peaceful', 'normal', ['copper', 'low pH'], 30, 1, 'snails, sinking frozen', 'KB'],
  ['Target archerfish', 'Toxotes jaculatrix', null, 'brackish', 20, 15, 25, 30, 7, 8.4, 1, 20, 3, 'hunts small fish', 'normal', ['low oxygen'], 98, 1, 'floating insects, frozen', 'K'],
  ['Dwarf mudskipper', 'Periophthalmus novemradiatus', null, 'brackish', 8, 4, 25, 30, 7.5, 8.4, 5, 18, 1, 'territorial', 'normal', ['copper'], 90, 1, 'live insects, frozen', 'K'],
  ['Orange chromide', 'Pseudetroplus maculatus', 'golden', 'brackish', 8, 6, 23, 28, 7, 8.4, 0, 12, 4, 'territorial', 'normal', ['low pH'], 90, 1, 'dry, frozen', 'KB'],
  ['Red-clawed crab', 'Perisesarma bidens', null, 'brackish', 5, 8, 24, 28, 7.5, 8.4, 2, 15, 1, 'hunts small fish', 'hardy', ['copper', 'formalin'], 60, 0, 'greens, sinking frozen', 'K'],
  ['Azure damselfish', 'Chrysiptera hemicyanea', null, 'marine', 7, 3, 24, 28, 8, 8.4, 30, 36, 1, 'territorial', 'hardy', [], 95, 0, 'dry, frozen', 'K'],
  ['Pink skunk clownfish', 'Amphiprion perideraion', null, 'marine', 9, 5, 24, 28, 8, 8.4, 28, 36, 2, 'territorial', 'normal', [], 95, 1, 'frozen, dry', 'KB'],
  ['Pajama cardinalfish', 'Sphaeramia nematoptera', null, 'marine', 8, 4, 24, 28, 8, 8.4, 30, 36, 3, 'peaceful in groups', 'normal', [], 95, 1, 'frozen', 'KB'],
  ['Lyretail anthias', 'Pseudanthias squamipinnis', null, 'marine', 12, 8, 24, 27, 8, 8.4, 31, 36, 5, 'peaceful in groups', 'very delicate', ['copper', 'low oxygen'], 95, 4, 'fine frozen, many meals', 'K'],
  ['Six-line wrasse', 'Pseudocheilinus hexataenia', null, 'marine', 8, 3, 24, 28, 8, 8.4, 30, 36, 1, 'territorial', 'normal', ['copper'], 60, 2, 'small frozen', 'K'],
  ['Cleaner wrasse', 'Labroides dimidiatus', null, 'marine', 11, 4, 24, 28, 8, 8.4, 31, 36, 1, 'peaceful', 'very delicate', ['copper', 'formalin'], 90, 5, 'fine frozen, other fish', 'K'],
  ['Blue tang', 'Paracanthurus hepatus', null, 'marine', 25, 20, 24, 27, 8, 8.4, 31, 36, 1, 'fights its own kind', 'delicate', ['copper', 'low oxygen'], 85, 3, 'grazing sheet, frozen', 'KB'],
  ['Bristletooth tang', 'Ctenochaetus tominiensis', null, 'marine', 16, 12, 24, 27, 8, 8.4, 31, 36, 1, 'fights its own kind', 'delicate', ['copper', 'low oxygen'], 90, 3, 'algae films, grazing sheet', 'K'],
  ['Foxface rabbitfish', 'Siganus vulpinus', null, 'marine', 22, 25, 24, 28, 8, 8.4, 30, 36, 1, 'fights its own kind', 'normal', ['copper'], 95, 1, 'grazing sheet, frozen', 'K'],
  ['Coral beauty angelfish', 'Centropyge bispinosa', null, 'marine', 10, 8, 24, 27, 8, 8.4, 31, 36, 1, 'territorial', 'delicate', ['copper', 'formalin'], 70, 3, 'algae, frozen', 'K'],
  ['Copperband butterflyfish', 'Chelmon rostratus', null, 'marine', 18, 15, 24, 28, 8, 8.4, 30, 36, 1, 'fights its own kind', 'very delicate', ['copper', 'formalin'], 90, 6, 'opened clams, mysis, worms', 'K'],
  ['Longnose hawkfish', 'Oxycirrhites typus', null, 'marine', 12, 8, 23, 27, 8, 8.4, 31, 36, 1, 'hunts small fish', 'normal', ['copper'], 90, 2, 'frozen, live shrimp', 'K'],
  ['Diamond goby', 'Valenciennea puellaris', null, 'marine', 14, 12, 24, 27, 8, 8.4, 31, 36, 1, 'peaceful', 'delicate', ['copper'], 75, 4, 'sinking frozen, sand life', 'K'],
  ['Clown goby', 'Gobiodon okinawae', 'yellow', 'marine', 3.5, 0.6, 24, 28, 8, 8.4, 30, 36, 1, 'peaceful', 'normal', ['copper'], 40, 2, 'small frozen', 'KB'],
  ['Bicolour blenny', 'Ecsenius bicolor', null, 'marine', 9, 5, 24, 28, 8, 8.4, 30, 36, 1, 'fights its own kind', 'normal', ['copper'], 60, 3, 'algae, frozen', 'K'],
  ['Spotted mandarin', 'Synchiropus picturatus', null, 'marine', 6, 3, 24, 27, 8, 8.4, 31, 36, 1, 'fights its own kind', 'very delicate', ['copper', 'formalin'], 45, 7, 'live copepods', 'KB'],
  ['Banded pipefish', 'Dunckerocampus dactyliophorus', null, 'marine', 18, 2, 24, 27, 8, 8.4, 31, 36, 2, 'peaceful', 'very delicate', ['copper', 'formalin', 'strong flow'], 70, 5, 'live copepods, fine frozen', 'B'],
  ['Valentini puffer', 'Canthigaster valentini', null, 'marine', 10, 9, 24, 28, 8, 8.4, 30, 36, 1, 'fin nipper', 'normal', ['copper', 'formalin'], 95, 1, 'clams, frozen', 'K'],
  ['Fire shrimp', 'Lysmata debelius', null, 'marine', 5, 3, 23, 27, 8, 8.4, 32, 36, 2, 'peaceful', 'delicate', ['copper', 'formalin', 'medicine dyes'], 30, 1, 'any frozen', 'KB'],
  ['Pistol shrimp', 'Alpheus randalli', null, 'marine', 3.5, 2, 24, 27, 8, 8.4, 32, 36, 1, 'peaceful', 'delicate', ['copper', 'formalin', 'medicine dyes'], 20, 2, 'sinking frozen', 'K'],
  ['Blue-legged hermit crab', 'Clibanarius tricolor', null, 'marine', 2.5, 2, 23, 28, 8, 8.4, 31, 36, 1, 'peaceful', 'normal', ['copper', 'formalin'], 80, 0, 'algae, leftovers', 'K'],
  ['Tuxedo urchin', 'Mespilia globulus', null, 'marine', 7, 30, 23, 27, 8, 8.4, 32, 36, 1, 'peaceful', 'very delicate', ['copper', 'formalin', 'air'], 95, 1, 'algae', 'K'],
  ['Brittle star', 'Ophiocoma sp.', null, 'marine', 15, 10, 23, 28, 8, 8.4, 32, 36, 1, 'peaceful', 'very delicate', ['copper', 'formalin', 'air'], 15, 1, 'sinking frozen', 'K'],
  ['Sand-sifting snail', 'Nassarius sp.', null, 'marine', 2, 2, 23, 28, 8, 8.4, 31, 36, 3, 'peaceful', 'delicate', ['copper', 'formalin'], 20, 0, 'leftovers', 'K'],
]

/** What is no fish; everything else is. */
const otherAnimals: Record<string, Animal> = {
  'Amano shrimp': 'shrimp', 'Red cherry shrimp': 'shrimp', 'Crystal red shrimp': 'shrimp', 'Vampire shrimp': 'shrimp', 'Cleaner shrimp': 'shrimp', 'Peppermint shrimp': 'shrimp', 'Fire shrimp': 'shrimp', 'Pistol shrimp': 'shrimp',
  'Nerite snail': 'snail', 'Mystery snail': 'snail', 'Assassin snail': 'snail', 'Trochus snail': 'snail', 'Sand-sifting snail': 'snail',
  'Red-clawed crab': 'crab', 'Blue-legged hermit crab': 'crab', 'Tuxedo urchin': 'other invertebrate', 'Brittle star': 'other invertebrate',
}

/** Mouths that are not as usual for their length: longest animal that is swallowed, cm. */
const mouths: Record<string, number> = {
  'Angelfish (fresh water)': 3, 'Clown loach': 1, Discus: 1, 'Elephantnose fish': 0.8, 'Captive-bred seahorse': 1, 'Banded pipefish': 0.3, 'Yellow tang': 0.5, 'Blue tang': 0.5, 'Bristletooth tang': 0.3, 'Foxface rabbitfish': 0.5,
  'Copperband butterflyfish': 0.8, 'Fancy goldfish': 2, Oscar: 10, 'Pictus catfish': 5, 'Silver mono': 2, 'Spotted scat': 1.5, 'Figure-eight puffer': 1, 'Valentini puffer': 1, 'Bristlenose catfish': 0, Otocinclus: 0, 'Siamese algae eater': 0.5,
}

// Kept to what the mouths of the trade usually do: hunters take about a third of their length, others a tenth.
const mouthOf = (name: string, adultCm: number, temperament: string): number => (name in otherAnimals ? 0 : (mouths[name] ?? Math.round(adultCm * (temperament === 'hunts small fish' ? 0.33 : 0.1) * 10) / 10))

// For the weeks of holding, not for life.
const holdingL = (adultCm: number): number => ([[25, 150], [15, 60], [8, 30]].find(([cm]) => adultCm >= (cm ?? 0))?.[1] ?? 15)

/** The species book as it is shipped. */
export const speciesBook: readonly BookEntry[] = rows.map(
  ([name, scientificName, strains, water, adultCm, usualMassG, tempCMin, tempCMax, phMin, phMax, salinityPptMin, salinityPptMax, groupMin, temperament, tolerance, sensitive, shareSeenPercent, firstMealDays, firstFoods, basis]) => ({
    ...{ name, scientificName, strains, water, animal: otherAnimals[name] ?? 'fish', adultCm, swallowsCm: mouthOf(name, adultCm, temperament), minTankL: holdingL(adultCm), usualMassG, tempCMin, tempCMax, phMin, phMax, salinityPptMin, salinityPptMax },
    ...{ groupMin, temperament, tolerance, sensitivities: sensitive, shareSeenPercent, firstMealDays, firstFoods, basis: bases[basis], note: null },
  }),
)
