import { answers, command, named, read } from '../commands/declare'
import type { Schema } from '../fields/validated'
import { addSchoolSchema, chooseDefaultSchema, editSchoolSchema, retireSchoolSchema, type DefaultView, type EditSchool, type HouseSchool, type KeepSchool } from './schools.schema'

/** The house's own schools of acclimation. */
export const schoolsApi = named({
  /** the house's own schools, retired ones too, and which comes first in which situation */
  readSchools: read({ path: '/api/schools', access: 'device', about: () => ['school'], staysMs: Infinity, answer: answers<{ schools: HouseSchool[]; defaults: DefaultView[] }>() }),
  addSchool: command({ method: 'post', path: '/api/schools', access: 'lead', schema: addSchoolSchema as unknown as Schema<KeepSchool>, touches: () => ['school'] }),
  editSchool: command({ method: 'put', path: '/api/schools/:schoolId', access: 'lead', schema: editSchoolSchema as unknown as Schema<EditSchool>, touches: () => ['school'] }),
  /** schoolKey null: the usual one */
  chooseDefault: command({ method: 'put', path: '/api/schools/defaults/:situation', access: 'lead', schema: chooseDefaultSchema, touches: () => ['school'] }),
  retireSchool: command({ method: 'post', path: '/api/schools/:schoolId/retirement', access: 'lead', schema: retireSchoolSchema, touches: () => ['school'] }),
})
