import { registers, type RegisterName } from '../../core/setup/registers'
import { useRegister } from '../api/sharedReads'

/** Says what a row of another list is called; its id while that list is being read. */
export type ReferenceNames = (register: RegisterName, id: string) => string

/** Names of the rows that a list refers to. No list refers to more than two others. */
export function useReferenceNames(register: RegisterName): ReferenceNames {
  const named = [...new Set(registers[register].fields.flatMap((field) => (field.kind === 'reference' ? [field.register] : [])))]
  const [first = null, second = null] = named
  const lists = { [String(first)]: useRegister(first).rows, [String(second)]: useRegister(second).rows }
  return (other, id) => String(lists[other]?.find((row) => row.id === id)?.values[registers[other].key] ?? '')
}
