import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import pino, { type Logger } from 'pino'
import { auditEndpoints } from './audit/audit.routes'
import { baseUnits, type DisplayUnits } from '../core/units/units'
import { createAuditStore } from './audit/audit.store'
import { benchEndpoints } from './bench/bench.routes'
import { createBenchService } from './bench/bench.service'
import { createBenchStore } from './bench/bench.store'
import { createSubjectService } from './bench/subject.service'
import { createSubjectStore } from './bench/subject.store'
import { createDispatch, type Dispatch } from './commands/dispatch'
import { createCardService } from './crates/card.service'
import { choresEndpoints } from './chores/chores.routes'
import { createChoresService } from './chores/chores.service'
import { createRoutineService } from './chores/routine.service'
import { createRoutineStore } from './chores/routine.store'
import { kitchenEndpoints } from './kitchen/kitchen.routes'
import { createKitchenService } from './kitchen/kitchen.service'
import { createKitchenStore } from './kitchen/kitchen.store'
import { createClaimService } from './crates/claim.service'
import { createClaimStore } from './crates/claim.store'
import { cratesEndpoints, evidenceEndpoints, mailboxEndpoints } from './crates/crates.routes'
import { contactsEndpoints } from './contacts/contacts.routes'
import { createContactsService } from './contacts/contacts.service'
import { createContactsStore } from './contacts/contacts.store'
import { createCratesService } from './crates/crates.service'
import { createCratesStore } from './crates/crates.store'
import { deliveryEndpoints } from './crates/delivery.routes'
import { createDeliveryService } from './crates/delivery.service'
import { createDeliveryStore } from './crates/delivery.store'
import { createMailbox } from './crates/mailbox'
import { createPackingListsService } from './crates/packingLists.service'
import { createPlacementsService } from './crates/placements.service'
import { createPhotosService } from './crates/photos.service'
import { createPhotosStore } from './crates/photos.store'
import type { Database } from './db/open'
import { createCalendarService } from './due/calendar.service'
import { dueEndpoints } from './due/due.routes'
import { createDueService } from './due/due.service'
import { tellDue } from './due/tellDue'
import { createChanges, type Changes } from './events/changes'
import { eventsEndpoints } from './events/events.routes'
import type { Command, Endpoint } from './http/endpoint'
import { createAnswers, type Answers } from './http/answers'
import { createFactsService } from './facts/facts.service'
import { createFactsStore } from './facts/facts.store'
import { findEndpoints } from './find/find.routes'
import { handoverEndpoints } from './handover/handover.routes'
import { createHandoverService } from './handover/handover.service'
import { createHandoverStore } from './handover/handover.store'
import { photosIn } from './keeping/folder'
import { keepingEndpoints } from './keeping/keeping.routes'
import { createCatchingService } from './moves/catching.service'
import { createFightsService } from './moves/fights.service'
import { createHoldBooksStore } from './holds/holdBooks.store'
import { createPairings } from './holds/pairings.service'
import { createPairingsStore } from './holds/pairings.store'
import { createHoldsScreen } from './holds/holdsScreen'
import { createHoldKeeping } from './holds/holdKeeping'
import { createHoldsService } from './holds/holds.service'
import { startHolds } from './holds/startHolds'
import { introductionsEndpoints } from './moves/introductions.routes'
import { createIntroductionsService } from './moves/introductions.service'
import { createIntroductionsStore } from './moves/introductions.store'
import { createMoveRulesService } from './moves/moveRules.service'
import { movesEndpoints } from './moves/moves.routes'
import { createMovesService } from './moves/moves.service'
import { createMovesStore } from './moves/moves.store'
import { createSourcesService } from './moves/sources.service'
import { createNotices, type Notices } from './keeping/notices.service'
import { ledgerEndpoints } from './ledger/ledger.routes'
import { createEntries } from './ledger/entries'
import { createLedgerService } from './ledger/ledger.service'
import { createLedgerStore } from './ledger/ledger.store'
import { limitsEndpoints } from './limits/limits.routes'
import { createLimitsService } from './limits/limits.service'
import { simulatedProbes } from '../core/probes/simulatedProbes'
import { probesEndpoints } from './probes/probes.routes'
import { createProbesService } from './probes/probes.service'
import { createProbesStore } from './probes/probes.store'
import { newId } from './newId'
import { createOutcomesScreen } from './outcomes/outcomesScreen'
import { placingEndpoints } from './placing/placing.routes'
import { createPlacingService } from './placing/placing.service'
import { createPlacingStore } from './placing/placing.store'
import { createPlanService } from './placing/plan.service'
import { plansEndpoints } from './plans/plans.routes'
import { createPlansService } from './plans/plans.service'
import { createPlansStore } from './plans/plans.store'
import { createPoolsService } from './pools/pools.service'
import { createPoolsStore } from './pools/pools.store'
import { createFloorService } from './room/floor.service'
import { createFloorStore } from './room/floor.store'
import { glassEndpoints } from './room/glass.routes'
import { createGlassService } from './room/glass.service'
import { createGlassStore } from './room/glass.store'
import { createPastService } from './room/past.service'
import { createPastStore } from './room/past.store'
import { createRegimensStore } from './regimens/regimens.store'
import { createTransferBookings } from './regimens/transferBookings'
import { createRegimensScreen } from './regimens/regimensScreen'
import { roomEndpoints } from './room/room.routes'
import { createRoomService } from './room/room.service'
import { createRoomStore } from './room/room.store'
import { roundsEndpoints } from './rounds/rounds.routes'
import { createDecisionsService } from './rounds/decisions.service'
import { createDecisionsStore } from './rounds/decisions.store'
import { createLevelsService } from './rounds/levels.service'
import { createLevelsStore } from './rounds/levels.store'
import { createRoundListsService } from './rounds/roundLists.service'
import { createRoundWalk } from './rounds/roundWalk.service'
import { createRoundsService } from './rounds/rounds.service'
import { createStopsService } from './rounds/stops.service'
import { createRoundsStore } from './rounds/rounds.store'
import { salesEndpoints } from './sales/sales.routes'
import { createSalesService } from './sales/sales.service'
import { createSalesStore } from './sales/sales.store'
import { schoolsEndpoints } from './schools/schools.routes'
import { createSchoolsService } from './schools/schools.service'
import { setupEndpoints } from './setup/setup.routes'
import { createSetupService } from './setup/setup.service'
import { createSetupStore } from './setup/setup.store'
import { createSpeciesStore } from './species/species.store'
import { stocktakeEndpoints } from './stocktake/stocktake.routes'
import { createStocktakeService } from './stocktake/stocktake.service'
import { createStocktakeStore } from './stocktake/stocktake.store'
import { todayEndpoints } from './today/today.routes'
import { createTodayService } from './today/today.service'
import { createTodayStore } from './today/today.store'
import { createVesselsService } from './vessels/vessels.service'
import { createVesselsStore } from './vessels/vessels.store'
import { staffEndpoints } from './staff/staff.routes'
import { createStaffService, type StaffService } from './staff/staff.service'

