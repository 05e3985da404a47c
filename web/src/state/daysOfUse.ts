import { db } from './db.ts'
import { storing } from './storageTrouble.ts'

const ID = 'days'

/** A day as a name, in the device's own time. */
const today = (): string => {
  const now = new Date()
  return `${now.getFullYear()}-${now.getMonth() + 1}-${now.getDate()}`
}

/**
 * On how many days the app has been used, this one included. What is kept for some days is kept for days of use: a clock
 * that jumps, or a long holiday, takes nothing away.
 */
export const dayOfUse = (): Promise<number> =>
  storing(() =>
    db.transaction('rw', db.meta, async () => {
      const row = await db.meta.get(ID)
      const day = today()
      if (row?.day === day) return row.count
      const count = (row?.count ?? 0) + 1
      await db.meta.put({ id: ID, day, count })
      return count
    }),
  )

/** The count as it stands, for what is read and followed live. */
export const lastDayOfUse = async (): Promise<number> => (await db.meta.get(ID))?.count ?? 0
