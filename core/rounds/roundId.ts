/** Which walk of which day; the same on every device, before anybody has begun it. */
export interface RoundOf {
  on: string
  number: number
}

/** Names a round: `2031-05-04-1`. */
export const roundIdOf = ({ on, number }: RoundOf): string => `${on}-${number}`

/** Reads a round's name back; null for what is none. */
export function roundOfId(id: string): RoundOf | null {
  const [, on, number] = /^(\d{4}-\d\d-\d\d)-([1-9]\d?)$/.exec(id) ?? []
  return on === undefined || Number.isNaN(Date.parse(on)) ? null : { on, number: Number(number) }
}
