import type { AddPhoto } from '../../core/crates/photo.schema'
import { glassApi } from '../../core/room/glass.api'
import { prepared, serve, type Endpoint } from '../http/endpoint'
import type { GlassService } from './glass.service'

/** Answers for what hangs on tanks. What reads pictures is large and rarely needed, so it is loaded with its first use. */
export const glassEndpoints = ({ history, fileOf, recordReading, undoReading, pinNote, unpinNote, addTankPhoto, removeTankPhoto }: GlassService): Endpoint[] =>
  serve(glassApi, {
    readTankHistory: ({ params, query: { days }, nowMs }) => history(params.code, days, nowMs),
    ...{ recordReading, undoReading, pinNote, unpinNote, removeTankPhoto },
    addTankPhoto: prepared(async ({ image }: AddPhoto) => (await import('../crates/readPicture')).readPicture(image), addTankPhoto),
    readTankPhoto: (request, response) => void response.set({ 'Cache-Control': 'private, max-age=86400', 'X-Content-Type-Options': 'nosniff' }).type('image/jpeg').sendFile(fileOf(String(request.params.photoId))),
  })
