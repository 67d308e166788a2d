import { useState } from 'react'
import { arrangeRack, type Arranging, type ArrangeMode, type PlacedTank } from '../../core/room/arrangeRack'
import type { FloorRack, FloorSpot, FloorTank, FloorView } from '../../core/room/floor'
import { roomApi } from '../../core/room/room.api'
import { sentenceOf } from '../api/ApiProblem'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** Where racks stand on the floor, and tanks in the racks. */
export function useFloor() {
  const { data, problem } = useRead(roomApi.readFloor, {})
  return { floor: data, problem }
}

/** Something that was put elsewhere, and where everything of it stood. */
interface Moved {
  words: string
  tankId: string
  back: PlacedTank[]
}

/** What of a rack is arranged; its zones and waters are its tanks’. */
const asSent = ({ rack, shelves, perShelf, x, y, isTurned, version }: FloorRack) => ({ rack, shelves, perShelf, x, y, isTurned, version })

const refusals = { unknown: 'There is no such place', 'off the rack': 'That is off the rack', full: 'There is no gap to the right' } as const

/** Arranging: what was put where, each taken back in turn, the last one first. */
export function useArranging(floor: FloorView) {
  const write = useWrite()
  const [mode, setMode] = useState<ArrangeMode>('swap')
  const [done, setDone] = useState<Moved[]>([])
  const [problem, setProblem] = useState<string | null>(null)
  const [isBusy, setBusy] = useState(false)
  const form = { refusals: 'form' } as const

  const send = (work: Promise<unknown>, then: () => void): void => {
    setBusy(true)
    void work.then(() => (setProblem(null), then()), (error: unknown) => setProblem(sentenceOf(error))).finally(() => setBusy(false))
  }
  const place = (tanks: readonly PlacedTank[], label: string): Promise<unknown> => {
    const versions = new Map(floor.tanks.map(({ id, version }) => [id, version]))
    return write(roomApi.arrangeTanks, { label, body: { tanks: tanks.map((tank) => ({ ...tank, version: versions.get(tank.id) ?? 0 })) } }, form)
  }
  return {
    ...{ mode, setMode, done, problem, isBusy },

    /** Puts a tank into a place; whoever stands there makes room. */
    put(tank: FloorTank, to: { rack: string; shelf: number; position: number }): void {
      const { refused, moved, undo } = arrangeRack(floor.racks, floor.tanks, { id: tank.id, ...to, mode } satisfies Arranging)
      if (refused !== null) return setProblem(refusals[refused])
      if (moved.length === 0) return
      const words = `${tank.code} to ${to.rack}, shelf ${to.shelf}, place ${to.position}`
      send(place(moved, words), () => setDone((all) => [...all, { words, tankId: tank.id, back: undo }]))
    },

    undo(): void {
      const last = done.at(-1)
      if (last) send(place(last.back, 'taking back'), () => setDone((all) => all.filter((each) => each !== last)))
    },

    /** Another size, or another place on the floor. */
    change: (rack: FloorRack, more: Partial<FloorRack>): void => send(write(roomApi.arrangeRacks, { label: `rack ${rack.rack}`, body: { racks: [asSent({ ...rack, ...more })] } }, form), () => undefined),
    sinks: (sinks: FloorSpot[]): void => send(write(roomApi.placeSinks, { label: 'sinks', body: { sinks } }, form), () => undefined),
  }
}
