import type { LetGo } from '../../core/holds/holdsView'

/** The page on which these fish are moved, with them filled in. */
export const moveOf = ({ placeName, speciesId, strain, lotId, fish }: LetGo): string => `/room/${placeName}/move?fish=${encodeURIComponent(JSON.stringify([{ speciesId, strain, lotIds: [lotId], quantity: fish }]))}`
