import { useComputedColorScheme, useMantineColorScheme } from '@mantine/core'
import { useCallback } from 'react'

/** Whether it is dark, and what turns it the other way. */
export function useDarkMode(): { readonly dark: boolean; readonly turn: () => void } {
  const { setColorScheme } = useMantineColorScheme()
  const dark = useComputedColorScheme('light') === 'dark'
  const turn = useCallback(() => setColorScheme(dark ? 'light' : 'dark'), [setColorScheme, dark])
  return { dark, turn }
}
