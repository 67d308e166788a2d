import type { ReachedView } from './contactView'

/** A bag and its crate. */
export interface BagOfCrate {
  bagId: string
  crateId: string
  crate: number
}

/**
 * Tells bags of one crate as one: they came together, and whoever asks where something came from asks for the crate. The
 * first of them tells its way.
 */
export function foldBags(reached: readonly ReachedView[], bags: readonly BagOfCrate[]): ReachedView[] {
  const crateOf = new Map(bags.map(({ bagId, crateId, crate }) => [`water:${bagId}`, { node: `water:crate-${crateId}`, name: `bags of crate ${crate}` }]))
  const as = (node: string): string => crateOf.get(node)?.node ?? node
  const folded = new Map<string, ReachedView>()
  for (const each of reached) {
    const bag = crateOf.get(each.node)
    const node = as(each.node)
    if (folded.has(node)) continue
    folded.set(node, { ...each, node, name: bag?.name ?? each.name, chain: each.chain.map((step) => ({ ...step, from: as(step.from), to: as(step.to) })) })
  }
  return [...folded.values()]
}
