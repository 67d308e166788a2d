import { array } from 'yup'
import { bounds, strictObject, text } from '../../core/fields/fields.schema'
import { editRowSchema, importRowsSchema, registerValuesSchema, retireRowSchema, type EditRow, type ImportRows } from '../../core/setup/registerSchema'
import { registerNames, registers, type RegisterName, type RegisterValues } from '../../core/setup/registers'
import { command, plain, read, type Endpoint } from '../http/endpoint'
import type { Schema } from '../../core/fields/validated'
import type { SetupService } from './setup.service'

const adoptSchema = strictObject({ names: array().of(text('Species', bounds.name)).typeError('Names must be a list').defined('Names are missing').nonNullable('Names are missing').min(1, 'No species is named').max(500, 'At most 500 at once') })

/** Addresses of the lists that a lead keeps: six for each. Everybody may read them; leads change them. */
export const setupEndpoints = (setup: SetupService): Endpoint[] => [
  ...registerNames.flatMap((register) => endpointsOf(register, setup)),
  read({ path: '/api/species-book', access: 'device', read: setup.book }),
  read({ path: '/api/species-book/changes', access: 'device', read: setup.bookChanges }),
  command({ method: 'post', path: '/api/setup/species/adoptions', access: 'lead', name: 'adoptSpecies', schema: adoptSchema, run: setup.adoptSpecies }),
]

function endpointsOf(register: RegisterName, setup: SetupService): Endpoint[] {
  const path = `/api/setup/${register}`
  const name = register.charAt(0).toUpperCase() + register.slice(1)
  const addSchema = strictObject({ values: registerValuesSchema(register).required('Values are missing') }) as unknown as Schema<{ values: RegisterValues }>
  return [
    read({ path, access: 'device', read: () => setup.list(register) }),
    plain({
      method: 'get',
      path: `${path}/csv`,
      access: 'device',
      handle: (_request, response) => void response.attachment(`${registers[register].title.toLowerCase().replace(' ', '-')}.csv`).type('text/csv; charset=utf-8').send(setup.writeCsv(register)),
    }),
    plain({ method: 'post', path: `${path}/csv/preview`, access: 'lead', mostBytes: 2_000_000, handle: async (request, response) => void response.json(await setup.previewCsv(register, request.body instanceof Uint8Array ? request.body : new Uint8Array())) }),
    command({ method: 'post', path, access: 'lead', name: `add${name}`, schema: addSchema, run: setup.addRow(register) }),
    command({ method: 'post', path: `${path}/import`, access: 'lead', name: `import${name}`, mostBytes: 8_000_000, schema: importRowsSchema(register) as unknown as Schema<ImportRows>, run: setup.importRows(register) }),
    command({ method: 'put', path: `${path}/:id`, access: 'lead', name: `edit${name}`, schema: editRowSchema(register) as unknown as Schema<EditRow>, run: setup.editRow(register) }),
    command({ method: 'post', path: `${path}/:id/retirement`, access: 'lead', name: `retire${name}`, schema: retireRowSchema, run: setup.retireRow(register) }),
  ]
}
