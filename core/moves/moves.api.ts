import { object } from 'yup'
import { answers, command, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import type { Thing } from '../commands/things'
import { changeMoveRulesSchema, loseInVesselSchema, moveTogetherSchema, recordFightSchema, recordLiftSchema, undoSeenSchema, type MoveTogether } from './moves.schema'
import type { CatchView, MoveCheckView, MoveChoice, MoveRulesView, VesselView } from './moveView'

type Written = { movementIds: string[] }

/** A tank is known by its id; a vessel shows in the tank whose water it has, and in the list of vessels. */
const touchedBy = ({ from, to, toolSetId, waterGoesAlong, planId }: MoveTogether): readonly Thing[] => ['rescue', ...(planId ? (['plan'] as const) : []), ...(toolSetId || waterGoesAlong ? (['contact'] as const) : []), ...[from, to].flatMap(({ kind, id }): Thing[] => (kind === 'tank' ? [`tank:${id}`] : ['vessel', 'tank']))]

/** What the check looks at. */
const aboutMoves = ['tank', 'vessel', 'look', 'contact', 'run', 'crate', 'bag', 'register', 'limit', 'fight', 'plan'] as const

/** Moving fish without doing harm. */
export const movesApi = named({
  /** `?from=tank:ID&to=vessel:ID`, `to=outside` where they leave; `&fish=` JSON list of *speciesId*, *strain*, *lotIds*, *quantity*; `&tools=` tool set, `&water=1` where water goes along, `&plan=` the plan it carries out. Nothing is written */
  readMoveCheck: read({ path: '/api/move-check', access: 'device', query: object({ from: word(80), to: word(80), fish: word(8000), tools: word(64), water: word(1), plan: word(64) }), about: () => aboutMoves, staysMs: 60_000, answer: answers<MoveCheckView>() }),
  /** every place that fish (`?from=`, `&fish=` as above) may go to, the best first */
  readMoveChoices: read({ path: '/api/move-choices', access: 'device', query: object({ from: word(80), fish: word(8000), plan: word(64) }), about: () => aboutMoves, staysMs: 60_000, answer: answers<{ places: MoveChoice[] }>() }),
  /** with what to catch fish (`?fish=` as above, `&chosen=1` for certain ones), how many are to be expected, and what is to be minded */
  readCatch: read({ path: '/api/tanks/:tankId/catch', access: 'device', query: object({ fish: word(8000), chosen: word(1) }), about: ({ tankId }) => [`tank:${tankId}`, 'lift', 'register', 'limit'], staysMs: 60_000, answer: answers<{ cards: CatchView[] }>() }),
  /** buckets and boxes with their fish, whose water they have, and until when they bear them */
  readVessels: read({ path: '/api/vessels', access: 'device', about: () => ['vessel', 'register', 'limit', 'crate'], staysMs: 30_000, answer: answers<{ vessels: VesselView[] }>() }),
  /** *against a rule*: override (a lead's reason), isRescue (a keeper alone, fish in distress); all kinds or none */
  moveTogether: command({ method: 'post', path: '/api/moves', access: 'keeper', schema: moveTogetherSchema, touches: (_, input) => touchedBy(input), answer: answers<Written>() }),
  loseInVessel: command({ method: 'post', path: '/api/vessels/:vesselId/losses', access: 'keeper', schema: loseInVesselSchema, touches: () => ['vessel', 'tank'], answer: answers<Written>() }),
  recordLift: command({ method: 'post', path: '/api/tanks/:tankId/lifts', access: 'keeper', schema: recordLiftSchema, touches: () => ['lift'], answer: answers<{ id: string }>() }),
  undoLift: command({ method: 'post', path: '/api/lifts/:liftId/undo', access: 'keeper', schema: undoSeenSchema, touches: () => ['lift'] }),
  recordFight: command({ method: 'post', path: '/api/tanks/:tankId/fights', access: 'keeper', schema: recordFightSchema, touches: () => ['fight'], answer: answers<{ id: string }>() }),
  undoFight: command({ method: 'post', path: '/api/fights/:fightId/undo', access: 'keeper', schema: undoSeenSchema, touches: () => ['fight'] }),
  /** every number of moves as shipped, and what the house changed */
  readMoveRules: read({ path: '/api/move-rules', access: 'device', about: () => ['limit', 'staff'], staysMs: Infinity, answer: answers<MoveRulesView>() }),
  /** one JSON object such as {"liftsPerDay": 4, "levels": {"shares": "off"}}; hard reasons never change */
  changeMoveRules: command({ method: 'put', path: '/api/move-rules', access: 'lead', schema: changeMoveRulesSchema, touches: () => ['limit'], answer: answers<{ version: number }>() }),
})
