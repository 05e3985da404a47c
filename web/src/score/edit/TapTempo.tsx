import { NumberInput } from '@mantine/core'

/** The tempo that is tapped to, in beats a minute. */
export function TapTempo({
  label,
  bpm,
  onBpm,
}: {
  label: string
  bpm: number
  onBpm: (bpm: number) => void
}) {
  return (
    <NumberInput
      size="xs"
      w={90}
      label={label}
      min={20}
      max={300}
      value={bpm}
      onChange={(v) => typeof v === 'number' && v >= 20 && onBpm(v)}
    />
  )
}
