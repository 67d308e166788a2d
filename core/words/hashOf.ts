/** A whole number that a text always has and another hardly ever: what a stand-in rolls its dice from. */
export function hashOf(text: string): number {
  let hash = 2166136261
  for (const letter of text) hash = Math.imul(hash ^ letter.charCodeAt(0), 16777619)
  return hash >>> 0
}
