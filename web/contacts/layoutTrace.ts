import { graphlib, layout } from '@dagrejs/dagre'
import type { ChainStep, NodeView, TraceView } from '../../core/contacts/contactView'

/** A water or a tool set in the drawing, where it stands. */
export interface DrawnNode extends NodeView {
  x: number
  y: number
  width: number
  height: number
  isStart: boolean
  /** How far it is: 0 is the water itself. */
  hops: number
  atMs: number | null
}

/** What went from one to the other, and when. */
export interface DrawnEdge {
  id: string
  from: string
  to: string
  kind: ChainStep['kind']
  atMs: number
  isPlanned: boolean
}

const [nodeWidth, lettersInLine, lineHeight] = [150, 18, 17]
/** A box is as high as its name needs. */
export const sizeOf = (name: string): { width: number; height: number } => ({ width: nodeWidth, height: 28 + lineHeight * Math.ceil(name.length / lettersInLine) })

/** The way of a chain, node by node, in the order of time. */
export function wayOf(node: string, chain: readonly ChainStep[], direction: TraceView['direction']): DrawnEdge[] {
  const ordered = direction === 'forward' ? chain.toReversed() : chain
  let here = node
  const edges = ordered.map(({ id, kind, from, to, atMs, isPlanned }): DrawnEdge => {
    const other = from === here ? to : from
    const [left, came] = direction === 'forward' ? [other, here] : [here, other]
    here = other
    return { id: `${id} ${left} ${came}`, from: left, to: came, kind, atMs, isPlanned }
  })
  return direction === 'forward' ? edges.reverse() : edges
}

/** Draws a trace as a graph: from left to right as time went, every way once. */
export function layoutTrace({ reached, nodes: named, direction }: Pick<TraceView, 'reached' | 'nodes' | 'direction'>): { nodes: DrawnNode[]; edges: DrawnEdge[] } {
  const edges = new Map(reached.flatMap(({ node, chain }) => wayOf(node, chain, direction)).map((edge) => [edge.id, edge]))
  const known = new Map(reached.map((each) => [each.node, each]))
  const graph = new graphlib.Graph({ multigraph: true })
  graph.setGraph({ rankdir: 'LR', nodesep: 18, ranksep: 90 })
  graph.setDefaultEdgeLabel(() => ({}))
  for (const { node, name } of named) graph.setNode(node, sizeOf(name))
  for (const { id, from, to } of edges.values()) graph.setEdge(from, to, {}, id)
  layout(graph)
  const nodes = named.map((each): DrawnNode => {
    const { x = 0, y = 0 } = graph.node(each.node) as { x?: number; y?: number }
    const [at, { width, height }] = [known.get(each.node), sizeOf(each.name)]
    return { ...each, width, height, x: x - width / 2, y: y - height / 2, isStart: at === undefined, hops: at?.hops ?? 0, atMs: at?.atMs ?? null }
  })
  return { nodes, edges: [...edges.values()] }
}
