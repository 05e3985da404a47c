/** A calendar day where the teacher lives, as in 2026-11-30. It has no hour: clocks that change do not move it. */
export type Day = string

const DAY_MS = 86_400_000

const stampOf = (day: Day): number => Date.parse(`${day}T00:00:00Z`)

/** True for text that is a day of the calendar. */
export const isDay = (text: string): boolean =>
  /^\d{4}-\d{2}-\d{2}$/.test(text) && dayFromStamp(stampOf(text)) === text

const dayFromStamp = (stamp: number): string =>
  Number.isFinite(stamp) ? new Date(stamp).toISOString().slice(0, 10) : ''

/** The calendar day of a moment by the clock of this device. */
export function dayOf(moment: Date): Day {
  const two = (n: number) => String(n).padStart(2, '0')
  return `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`
}

/** A day so many days later. @example daysAfter('2026-02-27', 2) // '2026-03-01' */
export const daysAfter = (day: Day, days: number): Day => dayFromStamp(stampOf(day) + days * DAY_MS)

/** Days from one to another; negative where the other comes first. */
export const daysBetween = (from: Day, to: Day): number => Math.round((stampOf(to) - stampOf(from)) / DAY_MS)

/** The Monday of a day's week. */
export const weekOf = (day: Day): Day => daysAfter(day, -((new Date(stampOf(day)).getUTCDay() + 6) % 7))
