import type { RegisterName, RegisterValues } from '../core/setup/registers'
import { emptyValues } from '../core/setup/registerCsv'
import { registers } from '../core/setup/registers'
import type { StaffView } from '../core/staff/staff.schema'
import type { Commander } from './commander'
import { demoAgents, demoDisplays, demoFeeds, demoFilters, demoFoodFigures, demoFoods, demoOldStock, demoPeople, demoPurposes, demoSuppliers, demoShapes, demoSystems, demoToolSets, demoVessels, demoWaters, demoZones, zoneOfSystem } from './demoBook'

export interface Furnished {
  people: { lead: StaffView; keepers: StaffView[] }
  /** Ids of the tanks by code. */
  tanks: Map<string, string>
}

/** Makes the room as a lead would: people, zones, systems, tanks, suppliers, foods, and the fish that stood there already. */
export async function furnish(commander: Commander, atMs: number, timeZone: string): Promise<Furnished> {
  commander.clock.nowMs = atMs
  await commander.staff.createFirstLead({ ...demoPeople.lead, roomName: 'Lantern Quay Fishroom', timeZone })
  const lead = commander.staff.listStaff()[0]
  if (!lead) throw new Error('the first lead was not made')
  for (const keeper of demoPeople.keepers) await commander.run('addStaff', {}, { ...keeper, role: 'keeper', passphrase: null }, lead, atMs)
  const keepers = commander.staff.listStaff().filter((person) => person.role === 'keeper')

  const add = async (register: RegisterName, values: RegisterValues): Promise<string> => {
    const name = `add${register.charAt(0).toUpperCase()}${register.slice(1)}`
    return (await commander.run<{ id: string }>(name, {}, { values: { ...emptyValues(registers[register].fields), ...values } }, lead, atMs)).id
  }
  const zones = new Map<string, string>()
  for (const name of demoZones) zones.set(name, await add('zones', { name }))
  for (const [name, zone, marking, netWidthCm, netMesh] of demoToolSets) await add('toolSets', { name, zoneId: zones.get(zone) ?? null, marking, netWidthCm, netMesh })
  for (const [name, kind, litres, air] of demoVessels) await add('vessels', { name, kind, litres, air })
  for (const [name, kind, thawMinutes, servesAs, note = null] of demoFoods) await add('foods', { name, kind, thawMinutes, servesAs, note, ...demoFoodFigures[name] })
  for (const feed of demoFeeds) await add('feeds', feed)
  for (const agent of demoAgents) await add('agents', agent)
  for (const { name, shippingTempC, shippingSalinityPpt, shippingPh, transitHours, claimWindowHours, claimRules, source } of demoSuppliers) {
    const supplierId = await add('suppliers', { name, shippingTempC, shippingSalinityPpt, shippingPh, transitHours, claimWindowHours, claimRules })
    await add('sources', { supplierId, name: source[0], origin: source[1] })
  }
  const tanks = await makeRacks(commander, lead, atMs, zones)
  const species = [...demoSuppliers.flatMap(({ assortment }) => assortment.map(([name]) => name)), ...demoOldStock.map(([name]) => name), 'Clown loach']
  await commander.run('adoptSpecies', {}, { names: [...new Set(species)] }, lead, atMs)
  for (const [name, quantity, tank] of demoOldStock) await commander.run('addFish', { tankId: tanks.get(tank) ?? '' }, { species: name, quantity, how: 'brought-in', note: 'here before the books', happenedAtMs: atMs }, lead, atMs)
  return { people: { lead, keepers }, tanks }
}

async function makeRacks(commander: Commander, lead: StaffView, atMs: number, zones: ReadonlyMap<string, string>): Promise<Map<string, string>> {
  const [tanks, systems] = [new Map<string, string>(), new Map<string, string>()]
  for (const system of demoSystems) {
    const made = await commander.run<{ systemId: string; tanks: { id: string; code: string }[] }>('addSystem', {}, system, lead, atMs)
    systems.set(system.name, made.systemId)
    for (const tank of made.tanks) tanks.set(tank.code, tank.id)
    const values = { ...emptyValues(registers.systems.fields), name: system.name, water: system.water, sharing: system.sharing, sumpL: system.sumpL, filter: demoFilters[system.name] ?? 'running', zoneId: zones.get(zoneOfSystem[system.name] ?? '') ?? null, ...demoWaters[system.name] }
    await commander.run('editSystems', { id: made.systemId }, { version: 1, values }, lead, atMs)
  }
  for (const [code, system, position, netVolumeL] of demoDisplays) {
    const values = { ...emptyValues(registers.tanks.fields), code, systemId: systems.get(system) ?? null, kind: 'glass', rack: 'D1', shelf: 1, position, netVolumeL, purpose: 'display' }
    tanks.set(code, (await commander.run<{ id: string }>('addTanks', {}, { values }, lead, atMs)).id)
  }
  await setPurposes(commander, lead, atMs)
  return tanks
}

/** Says of the tanks what they are for, those for sale aside, and what a net has to do with. */
async function setPurposes(commander: Commander, lead: StaffView, atMs: number): Promise<void> {
  for (const { id, version, values } of commander.rows('tanks', atMs)) {
    const code = String(values.code)
    const purpose = demoPurposes.find(([prefix]) => code.startsWith(prefix))?.[1] ?? values.purpose ?? null
    const shape = demoShapes.find(([prefix]) => code.startsWith(prefix))
    if (!shape) continue
    const [, depthCm, heightCm, decor] = shape
    await commander.run('editTanks', { id }, { version, values: { ...values, purpose, depthCm, heightCm, corners: 'square', decor } }, lead, atMs)
  }
}
