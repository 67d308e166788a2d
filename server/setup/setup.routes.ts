import { bookApi, registerApi } from '../../core/setup/setup.api'
import { registerNames, registers, type RegisterName } from '../../core/setup/registers'
import { serve, type Endpoint } from '../http/endpoint'
import type { SetupService } from './setup.service'

/** Answers for the lists that a lead keeps, and for the shipped species book. */
export const setupEndpoints = (setup: SetupService): Endpoint[] => [
  ...registerNames.flatMap((register) => endpointsOf(register, setup)),
  ...serve(bookApi, { readBook: setup.book, readBookChanges: setup.bookChanges, adoptSpecies: setup.adoptSpecies }),
]

const endpointsOf = (register: RegisterName, setup: SetupService): Endpoint[] =>
  serve(registerApi(register), {
    list: () => setup.list(register),
    csv: (_request, response) => void response.attachment(`${registers[register].title.toLowerCase().replace(' ', '-')}.csv`).type('text/csv; charset=utf-8').send(setup.writeCsv(register)),
    preview: async (request, response) => void response.json(await setup.previewCsv(register, request.body instanceof Uint8Array ? request.body : new Uint8Array())),
    add: setup.addRow(register),
    import: setup.importRows(register),
    edit: setup.editRow(register),
    retire: setup.retireRow(register),
  })
