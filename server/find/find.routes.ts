import { sql } from 'drizzle-orm'
import type { FindHit } from '../../core/find/find'
import { findApi } from '../../core/find/find.api'
import type { Database } from '../db/open'
import { serve, type Endpoint } from '../http/endpoint'

const perKind = 8

/** Answers for the find box. */
export const findEndpoints = (db: Database): Endpoint[] => serve(findApi, { find: ({ query }) => ({ hits: query.q?.trim() ? find(db, query.q.trim()) : [] }) })

/** Finds tanks, lots, crates and species whose name begins with, or holds, what was typed; the former first. */
function find({ orm }: Database, words: string): FindHit[] {
  const escaped = words.replace(/[\\%_]/g, (mark) => `\\${mark}`)
  const [within, begins] = [`%${escaped}%`, `${escaped}%`]
  const tanks = orm.all<{ code: string; system: string; fish: number }>(
    sql`SELECT tank.code, system.name AS system, coalesce((SELECT sum(quantity) FROM stock WHERE place_id = tank.id), 0) AS fish FROM tank JOIN system ON system.id = tank.system_id
      WHERE tank.retired_at_ms IS NULL AND tank.code LIKE ${within} ESCAPE '\\' ORDER BY tank.code LIKE ${begins} ESCAPE '\\' DESC, tank.code LIMIT ${perKind}`,
  )
  const lots = orm.all<{ code: string; species: string; fish: number; tanks: string | null; crateId: string | null }>(
    sql`SELECT lot.code, species.name AS species, coalesce(sum(stock.quantity), 0) AS fish, group_concat(tank.code, ', ') AS tanks, line.crate_id AS crateId
      FROM lot JOIN species ON species.id = lot.species_id LEFT JOIN line ON line.lot_id = lot.id LEFT JOIN stock ON stock.lot_id = lot.id LEFT JOIN tank ON tank.id = stock.place_id
      WHERE lot.code LIKE ${begins} ESCAPE '\\' OR species.name LIKE ${within} ESCAPE '\\' GROUP BY lot.id ORDER BY fish > 0 DESC, lot.created_at_ms DESC LIMIT ${perKind}`,
  )
  const crates = orm.all<{ id: string; number: number; supplier: string }>(
    sql`SELECT crate.id, crate.number, supplier.name AS supplier FROM crate JOIN supplier ON supplier.id = crate.supplier_id
      WHERE 'crate ' || crate.number LIKE ${within} ESCAPE '\\' OR supplier.name LIKE ${within} ESCAPE '\\' ORDER BY crate.number DESC LIMIT ${perKind}`,
  )
  const species = orm.all<{ name: string; scientificName: string | null }>(
    sql`SELECT name, scientific_name AS scientificName FROM species WHERE name LIKE ${within} ESCAPE '\\' OR scientific_name LIKE ${within} ESCAPE '\\' ORDER BY name LIKE ${begins} ESCAPE '\\' DESC, name LIMIT ${perKind}`,
  )
  return [
    ...tanks.map(({ code, system, fish }): FindHit => ({ kind: 'tank', label: code, detail: `${system}, ${fish === 0 ? 'empty' : `${fish} fish`}`, to: `/room/${code}` })),
    ...lots.flatMap(({ code, species: name, fish, tanks: at, crateId }): FindHit[] => {
      const to = at ? `/room/${at.split(', ')[0]}` : crateId ? `/crates/${crateId}` : null
      return to ? [{ kind: 'lot', label: `${name} ${code}`, detail: at ? `${fish} in ${at}` : fish > 0 ? `${fish} still in bags` : 'none in the room now', to }] : []
    }),
    ...crates.map(({ id, number, supplier }): FindHit => ({ kind: 'crate', label: `crate ${number}`, detail: supplier, to: `/crates/${id}` })),
    ...species.map(({ name, scientificName }): FindHit => ({ kind: 'species', label: name, detail: scientificName ?? '', to: `/setup/species?q=${encodeURIComponent(name)}` })),
  ]
}