export interface AppOptions {
  db: Database
  now: () => number
  isFrozenClock?: boolean
  isSecure?: boolean
  /** Where pictures lie; beside the database unless said otherwise. */
  photosFolder?: string
  /** Where suppliers' lists come in, likewise. */
  mailboxFolder?: string
  /** Folder of the built interface; left out in tests. */
  webFolder?: string
  /** Folder of the copies that are made by themselves; null where there are none. */
  copiesFolder?: string | null
  /** Names the room is served under besides those of this machine. */
  names?: readonly string[]
  log?: Logger
}

export interface Services {
  /** Walks the ledger ahead of whoever asks for a moment; answers whether there is more. */
  walkPast(): boolean
  /** Asks the probes whose time has come. */
  pollProbes(): Promise<void>
  changes: Changes
  /** Answers of reads, as they are sent. */
  answers: Answers
  staff: StaffService
  dispatch: Dispatch
  endpoints: Endpoint[]
  /** How figures are shown here. */
  units(): DisplayUnits
  notices: Notices & { /** Lets every device read them anew. */ changed(): void }
}

/** Puts the features together around one database. The demo writes through these, as the browser does through the app. */
export function createServices({ db, now, isFrozenClock = false, isSecure = false, photosFolder = beside(db, 'photos'), mailboxFolder = beside(db, 'mailbox'), copiesFolder = null, log = pino({ level: 'warn' }) }: AppOptions): Services {
  const [species, audit] = [createSpeciesStore(db), createAuditStore(db)]
  const [ledgerStore, roomStore, roundsStore] = [createLedgerStore(db), createRoomStore(db), createRoundsStore(db)]
  const poolsStore = createPoolsStore(db)
  const notices = createNotices(db, audit)
  const staff = createStaffService({ db, now, isFrozenClock, isSecure, notices: notices.open })
  const roundLists = createRoundListsService(db, audit)
  const limits = createLimitsService(db, audit, roundLists.inForce)
  const [cratesStore, benchStore] = [createCratesStore(db), createBenchStore(db)]
  const deliveryStore = createDeliveryStore(db)
  const units = (): DisplayUnits => roomStore.room() ?? baseUnits
  const zone = (): string => roomStore.room()?.timeZone ?? 'UTC'
  const [changes, answers] = [createChanges(), createAnswers(db.version)]
  startHolds(db, { days: () => limits.inForce().shopHoldDays, zone, nowMs: now() })
  const [holdBooks, levelsStore, waters] = [createHoldBooksStore(db), createLevelsStore(db), createRegimensStore(db)]
  const holds = createHoldsService({ db, books: holdBooks, limits: limits.inForce, roundRules: limits.roundRules, runs: levelsStore.runs, zone })
  const facts = createFactsService({ store: createFactsStore(db), limits: limits.inForce, holds, binders: waters.binders })
  changes.listen(facts.listen)
  const pairings = createPairings({ store: createPairingsStore(db), holds, facts })
  const holdKeeping = createHoldKeeping({ books: holdBooks, policies: () => holds.rules().policies, zone, judgePairings: pairings.judge })
  holdKeeping.keepWaters(now())
  const [movesStore, plansStore] = [createMovesStore(db), createPlansStore(db)]
  const moveRules = createMoveRulesService({ store: movesStore, version: db.version, audit })
  const waiting = createPlansService({ store: plansStore, facts, rules: moveRules.inForce, zone })
  const [roundRules, transfers] = [limits.roundRules, createTransferBookings({ store: waters, facts, zone })]
  const [placingStore, kitchenStore] = [createPlacingStore(db, (nowMs) => [...waiting.bookings(nowMs), ...transfers(nowMs)]), createKitchenStore(db)]
  const levels = createLevelsService({ store: levelsStore, facts, limits: limits.inForce, rules: roundRules, zone, given: kitchenStore.givenSince })
  changes.listen(levels.listen)
  const chores = createChoresService({ db, facts, waters })
  const [glassStore, floorStore] = [createGlassStore(db), createFloorStore(db)]
  const walk = createRoundWalk({ floor: floorStore, levels: levelsStore, rules: roundRules })
  const rechecks = (nowMs: number) => benchStore.rechecks(nowMs - 86_400_000)
  const stops = createStopsService({ levels, pins: glassStore.pins, chores: chores.open, routine: (nowMs) => routine.view(nowMs).due, rechecks, pairings: pairings.askedAt, tanks: facts.inUse, booked: placingStore.bookings, systemName: walk.nameOf, rules: roundRules })
  const glass = createGlassService({ store: glassStore, facts, placing: placingStore, tankByCode: roomStore.tankByCode, flagOf: levels.flagOf, judgedOf: levels.one, rules: roundRules, folder: photosFolder })
  const room = createRoomService({ store: roomStore, glass: glass.of, flagOf: levels.flagOf, judgedOf: stops.of, facts, ledger: ledgerStore, pools: poolsStore, checksAt: roundsStore.at, bookings: placingStore.bookings })
  const isTank = (id: string): boolean => roomStore.tankById(id)?.retiredAtMs === null
  const pools = createPoolsService({ store: poolsStore, write: createEntries(ledgerStore), zone })
  const vesselsStore = createVesselsStore(db)
  const ofMoves = { facts, levels, placing: placingStore, limits: limits.inForce, rules: moveRules.inForce, zone, dayStart: room.dayStart, clocks: holds, openPairings: pairings.open }
  const vessels = createVesselsService({ ...ofMoves, store: vesselsStore })
  const contacts = createContactsService({ ...ofMoves, store: createContactsStore(db), vesselWaters: vesselsStore.waters })
  const routine = createRoutineService({ store: createRoutineStore(db), facts, contacts, waters, audit, zone })
  changes.listen(routine.listen)
  const sources = createSourcesService({ ...ofMoves, contacts })
  const gate = { store: placingStore, audit, limits: limits.inForce, facts, sources }
  const placing = createPlacingService(gate)
  const plans = createPlanService({ ...gate, placing, fights: createFightsService({ ...ofMoves, store: movesStore }), lines: deliveryStore.lines, shipping: deliveryStore.shipping })
  const moves = createMovesService({ ...ofMoves, gate: placing, pools, sources, contacts, vessels, waiting, store: movesStore })
  const ledger = createLedgerService({ store: ledgerStore, pools, species, tankIdOf: (id) => room.requireTank(id).id, moves, carriedOut: waiting.carriedOut, renameLine: cratesStore.renameLine, holdIn: facts.holdIn, audit })
  const introductions = createIntroductionsService({ ...ofMoves, store: createIntroductionsStore(db), movesStore, moves, ledger, vessels })
  const stocktakes = createStocktakeService({ store: createStocktakeStore(db), ledger, pools, species, tankIdOf: (id) => room.requireTank(id).id })
  const sales = createSalesService({ store: createSalesStore(db), facts, ledger, zone })
  const crates = createCratesService({ store: cratesStore, ledger, ledgerStore, species, isTank, plans, audit })
  const placements = createPlacementsService({ store: cratesStore, ledger, ledgerStore, isTank, placing })
  const cards = createCardService({ store: cratesStore, facts, served: holds.served, books: holdBooks, zone, roomName: () => roomStore.room()?.name ?? '' })
  const past = createPastService({ store: createPastStore(db), facts })
  const floor = createFloorService({ store: floorStore, facts, audit })
  const decisions = createDecisionsService({ store: createDecisionsStore(db), facts })
  const holdsScreen = createHoldsScreen({ db, books: holdBooks, holds, facts, pairings, decisions, audit, systems: roomStore.systems, zone })
  const regimens = createRegimensScreen({ db, books: holdBooks, holds, facts, foods: kitchenStore.foods, ordersOf: kitchenStore.orders, staff: staff.listStaff, systemName: (id) => roomStore.systems().find((system) => system.id === id)?.name ?? 'water', zone })
  const rounds = createRoundsService({ store: roundsStore, walk, levels, stops, decisions, room, roomStore, facts, limits: limits.inForce })
  const setup = createSetupService({ store: createSetupStore(db), audit, insertPlace: ledgerStore.insertPlace })
  const photos = createPhotosService({ store: createPhotosStore(db), crates: cratesStore, folder: photosFolder })
  const claims = createClaimService({ store: createClaimStore(db), crates, audit })
  const delivery = createDeliveryService({ store: deliveryStore, crates, cratesStore, plans, overrideReason: placingStore.overrideReason, isTank, limits: limits.inForce })
  const schools = createSchoolsService(db, audit)
  const subjects = createSubjectStore(db, (tankId) => facts.tank(tankId, now()))
  const bench = createBenchService({ store: benchStore, subjects, ledger, pools, ledgerStore, placing, crates: cratesStore, schools, limits: limits.inForce, zone: room.zone, units })
  const kitchen = createKitchenService({ store: kitchenStore, facts, vessels: (nowMs) => vessels.view(nowMs).vessels, walk: (nowMs) => walk.order('kitchen', [...levels.all(nowMs).values()], () => 1, () => undefined).stops.map(({ tankId }) => tankId), limits: limits.inForce, rules: roundRules, growth: moveRules.inForce, lengths: plansStore.lengths, courses: regimens.feedOrders, zone })
  changes.listen(kitchen.listen)
  const probes = createProbesService({ store: createProbesStore(db), probes: simulatedProbes, facts, glass, audit, limits: limits.inForce, rules: roundRules })
  changes.listen(probes.listen)
  const due = createDueService({ version: db.version, runs: benchStore.open, rechecks, crates: cratesStore.openAndClaimable, preparation: delivery.preparation, vessels: vessels.view, introductions: introductions.list, plans: waiting.view, chores: chores.open, routine: (nowMs) => routine.view(nowMs), feeds: kitchen.due, probes: probes.due, holds: holdsScreen.due, regimens: regimens.due, limits: limits.inForce, units })
  changes.listen(due.listen)
  tellDue({ changes, due, now, isOpen: () => db.raw.open, onError: (error) => log.error(error, 'what is due could not be told') })
  const today = createTodayService({ store: createTodayStore(db), facts, roomStore, crates: cratesStore.openAndClaimable, limits: limits.inForce, rescues: placingStore.rescues, rechecks, due: due.view, stops: stops.all, appetiteOf: stops.appetiteOf })
  const calendars = createCalendarService({ db, audit, due, roomName: () => roomStore.room()?.name ?? '', units })
  const endpoints = [
    ...staffEndpoints(staff, isSecure),
    ...roomEndpoints(room, past, floor, now),
    ...glassEndpoints(glass),
    ...ledgerEndpoints(ledger),
    ...stocktakeEndpoints(stocktakes),
    ...salesEndpoints(sales, now),
    ...contactsEndpoints(contacts),
    ...holdsScreen.endpoints,
    ...regimens.endpoints,
    ...createOutcomesScreen({ db, facts, levels, limits: limits.inForce, zone, now, roomName: () => roomStore.room()?.name ?? '' }).endpoints,
    ...movesEndpoints({ moves, ledger, vessels, rules: moveRules, catching: createCatchingService({ ...ofMoves, store: movesStore }) }),
    ...introductionsEndpoints(introductions),
    ...plansEndpoints(waiting),
    ...cratesEndpoints({ crates, placements, cards, lists: createPackingListsService(cratesStore, species) }),
    ...evidenceEndpoints({
      ...{ photos, claims },
      paper(crateId) {
        const { sheet, rules, note } = claims.view(crateId)
        return { room: roomStore.room()?.name ?? '', timeZone: room.zone(), crate: crates.view(crateId), sheet, rules, note, madeAtMs: now(), photoFiles: Object.fromEntries(sheet.lines.flatMap(({ bags }) => bags.flatMap(({ photoIds }) => photoIds.map((id) => [id, photos.fileOf(id)])))) }
      },
    }),
    ...mailboxEndpoints(createMailbox(mailboxFolder)),
    ...deliveryEndpoints(delivery, now),
    ...eventsEndpoints(changes, { sessionOf: (request) => staff.sessionIdOf(request.headers.cookie) }, answers.books),
    ...roundsEndpoints(rounds, decisions, roundLists),
    ...choresEndpoints(chores, routine),
    ...kitchenEndpoints(kitchen),
    ...probesEndpoints(probes),
    ...handoverEndpoints(createHandoverService({ store: createHandoverStore(db), facts, rescues: placingStore.rescues })),
    ...setupEndpoints(setup),
    ...limitsEndpoints(limits),
    ...benchEndpoints(bench, createSubjectService({ store: subjects, limits: limits.inForce, units, instruments: () => roomStore.room() ?? { salinityBy: 'refractometer', phBy: 'meter' }, placing })),
    ...schoolsEndpoints(schools),
    ...auditEndpoints(audit),
    ...todayEndpoints(today),
    ...dueEndpoints({ due, calendars, now }),
    ...placingEndpoints(placing),
    ...findEndpoints(db),
    ...keepingEndpoints({ db, audit, notices, now, copiesFolder }),
  ]
  const dispatch = createDispatch(db, changes, (by, touched) => {
    holdKeeping.after(by, touched)
    return regimens.after(by, touched)
  })
  /** Asks the probes whose time has come, in the name of whoever hung them up: through the one door, like anybody's write. */
  async function pollProbes(): Promise<void> {
    const [asker, poll] = [probes.asker(now()), endpoints.find((each): each is Command => each.kind === 'command' && each.name === 'pollProbes')]
    const people = staff.listStaff()
    const actor = asker === null ? undefined : (people.find(({ id }) => id === asker) ?? people.find(({ role }) => role === 'lead'))
    if (actor && poll) await dispatch(poll, { key: newId(), actor: { ...actor, isPinFresh: false, sessionId: null }, params: {}, body: {}, nowMs: now() }).catch((error: unknown) => log.error(error, 'the probes could not be asked'))
  }
  return { walkPast: past.walkOn, pollProbes, changes, answers, staff, dispatch, endpoints, units, notices: { ...notices, changed: () => changes.tell({ command: 'notice', params: {}, touched: ['notice'] }) } }
}

/** A folder that lies with the database; one of its own for a room in memory. */
const beside = (db: Database, name: 'photos' | 'mailbox'): string => (db.file === ':memory:' ? join(tmpdir(), `daily-crate-${name}-${process.pid}`) : resolve(name === 'photos' ? photosIn(dirname(db.file)) : join(dirname(db.file), name)))
