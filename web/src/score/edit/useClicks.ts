import { hertz } from '@velvet-porch/core/music'
import { useEffect } from 'react'
import { player } from '../playback/player.ts'

/** Pitch of the click. */
const CLICK = 96

/** Clicks while it is on, at so many beats a minute. */
export function useClicks(on: boolean, bpm: number): void {
  useEffect(() => {
    if (!on) return
    const click = () => void player.pluck(1, hertz(CLICK))
    click()
    const timer = setInterval(click, 60_000 / bpm)
    return () => clearInterval(timer)
  }, [on, bpm])
}
