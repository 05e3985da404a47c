import { create } from 'zustand'

/** What a browser hands over where it can install the app as a program of its own. */
interface InstallOffer extends Event {
  readonly prompt: () => Promise<unknown>
}

const useOffer = create<{ readonly offer: InstallOffer | undefined }>(() => ({ offer: undefined }))

/** Keeps the browser's offer until it is wanted: it is made once, soon after the page opens. */
export function keepInstallOffer(): void {
  window.addEventListener('beforeinstallprompt', (event) => {
    event.preventDefault()
    useOffer.setState({ offer: event as InstallOffer })
  })
  window.addEventListener('appinstalled', () => useOffer.setState({ offer: undefined }))
}

export const useCanInstall = (): boolean => useOffer((s) => s.offer !== undefined)

/** Has the browser ask whether the app is to be installed. */
export async function install(): Promise<void> {
  const { offer } = useOffer.getState()
  useOffer.setState({ offer: undefined })
  await offer?.prompt()
}
