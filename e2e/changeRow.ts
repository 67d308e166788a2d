import type { OpenRoom } from './rooms'

/** Changes a row of a list that a lead keeps. */
export async function changeRow(server: OpenRoom, register: string, name: string, values: object): Promise<void> {
  const { rows } = await server.get<{ rows: { id: string; version: number; values: Record<string, unknown> }[] }>(`/api/setup/${register}`)
  const row = rows.find((each) => each.values.name === name || each.values.code === name)
  await server.put(`/api/setup/${register}/${row?.id}`, { version: row?.version, values: { ...row?.values, ...values } })
}
