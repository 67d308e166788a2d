import type { Walk, WalkTank } from './walk'
import { naturally } from '../words/naturally'


/** Walks to begin with: along the bays, along the shelves, and along the least tree of every piece. All are valid. */
export function startingOrders(walk: Walk, tanks: readonly WalkTank[]): number[][] {
  const pieces = piecesOf(walk)
  return [
    pieces.flatMap((piece) => alongRacks(piece, tanks, 'position', 'shelf')),
    pieces.flatMap((piece) => alongRacks(piece, tanks, 'shelf', 'position')),
    alongTrees(walk, pieces),
  ]
}

/** The tanks of each piece, cleanest first. */
export function piecesOf({ block, blockState }: Walk): number[][] {
  const pieces: number[][] = Array.from(blockState, () => [])
  block.forEach((piece, tank) => pieces[piece]?.push(tank))
  return pieces
}

/** Zone by zone and rack by rack, there along one line and back along the next. */
function alongRacks(piece: readonly number[], tanks: readonly WalkTank[], line: 'position' | 'shelf', along: 'position' | 'shelf'): number[] {
  const at = (tank: number): WalkTank => tanks[tank] as WalkTank
  const rackOf = (tank: number): string => JSON.stringify([at(tank).zone, at(tank).rack])
  const sorted = [...piece].sort((a, b) => naturally(at(a).zone ?? '', at(b).zone ?? '') || naturally(at(a).rack, at(b).rack) || at(a)[line] - at(b)[line] || at(a)[along] - at(b)[along])
  const lines: number[][] = []
  for (const tank of sorted) {
    const last = lines.at(-1)
    const isSame = last !== undefined && rackOf(last[0] as number) === rackOf(tank) && at(last[0] as number)[line] === at(tank)[line]
    if (isSame) last.push(tank)
    else lines.push([tank])
  }
  return lines.flatMap((each, index) => (index % 2 === 0 ? each : each.reverse()))
}

/** Every piece along its least tree, from the tank nearest to where one stands; the nearest piece of a state next. At most twice the shortest inside a piece. */
function alongTrees({ size, cost, blockState }: Walk, pieces: readonly number[][]): number[] {
  const order: number[] = []
  const left = new Set(pieces.keys())
  while (left.size > 0) {
    const cleanest = Math.min(...[...left].map((piece) => blockState[piece] as number))
    const last = order.at(-1)
    let [bestPiece, bestTank, bestS] = [-1, -1, Infinity]
    for (const piece of left) {
      if (blockState[piece] !== cleanest) continue
      for (const tank of pieces[piece] as number[]) {
        const seconds = last === undefined ? 0 : (cost[last * size + tank] as number)
        if (seconds < bestS) [bestPiece, bestTank, bestS] = [piece, tank, seconds]
      }
    }
    left.delete(bestPiece)
    order.push(...preorder(leastTree({ size, cost }, pieces[bestPiece] as number[], bestTank)))
  }
  return order
}

/** Least spanning tree (Prim 1957): tanks in the order they joined, each with the one it hangs on and what that costs. */
export function leastTree({ size, cost }: Pick<Walk, 'size' | 'cost'>, piece: readonly number[], root: number): { tank: number; parent: number; seconds: number }[] {
  const tree = [{ tank: root, parent: -1, seconds: 0 }]
  const open = piece.filter((tank) => tank !== root)
  const nearest = open.map(() => root)
  const reach = open.map((tank) => cost[root * size + tank] as number)
  while (open.length > 0) {
    let next = 0
    for (let each = 1; each < open.length; each++) if ((reach[each] as number) < (reach[next] as number)) next = each
    const tank = open[next] as number
    tree.push({ tank, parent: nearest[next] as number, seconds: reach[next] as number })
    for (const list of [open, nearest, reach]) {
      list[next] = list.at(-1) as number
      list.pop()
    }
    for (let each = 0; each < open.length; each++) {
      const seconds = cost[tank * size + (open[each] as number)] as number
      if (seconds < (reach[each] as number)) [reach[each], nearest[each]] = [seconds, tank]
    }
  }
  return tree
}

/** A tree walked down each branch before the next, the nearest child first. */
function preorder(tree: readonly { tank: number; parent: number; seconds: number }[]): number[] {
  const children = new Map<number, { tank: number; seconds: number }[]>()
  for (const { tank, parent, seconds } of tree) children.set(parent, [...(children.get(parent) ?? []), { tank, seconds }])
  const order: number[] = []
  const stack = [...(children.get(-1) ?? [])]
  for (let next = stack.pop(); next; next = stack.pop()) {
    order.push(next.tank)
    stack.push(...(children.get(next.tank) ?? []).sort((a, b) => b.seconds - a.seconds))
  }
  return order
}
