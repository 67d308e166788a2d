/** Makes a key for a write: 24 characters from 18 random bytes. Works on plain http, where `randomUUID` does not exist. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(18))
  return btoa(String.fromCharCode(...bytes)).replaceAll('+', '-').replaceAll('/', '_')
}
