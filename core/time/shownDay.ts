const weekdays = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/**
 * A calendar day as people read it.
 * @example shownDay('2031-05-15') // 'Thu 15 May'
 */
export function shownDay(on: string): string {
  const date = new Date(Date.parse(on))
  return `${weekdays[date.getUTCDay()]} ${date.getUTCDate()} ${months[date.getUTCMonth()]}`
}

/**
 * Words with their calendar days as people read them.
 * @example datesShown('lost on 2031-05-15.') // 'lost on Thu 15 May.'
 */
export const datesShown = (words: string): string => words.replace(/\d{4}-\d{2}-\d{2}/g, (on) => shownDay(on))
