import type { OpenRoom } from './rooms'

const left = ['agent', 'substance', 'strengthMgPerMl', 'activePercent', 'strengthBasis', 'targetMgL', 'targetBasis', 'loMgL', 'hiMgL', 'partPercent', 'raiseAfterH', 'stepPercent', 'doneBelowMgL', 'bathMgL', 'bathMinutes', 'dipMgL', 'dipMinutes', 'cautions', 'note']
/** A product of the house with what its label says; all else is left open. */
export const addAgent = (server: OpenRoom, values: { name: string } & Record<string, string | number>): Promise<{ id: string }> => server.post<{ id: string }>('/api/setup/agents', { values: { ...Object.fromEntries(left.map((name) => [name, null])), ...values } })
