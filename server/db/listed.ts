/** Reads a list that a column keeps as JSON; none where nothing stands there. */
export const listed = <T>(json: string | null): T[] => (json === null || json === '[]' ? [] : (JSON.parse(json) as T[]))
