import { Select } from '@mantine/core'

/** One of a few named things, small, inside a form that may itself be unfolded. */
export function Choice<T extends string>({
  label,
  value,
  options,
  nameOf,
  onChoice,
}: {
  label: string
  value: T
  options: readonly T[]
  nameOf: (option: T) => string
  onChoice: (option: T) => void
}) {
  return (
    <Select
      size="xs"
      label={label}
      value={value}
      onChange={(v) => v && onChoice(v)}
      data={options.map((option) => ({ value: option, label: nameOf(option) }))}
      allowDeselect={false}
      comboboxProps={{ withinPortal: false }}
    />
  )
}
