import { answers, command, named, read } from '../commands/declare'
import { leaveWordSchema, readHandoverSchema, takeWordOffSchema } from './handover.schema'
import type { HandoverDue, HandoverView } from './handoverView'

/** What happened since somebody was last here. */
export const handoverApi = named({
  /** what others did since whoever asks was last here, or read it */
  readHandover: read({ path: '/api/handover', access: 'keeper', about: () => ['handover', 'tank', 'look', 'round', 'run', 'crate', 'bag', 'plan', 'contact', 'chore', 'kitchen', 'stocktake', 'sale', 'introduction', 'rescue', 'register', 'limit', 'house', 'staff'], staysMs: 60_000, answer: answers<HandoverView>() }),
  /** whether whoever asks was away and has not read it */
  readHandoverDue: read({ path: '/api/handover/due', access: 'keeper', about: () => ['handover', 'staff'], staysMs: 600_000, answer: answers<HandoverDue>() }),
  tickHandover: command({ method: 'post', path: '/api/handover/read', access: 'keeper', schema: readHandoverSchema, touches: () => ['handover'] }),
  leaveWord: command({ method: 'post', path: '/api/handover/words', access: 'keeper', schema: leaveWordSchema, touches: () => ['handover'], answer: answers<{ id: string }>() }),
  /** whoever left it, or a lead */
  takeWordOff: command({ method: 'post', path: '/api/handover/words/:wordId/removal', access: 'keeper', schema: takeWordOffSchema, touches: () => ['handover'] }),
})
