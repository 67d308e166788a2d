import { addSchoolSchema, chooseDefaultSchema, editSchoolSchema, retireSchoolSchema, type EditSchool, type KeepSchool } from '../../core/acclimation/schools.schema'
import { command, read, type Endpoint } from '../http/endpoint'
import type { Schema } from '../../core/fields/validated'
import type { SchoolsService } from './schools.service'

/** Addresses of the house's own schools of acclimation. */
export const schoolsEndpoints = (schools: SchoolsService): Endpoint[] => [
  read({ path: '/api/schools', access: 'device', read: schools.list }),
  command({ method: 'post', path: '/api/schools', access: 'lead', name: 'addSchool', schema: addSchoolSchema as unknown as Schema<KeepSchool>, run: schools.add }),
  command({ method: 'put', path: '/api/schools/:schoolId', access: 'lead', name: 'editSchool', schema: editSchoolSchema as unknown as Schema<EditSchool>, run: schools.edit }),
  command({ method: 'put', path: '/api/schools/defaults/:situation', access: 'lead', name: 'chooseDefault', schema: chooseDefaultSchema, run: schools.chooseDefault }),
  command({ method: 'post', path: '/api/schools/:schoolId/retirement', access: 'lead', name: 'retireSchool', schema: retireSchoolSchema, run: schools.retire }),
]
