import type { Room } from './room'

interface OpenedCrate {
  id: string
  lines: { id: string; lotId: string }[]
  bags: { id: string; lineId: string }[]
}

interface Line {
  species: string
  count: number
  bags: number
  tank: string
  supplier?: string
}

/** A crate of one line, its bags opened and read, through the commands of the interface. */
export const openedLine = (server: Room, line: Line, found: object = {}, nowMs = Date.now()): Promise<OpenedCrate> => openedLines(server, [line], found, nowMs)

export async function openedLines(server: Room, lines: readonly Line[], found: object = {}, nowMs = Date.now()): Promise<OpenedCrate> {
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const { id } = await server.post<{ id: string }>('/api/crates', {
    ...{ supplier: lines[0]?.supplier ?? 'Pale Harbour Livestock', expectedAtMs: null, packedAtMs: nowMs - 20 * 3_600_000 },
    lines: lines.map(({ species, count, bags, tank }) => ({ species, count, bags, perBag: null, tankId: tanks.find(({ code }) => code === tank)?.id ?? null, override: 'as the bench is tried' })),
  })
  const crate = await server.get<OpenedCrate>(`/api/crates/${id}`)
  for (const [index, { count, bags }] of lines.entries()) await server.post(`/api/crates/${id}/bags`, { bagIds: crate.bags.filter(({ lineId }) => lineId === crate.lines[index]?.id).map((bag) => bag.id), alive: count / bags, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: 23, salinityPpt: null, note: null, happenedAtMs: nowMs, ...found })
  return crate
}
