import { regimensApi } from '../../core/regimens/regimens.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { OfferReads } from './offerReads'
import type { RegimensViewService } from './regimensView.service'
import type { RegimensWrites } from './regimensWrites.service'

/** Answers for regimens. */
export const regimensEndpoints = ({ view, offers, writes }: { view: RegimensViewService; offers: OfferReads; writes: RegimensWrites }): Endpoint[] =>
  serve(regimensApi, {
    readRegimens: ({ nowMs }) => view.view(nowMs),
    readRegimen: ({ params, nowMs }) => view.one(params.regimenId, nowMs),
    readDoseOffer: ({ params, query, nowMs }) => offers.of(params.code, query, nowMs),
    recordContents: writes.recordContents,
    recordFound: writes.recordFound,
    recordDose: writes.recordDose,
    undoDose: writes.undoDose,
    recordWaterChange: writes.recordWaterChange,
    undoWaterChange: writes.undoWaterChange,
    startLadder: writes.start,
    startDoses: writes.start,
    startMedicatedFeed: writes.start,
    startTransfer: writes.start,
    startLowSalinity: writes.start,
    recordRegimenStep: writes.recordStep,
    endRegimen: writes.endRegimen,
  })
