import { schoolsApi } from '../../core/acclimation/schools.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { SchoolsService } from './schools.service'

/** Answers for the house's own schools of acclimation. */
export const schoolsEndpoints = (schools: SchoolsService): Endpoint[] =>
  serve(schoolsApi, { readSchools: schools.list, addSchool: schools.add, editSchool: schools.edit, chooseDefault: schools.chooseDefault, retireSchool: schools.retire })
