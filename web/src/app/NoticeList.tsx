import { Notifications } from '@mantine/notifications'

/** The short messages that are shown now. */
export const NoticeList = () => <Notifications position="bottom-left" />
