import { useNotifications } from '@mantine/notifications'
import { Suspense, useState } from 'react'
import { brought } from '../ui/brought.ts'

const NoticeList = brought(async () => (await import('./NoticeList.tsx')).NoticeList)

/** Short messages at the foot of the page; what shows them is brought with the first. */
export function Notices() {
  const any = useNotifications().notifications.length > 0
  const [wanted, setWanted] = useState(any)
  if (any && !wanted) setWanted(true)
  return wanted ? (
    <Suspense>
      <NoticeList />
    </Suspense>
  ) : null
}
