import { handoverApi } from '../../core/handover/handover.api'
import { useRead } from '../api/useRead'

/** Whether whoever records was away and has not read what happened. */
export const useHandoverDue = () => useRead(handoverApi.readHandoverDue, {}).data
