/** Value of a triangular distribution below which a share `u` of it lies; low < likely < high or all alike. */
export function triangular(u: number, [low, likely, high]: readonly [number, number, number]): number {
  const turn = (likely - low) / (high - low)
  return u < turn ? low + Math.sqrt(u * (high - low) * (likely - low)) : high - Math.sqrt((1 - u) * (high - low) * (high - likely))
}
