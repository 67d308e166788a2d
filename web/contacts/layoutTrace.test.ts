import { expect, test } from '@jest/globals'
import type { ChainStep, ReachedView } from '../../core/contacts/contactView'
import { foldBags } from '../../core/contacts/foldBags'
import { layoutTrace, wayOf } from './layoutTrace'

const step = (id: string, from: string, to: string): ChainStep => ({ id, kind: 'move', from, to, atMs: 0, words: '', isPlanned: true })
const reached = (node: string, hops: number, chain: ChainStep[]): ReachedView => ({ node, name: node, tanks: [], hops, atMs: hops, anyAtMs: hops, chain, isCleared: null })

test('a chain is walked from where it began to where it got, whichever way a contact was written down', () => {
  // A net was in A, then in B: written as "A to the net" and "B to the net".
  const chain = [step('1', 'A', 'net'), step('2', 'B', 'net')]
  expect(wayOf('B', chain, 'forward').map(({ from, to }) => [from, to])).toEqual([['A', 'net'], ['net', 'B']])
  expect(wayOf('A', chain, 'backward').map(({ from, to }) => [from, to])).toEqual([['A', 'net'], ['net', 'B']])
})

test('what came earlier stands further left; a way that several go by is drawn once', () => {
  const [ab, bc, bd] = [step('1', 'A', 'B'), step('2', 'B', 'C'), step('3', 'B', 'D')]
  const rows = [reached('B', 1, [ab]), reached('C', 2, [ab, bc]), reached('D', 2, [ab, bd])]
  const { nodes, edges } = layoutTrace({ reached: rows, nodes: ['A', 'B', 'C', 'D'].map((node) => ({ node, name: node, tanks: [] })), direction: 'forward' })
  const x = Object.fromEntries(nodes.map((each) => [each.node, each.x]))
  expect(edges.map(({ id }) => id.split(' ')[0]).sort()).toEqual(['1', '2', '3'])
  expect((x.A ?? 0) < (x.B ?? 0) && (x.B ?? 0) < (x.C ?? 0) && x.C === x.D).toBe(true)
  expect(nodes.filter(({ isStart }) => isStart).map(({ node }) => node)).toEqual(['A'])
})

test('bags of one crate are told as one, by the first of them', () => {
  const rows = [reached('water:b1', 1, [step('1', 'water:b1', 'A')]), reached('water:b2', 1, [step('2', 'water:b2', 'A')]), reached('water:R', 1, [step('3', 'water:R', 'A')])]
  const folded = foldBags(rows, [{ bagId: 'b1', crateId: 'c', crate: 7 }, { bagId: 'b2', crateId: 'c', crate: 7 }])
  expect(folded.map(({ name, chain }) => [name, chain.map(({ id }) => id)])).toEqual([['bags of crate 7', ['1']], ['water:R', ['3']]])
  expect(folded[0]?.chain[0]?.from).toBe(folded[0]?.node)
})
