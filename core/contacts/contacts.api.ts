import { object } from 'yup'
import type { Thing } from '../commands/things'
import { answers, command, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import { beginBathSchema, clearWaterSchema, endBathSchema, endContactSchema, recordContactSchema, undoContactSchema, useToolsSchema } from './contacts.schema'
import type { ToolView, TraceView } from './contactView'

/** A breach waits for a word, and the holds of both waters with it. */
const breaching = ['contact', 'hold', 'tank', 'look', 'round'] as const

/** Who and what met: what somebody writes down of it, and what can have travelled. */
export const contactsApi = named({
  /** `?start=tank:ID` or `lot:ID` or `tools:ID`, `&direction=backward`, `&days=28`, `&hops=2`, `&kinds=move,water`; nothing recorded is not "no contact" */
  readTrace: read({ path: '/api/contacts/trace', access: 'device', query: object({ start: word(90), direction: word(8), days: word(4), hops: word(2), kinds: word(90) }), about: () => ['tank', 'contact', 'run', 'bag', 'register', 'limit'], staysMs: 60_000, answer: answers<TraceView>() }),
  /** tool sets with what they carry */
  readTools: read({ path: '/api/tools', access: 'device', about: () => ['contact', 'register'], staysMs: 60_000, answer: answers<{ tools: ToolView[] }>() }),
  recordContact: command({ method: 'post', path: '/api/contacts', access: 'keeper', schema: recordContactSchema, touches: (): readonly Thing[] => breaching, answer: answers<{ id: string }>() }),
  endContact: command({ method: 'put', path: '/api/contacts/:contactId/end', access: 'keeper', schema: endContactSchema, touches: (): readonly Thing[] => breaching }),
  undoContact: command({ method: 'post', path: '/api/contacts/:contactId/undo', access: 'keeper', schema: undoContactSchema, touches: (): readonly Thing[] => breaching }),
  useTools: command({ method: 'post', path: '/api/tools/:toolSetId/uses', access: 'keeper', schema: useToolsSchema, touches: () => ['contact'], answer: answers<{ id: string }>() }),
  beginBath: command({ method: 'post', path: '/api/tools/:toolSetId/baths', access: 'keeper', schema: beginBathSchema, touches: () => ['contact'], answer: answers<{ id: string }>() }),
  endBath: command({ method: 'put', path: '/api/tools/:toolSetId/baths', access: 'keeper', schema: endBathSchema, touches: () => ['contact'] }),
  /** 409 while fish stand in the water */
  clearWater: command({ method: 'post', path: '/api/tanks/:tankId/clears', access: 'keeper', schema: clearWaterSchema, touches: () => ['contact'] }),
})
