export type Split = { ok: true; fish: number[] } | { ok: false; reason: string }

/**
 * Splits a line's fish over its bags, in bag order.
 * With `perBag`, every bag holds that many and only the last may hold fewer; without it, fish are spread evenly.
 * @param count - fish on the line, 1 and up.
 * @param bags - bags on the line, 1 and up.
 * @param perBag - fish a full bag holds, or null when the list does not say.
 * @returns `ok: false` with a sentence when the three numbers cannot all be true.
 * @throws RangeError when a number is not a positive whole one.
 * @example splitIntoBags(22, 3, 8) // { ok: true, fish: [8, 8, 6] }
 */
export function splitIntoBags(count: number, bags: number, perBag: number | null): Split {
  for (const value of [count, bags, perBag ?? 1]) {
    if (!Number.isSafeInteger(value) || value < 1) throw new RangeError(`${value} is not a positive whole number`)
  }
  if (count < bags) return { ok: false, reason: `${bags} bags cannot share ${count} fish` }
  if (perBag === null) {
    const least = Math.floor(count / bags)
    return { ok: true, fish: Array.from({ length: bags }, (_, index) => least + (index < count % bags ? 1 : 0)) }
  }
  const last = count - perBag * (bags - 1)
  if (last < 1 || last > perBag) return { ok: false, reason: `${bags} bags of ${perBag} do not make ${count} fish` }
  return { ok: true, fish: Array.from({ length: bags }, (_, index) => (index === bags - 1 ? last : perBag)) }
}
