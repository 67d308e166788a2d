import { command, named } from '../commands/declare'
import { strictObject } from '../fields/fields.schema'

/** Fish that a keeper alone put somewhere against a rule. */
export const placingApi = named({
  /** a rescue (listed on *today*) was looked at; the key is that of the command that did it */
  seeRescue: command({ method: 'post', path: '/api/rescues/:key/seen', access: 'lead', schema: strictObject({}), touches: () => ['rescue'] }),
})
