import { CheckIcon, Select, type SelectProps } from '@mantine/core'
import type { KeyboardEvent } from 'react'
import css from './LookSelect.module.css'

interface Props extends SelectProps {
  /** The option that is looked at, by mouse or by arrow keys, before one is taken; undefined once none is. */
  readonly onLook: (value: string | undefined) => void
}

/** A list that tells which of its options is looked at. */
export function LookSelect({ onLook, ...props }: Props) {
  const lookAtActive = ({ currentTarget }: KeyboardEvent<HTMLInputElement>) => {
    const active = currentTarget.getAttribute('aria-activedescendant')
    const option = active === null ? null : document.getElementById(active)
    onLook(option?.getAttribute('value') ?? undefined)
  }
  return (
    <Select
      {...props}
      onKeyUp={(event) => {
        if (event.key === 'ArrowDown' || event.key === 'ArrowUp') lookAtActive(event)
      }}
      onDropdownClose={() => onLook(undefined)}
      renderOption={({ option, checked }) => (
        <span className={css['look-option']} onPointerEnter={() => onLook(option.value)}>
          {checked ? <CheckIcon size={11} aria-hidden /> : null}
          {option.label}
        </span>
      )}
    />
  )
}
