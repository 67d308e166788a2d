import type { StaffView } from './staff.schema'

/** For so long whoever wrote something that a hold hangs on takes it back. */
const ownUndoMs = 86_400_000

/** Whether somebody may take an entry back that a hold hangs on: whoever wrote it within a day, a lead at any time. */
export const mayTakeBack = ({ id, role }: Pick<StaffView, 'id' | 'role'>, { staffId, recordedAtMs }: { staffId: string; recordedAtMs: number }, nowMs: number): boolean =>
  role === 'lead' || (staffId === id && nowMs - recordedAtMs <= ownUndoMs)
