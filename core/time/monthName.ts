const months = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December']

/**
 * A calendar month as people read it.
 * @param month - as `2031-05`.
 * @example monthName('2031-05') // 'May 2031'
 */
export const monthName = (month: string): string => `${months[Number(month.slice(5, 7)) - 1]} ${month.slice(0, 4)}`
