import { calendarApi } from '../../core/due/calendar.api'
import { newKey } from '../api/newKey'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** The address at which a person's calendar reads what is due; making one gives it back, this once. */
export function useCalendar() {
  const { data, problem } = useRead(calendarApi.readCalendar, {})
  const write = useWrite()
  return {
    calendar: data,
    problem,
    async makeAddress(): Promise<string> {
      const secret = `${newKey()}${newKey()}`.slice(0, 43)
      await write(calendarApi.makeCalendar, { label: 'an address for a calendar', body: { secret } }, { refusals: 'form' })
      return `${window.location.origin}/api/calendar/${secret}.ics`
    },
    takeBackAddress: () => write(calendarApi.revokeCalendar, { label: 'the address of a calendar taken back', body: {} }, { refusals: 'form' }),
  }
}
